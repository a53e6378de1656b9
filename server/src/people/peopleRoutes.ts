import { suspendSchema, type PersonView } from '@lauta/contract';
import { csvAnswer } from '../http/csvAnswer.ts';
import { eventScope, idParameter, type RouteTable } from '../http/routeTable.ts';
import type { Lauta } from '../context/lauta.ts';
import type { SignedInAccount } from '../access/peopleStore.ts';
import { invite, offerRenewal, suspendAccount } from '../access/signIn.ts';
import type { EventId } from '@lauta/core/ids';

/** The people of an event, for its directors and judges. */
export function addPeopleRoutes(table: RouteTable): void {
  table.allowed(
    'post',
    '/api/events/:eventId/people/:accountId/renewal',
    'manage-people',
    eventScope,
    async ({ lauta, request, account }, { eventId }) => {
      const personId = idParameter(request, 'accountId');
      const { token, expiresAt } = await offerRenewal(lauta, account?.accountId ?? '', eventId, personId);
      return { path: `/renewal/${token}`, expiresAt: expiresAt.toISOString() };
    },
  );

  table.allowed(
    'post',
    '/api/events/:eventId/people/:accountId/suspension',
    'manage-people',
    eventScope,
    async ({ lauta, request, account }, { eventId }) => {
      const wish = suspendSchema.parse(request.body);
      const personId = idParameter(request, 'accountId');
      await suspendAccount(lauta, account as SignedInAccount, eventId, personId, wish);
      return { ok: true };
    },
  );

  table.allowed('get', '/api/events/:eventId/people', 'see-people', eventScope, ({ lauta }, { eventId }) =>
    listPeople(lauta, eventId),
  );

  table.allowed(
    'get',
    '/api/events/:eventId/people.csv',
    'see-people',
    eventScope,
    async ({ lauta, response }, { eventId }) => {
      const rows = (await listPeople(lauta, eventId)).map(({ name, email, roles, entrantNumber }) => ({
        number: entrantNumber ?? '',
        name,
        email,
        roles: roles.join(' '),
      }));
      return csvAnswer(response, 'people', rows);
    },
  );

  table.allowed(
    'post',
    '/api/events/:eventId/people/:accountId/invitation',
    'manage-people',
    eventScope,
    async ({ lauta, request }, { eventId }) => {
      const { token, expiresAt } = await invite(lauta, eventId, idParameter(request, 'accountId'));
      return { path: `/invitation/${token}`, expiresAt: expiresAt.toISOString() };
    },
  );
}

async function listPeople(lauta: Lauta, eventId: EventId): Promise<PersonView[]> {
  const people = await lauta.storage.read.people.peopleOf(eventId);
  return people.map(({ account, roles, isAccepted, entrantNumber }) => ({
    accountId: account.accountId,
    // Whoever knows an address learns no name by it before its owner has come to the event.
    name: isAccepted || account.invitedByEventId === eventId ? account.name : '',
    email: account.email,
    roles,
    entrantNumber,
    hasPassword: account.passwordHash !== null,
    isAccepted,
    isSuspended: Boolean(account.suspendedAt),
    isInvitedHere: account.invitedByEventId === eventId,
  }));
}
