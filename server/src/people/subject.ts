import { may, type Capability, type Subject } from '@lauta/core/people';
import { refuse } from '../refusal.ts';
import type { Stores } from '../storage/storage.ts';

/** What is asked about: an event, and where it matters one entrant or several of its entrants. */
export interface Scope {
  eventId: string | null;
  entrantId?: string | null;
  /** What is asked about was made by the asker, whoever's entrant it belongs to. */
  own?: boolean;
}

export interface Asker {
  accountId: string;
  founder: boolean;
}

async function subjectOf(stores: Stores, asker: Asker | null, scope: Scope): Promise<Subject> {
  const { eventId, entrantId } = scope;
  const event = eventId ? await stores.events.find(eventId) : null;
  const roles = asker && eventId ? await stores.people.rolesIn(eventId, asker.accountId) : [];
  const member = asker && entrantId ? await stores.people.isMember(entrantId, asker.accountId) : false;
  return {
    signedIn: asker !== null,
    founder: asker?.founder ?? false,
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
export async function askerOf(stores: Stores, accountId: string): Promise<Asker> {
  const account = await stores.people.findAccount(accountId);
  if (!account) refuse('not-signed-in');
  return { accountId, founder: account.founder };
}
