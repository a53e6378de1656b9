import { keysOf } from '../keys.ts';
export const ROLES = ['director', 'judge', 'weigh-master', 'angler'] as const;
export type Role = (typeof ROLES)[number];

/** Who asks, and how they stand to what they ask about. */
export interface Subject {
  signedIn: boolean;
  /** May create events on this installation. */
  founder: boolean;
  /** Roles in the event that is asked about. */
  roles: ReadonlySet<Role>;
  /** The event is published, so that anyone may look. */
  eventPublic: boolean;
  /** Member of the entrant that is asked about: an own catch, or a partner's. */
  ownEntrant: boolean;
  /** Asks from a partner's phone, which was paired to act for one entrant. */
  paired: boolean;
}

type Rule = (subject: Subject) => boolean;

const has =
  (...roles: Role[]): Rule =>
  (subject) =>
    subject.signedIn && roles.some((role) => subject.roles.has(role));

const anyRole = has(...ROLES);
const own: Rule = (subject) => subject.signedIn && subject.ownEntrant;
const ownPhone: Rule = (subject) => own(subject) && !subject.paired;
const openTo =
  (rule: Rule): Rule =>
  (subject) =>
    subject.eventPublic || rule(subject);
const anyOf =
  (...rules: Rule[]): Rule =>
  (subject) =>
    rules.some((rule) => rule(subject));

/** The one table that decides who may do what. A route names its capability; nothing else grants or refuses. */
const TABLE = {
  'create-event': (subject) => subject.signedIn && subject.founder,
  'see-event': openTo(anyRole),
  'see-standings': openTo(anyRole),
  'see-ledger': openTo(anyRole),
  'edit-event': has('director'),
  'publish-rules': has('director'),
  'add-board': has('director'),
  'manage-people': has('director'),
  'see-people': has('director', 'judge'),
  'see-identifier': anyOf(own, has('director', 'judge')),
  'upload-photograph': has('angler', 'judge', 'director'),
  'claim-catch': (subject) => own(subject) && subject.roles.has('angler'),
  'tell-catch': own,
  'withdraw-catch': ownPhone,
  'see-well': own,
  weigh: has('weigh-master', 'director'),
  'see-weigh-in': has('weigh-master', 'director', 'judge'),
  'see-ticket': anyOf(own, has('weigh-master', 'director', 'judge')),
  'keep-well': (subject) => ownPhone(subject) && subject.roles.has('angler'),
  'record-specimen': (subject) => ownPhone(subject) && subject.roles.has('angler'),
  'see-specimens': has('judge', 'director'),
  'answer-request': ownPhone,
  'pair-phone': (subject) => ownPhone(subject) && subject.roles.has('angler'),
  'see-catch': anyOf(own, has('judge', 'director')),
  'see-original': anyOf(own, has('judge')),
  'see-queue': has('judge'),
  'judge-catch': (subject) => has('judge')(subject) && !subject.ownEntrant,
} as const satisfies Record<string, Rule>;

export type Capability = keyof typeof TABLE;
export const CAPABILITIES = keysOf(TABLE);

export function may(capability: Capability, subject: Subject): boolean {
  return TABLE[capability](subject);
}
