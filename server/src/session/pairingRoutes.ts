import { acceptPairingSchema, offerPairingSchema, type PairingView } from '@lauta/contract';
import { eventScope, idParameter, type RouteTable } from '../http/routeTable.ts';
import { refuse } from '../base/refusal.ts';
import { fromOf, replaceToken } from './replaceToken.ts';
import type { SignedInAccount } from '../access/peopleStore.ts';
import { acceptPairing, endPairing, offerPairing } from '../access/signIn.ts';
import { jsonBody, type SignInLimiters } from './signInLimiters.ts';

/** Partners' phones: a code that is offered, taken up, and ended. */
export function addPairingRoutes(table: RouteTable, { byAddress }: SignInLimiters): void {
  table.allowed(
    'post',
    '/api/pairings',
    'pair-phone',
    ({ request }) => {
      const { eventId, entrantId } = offerPairingSchema.parse(request.body);
      return Promise.resolve({ eventId, entrantId });
    },
    async ({ lauta, request, account }) => {
      const offer = offerPairingSchema.parse(request.body);
      const stores = lauta.storage.read;
      const { accountId } = account as SignedInAccount;
      if ((await stores.people.findEntrant(offer.entrantId))?.eventId !== offer.eventId)
        refuse('not-found', { what: 'entrant' });
      const { token, expiresAt } = await offerPairing(stores, { ...offer, accountId });
      return { path: `/pair/${token}`, expiresAt: expiresAt.toISOString() };
    },
  );

  table.anyone(
    'post',
    '/api/pairings/accept',
    async ({ lauta, request, response }) => {
      const { token } = acceptPairingSchema.parse(request.body);
      await replaceToken(lauta, request, response, await acceptPairing(lauta, token, fromOf(request)));
      return { ok: true };
    },
    [jsonBody(), byAddress],
  );

  table.signedIn('get', '/api/events/:eventId/own-pairings', async (asked) => {
    const { eventId } = await eventScope(asked);
    const { accountId, pairing } = asked.account;
    const own = pairing ? [] : await asked.lauta.storage.read.people.pairingsOf(accountId, eventId);
    return own.map(({ pairingId, job, createdAt, usedAt }): PairingView => ({
      pairingId,
      job,
      createdAt: createdAt.toISOString(),
      usedAt: usedAt?.toISOString() ?? null,
    }));
  });

  table.signedIn('post', '/api/own-pairings/:pairingId/end', async ({ lauta, request, account }) => {
    const pairingId = idParameter(request, 'pairingId');
    // A partner's phone may end its own.
    if (account.pairing && account.pairing.pairingId !== pairingId) refuse('not-allowed');
    await endPairing(lauta, account.accountId, pairingId);
    return { ok: true };
  });
}
