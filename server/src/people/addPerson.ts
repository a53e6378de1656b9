import { v7 as uuidv7 } from 'uuid';
import type { Handler } from '../command/commandContext.ts';
import { issueMissingIdentifiers } from '../event/identifiers.ts';
import { requireMay } from './subject.ts';

/** Gives a person roles in the event; who becomes an angler becomes an entrant of one. */
export const addPerson: Handler<'people.add'> = async (
  { stores, asker, now, random, commit },
  body,
  command,
) => {
  const { eventId } = command;
  await requireMay(stores, asker, 'manage-people', { eventId });
  const known = await stores.people.findAccountByEmail(body.email);
  const personId = known?.accountId ?? body.accountId;
  if (!known) {
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
  for (const role of body.roles) await stores.people.addRole(eventId, personId, role);
  let entrant: { entrantId: string; number: number } | null = null;
  if (body.roles.includes('angler')) {
    const entrants = await stores.people.entrantsOf(eventId);
    const own = (await stores.people.entrantsWith(personId)).find((one) => one.eventId === eventId);
    if (!own) {
      entrant = { entrantId: uuidv7(), number: 1 + Math.max(0, ...entrants.map((one) => one.number)) };
      await stores.people.addEntrant(eventId, entrant.entrantId, entrant.number, personId);
      await issueMissingIdentifiers(stores, eventId, random);
    }
  }
  return {
    body: {
      accountId: personId,
      roles: body.roles.toSorted(),
      entrant,
      person: commit('person', { name: known?.name ?? body.name, email: body.email }),
    },
    result: { accountId: personId, entrantId: entrant?.entrantId ?? null },
  };
};
