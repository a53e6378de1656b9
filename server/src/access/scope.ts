import { may, type Capability, type Subject } from '@lauta/core/people';
import { refuse } from '../base/refusal.ts';
import type { Pairing } from './peopleStore.ts';
import type { Stores } from '../storage/storage.ts';
import type { AccountId, EntrantId, EventId } from '@lauta/core/ids';

/** What is asked about: an event, and where it matters one entrant or several of its entrants. */
export interface Scope {
  eventId: EventId | null;
  entrantId?: EntrantId | null;
  /** What is asked about was made by the asker, whoever's entrant it belongs to. */
  own?: boolean;
}

export interface Asker {
  accountId: AccountId;
  founder: boolean;
  /** Set on a phone that was paired: it acts for one entrant of one event, and for nobody else. */
  pairing: Pairing | null;
}

async function subjectOf(stores: Stores, asker: Asker | null, scope: Scope): Promise<Subject> {
  const { eventId, entrantId } = scope;
  const event = eventId ? await stores.events.find(eventId) : null;
  const pairing = asker?.pairing ?? null;
  const held = asker && eventId ? await stores.people.rolesIn(eventId, asker.accountId) : [];
  const roles = pairing ? held.filter((role) => role === 'angler' && eventId === pairing.eventId) : held;
  const isMember = asker && entrantId ? await stores.people.isMember(entrantId, asker.accountId) : false;
  const member = isMember && (!pairing || entrantId === pairing.entrantId);
  return {
    signedIn: asker !== null,
    founder: (asker?.founder ?? false) && !pairing,
    paired: pairing !== null,
    roles: new Set(roles),
    eventPublic: event?.isPublic ?? false,
    ownEntrant: member || (scope.own ?? false),
  };
}

/** Refuses unless the table in core allows it. Someone not signed in is asked to sign in first. */
export async function requireMay(
  stores: Stores,
  asker: Asker | null,
  capability: Capability,
  scope: Scope,
): Promise<Subject> {
  const subject = await subjectOf(stores, asker, scope);
  if (!may(capability, subject)) {
    if (!subject.signedIn) refuse('not-signed-in');
    // What one may not even see does not exist.
    if (scope.eventId && !may('see-event', subject)) refuse('not-found', { what: 'event' });
    if (capability === 'judge-catch' && subject.roles.has('judge')) refuse('own-catch');
    refuse('not-allowed', { capability });
  }
  return subject;
}

/** The asker of a command: its account must still be there. */
export async function askerOf(stores: Stores, accountId: AccountId, pairing: Pairing | null): Promise<Asker> {
  const account = await stores.people.findAccount(accountId);
  if (!account) refuse('not-signed-in');
  return { accountId, founder: account.founder, pairing };
}

/** The entrants that an account may act for in an event; on a partner's phone the one that it was paired for. */
export async function ownEntrantIds(
  stores: Stores,
  { accountId, pairing }: Pick<Asker, 'accountId' | 'pairing'>,
  eventId: EventId,
): Promise<string[]> {
  const own = (await stores.people.entrantsWith(accountId)).filter((one) => one.eventId === eventId);
  return own.map(({ entrantId }) => entrantId).filter((id) => !pairing || id === pairing.entrantId);
}
