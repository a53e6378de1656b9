import { v7 as uuidv7 } from 'uuid';
import type { Handler } from '../command/commandContext.ts';
import { issueMissingIdentifiers } from '../event/identifiers.ts';
import { refuse } from '../base/refusal.ts';
import { tokenSha256 } from '../access/signIn.ts';
import { requireMay } from '../access/scope.ts';
import type { DayId, EntrantId } from '@lauta/core/ids';

/**
 * Gives a person roles in the event; who becomes an angler becomes an entrant of one. A role counts once its person has
 * taken it up by the link that the event's director hands over: nobody comes to one by an account that another opened
 * under the same address. A director's own roles count at once.
 */
export const addPerson: Handler<'people.add'> = async (
  { stores, asker, accountId, now, random, commit },
  body,
  command,
) => {
  const { eventId } = command;
  await requireMay(stores, asker, 'manage-people', { eventId });
  const known = await stores.people.findAccountByEmail(body.email);
  const personId = known?.accountId ?? body.accountId;
  if (!known) {
    if (await stores.people.findAccount(personId)) refuse('id-taken', { accountId: personId });
    await stores.people.addAccount(
      {
        accountId: personId,
        name: body.name,
        email: body.email,
        passwordHash: null,
        founder: false,
        invitedByEventId: eventId,
      },
      now,
    );
  }
  const acceptedAt = personId === accountId ? now : null;
  for (const role of body.roles) await stores.people.addRole(eventId, personId, role, acceptedAt);
  let entrant: { entrantId: EntrantId; number: number } | null = null;
  let identifiers: { entrantId: EntrantId; dayId: DayId; code: string }[] = [];
  if (body.roles.includes('angler')) {
    const entrants = await stores.people.entrantsOf(eventId);
    const own = (await stores.people.entrantsWith(personId)).find((one) => one.eventId === eventId);
    if (!own) {
      entrant = { entrantId: uuidv7(), number: 1 + Math.max(0, ...entrants.map((one) => one.number)) };
      await stores.people.addEntrant(eventId, entrant.entrantId, entrant.number, personId);
      identifiers = await issueMissingIdentifiers(stores, eventId, random);
    }
  }
  return {
    body: {
      accountId: personId,
      roles: body.roles.toSorted(),
      entrant,
      person: commit('person', { name: known?.name ?? body.name, email: body.email }),
      identifiers: commit('identifiers', identifiers),
    },
    result: { accountId: personId, entrantId: entrant?.entrantId ?? null },
  };
};

/** Takes up what a director gave: from then on the roles count. */
export const acceptRoles: Handler<'people.accept'> = async (
  { stores, accountId, asker, now },
  { token },
  { eventId },
) => {
  if (asker.pairing) refuse('not-allowed');
  const used = await stores.people.useInvitation(tokenSha256(token), new Date());
  if (used?.kind !== 'invitation' || used.eventId !== eventId || used.accountId !== accountId)
    refuse('invitation-used');
  const roles = await stores.people.acceptRoles(eventId, accountId, now);
  return { body: { accountId, roles: roles.toSorted() }, result: { roles } };
};

/** Takes roles away, at once: open pages, streams and partners' phones of the person lose what came with them. */
export const removePerson: Handler<'people.remove'> = async (
  { stores, asker, now, commit },
  { accountId: personId, roles, why },
  { eventId },
) => {
  await requireMay(stores, asker, 'manage-people', { eventId });
  const held = await stores.people.heldIn(eventId, personId);
  const removed = roles.filter((role) => held.some((one) => one.role === role));
  if (removed.length === 0) refuse('not-found', { what: 'role' });
  if (
    removed.includes('director') &&
    (await stores.people.directorsOf(eventId)).every((id) => id === personId)
  )
    refuse('last-director');
  await stores.people.removeRoles(eventId, personId, removed);
  if (removed.includes('angler')) await stores.people.endPairingsOf(personId, eventId, now);
  return {
    body: { accountId: personId, roles: removed.toSorted(), why: commit('why', why) },
    result: { roles: removed },
  };
};
