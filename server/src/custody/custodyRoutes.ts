import {
  registerKeySchema,
  revokeKeySchema,
  type AnnouncedView,
  type AskedFrameView,
  type OwnKeyView,
} from '@lauta/contract';
import { keyIdOf } from '@lauta/core/custody';
import { catchScope } from '../catch/catchScope.ts';
import { eventScope, idParameter, type RouteTable } from '../http/routeTable.ts';
import { ownEntrantIds } from '../access/scope.ts';
import { refuse } from '../base/refusal.ts';
import { isDuplicate } from '../storage/database.ts';
import type { Stores } from '../storage/storage.ts';
import { note } from '../installation/installation.ts';
import { viewCustody } from './viewCustody.ts';
import { registerKey } from './registerKey.ts';
import type { StoredKey } from './custodyStore.ts';
import { isRegistrationSigned } from './isSignedBy.ts';
import type { EventId } from '@lauta/core/ids';

/** Phones and browsers that one account may have used; one whose store was cleared counts anew. */
const MOST_KEYS = 400;
const MOST_PAIRED_KEYS = 20;
const MOST_ANNOUNCED = 200;

export function addCustodyRoutes(table: RouteTable): void {
  addKeyRoutes(table);
  table.allowed(
    'get',
    '/api/catches/:catchId/custody',
    'judge-catch',
    catchScope,
    async ({ lauta, request }) => {
      const record = await lauta.storage.read.catches.find(idParameter(request, 'catchId'));
      return record ? viewCustody(lauta.storage.read, record) : undefined;
    },
  );

  table.allowed(
    'get',
    '/api/events/:eventId/announced',
    'see-queue',
    eventScope,
    async ({ lauta }, { eventId }) => {
      const stores = lauta.storage.read;
      return announcedIn(stores, eventId);
    },
  );

  table.signedIn('get', '/api/events/:eventId/asked-frames', async (asked) => {
    const { lauta, account } = asked;
    const { eventId } = await eventScope(asked);
    const stores = lauta.storage.read;
    const frames = await stores.custody.askedOf(await ownEntrantIds(stores, account, eventId));
    return frames.map(({ catchId, captureId, statement }): AskedFrameView => ({
      catchId,
      captureId,
      photographSha256: statement.photographSha256,
    }));
  });
}

/** A device's keys: its owner alone sees them, registers them and strikes them off. */
function addKeyRoutes(table: RouteTable): void {
  table.signedIn('get', '/api/own-keys', async ({ lauta, account }) =>
    (await lauta.storage.read.custody.keysOf(account.accountId)).map(keyView),
  );

  table.signedIn('post', '/api/own-keys', async ({ lauta, request, account }) => {
    const { publicKey, deviceId, proof } = registerKeySchema.parse(request.body);
    const { accountId } = account;
    const { custody } = lauta.storage.read;
    const keyId = keyIdOf(publicKey);
    if (!(await isRegistrationSigned(publicKey, proof, keyId, accountId))) refuse('key-not-proven');
    const known = await custody.findKey(keyId);
    if (!known) {
      const pairingId = account.pairing?.pairingId ?? null;
      // A partner's phone uses up none of the account's own.
      const most = pairingId ? MOST_PAIRED_KEYS : MOST_KEYS;
      await lauta.storage
        .change(async (stores) => {
          await stores.people.lockAccount(accountId);
          const alike = (await stores.custody.keysOf(accountId)).filter((one) => one.pairingId === pairingId);
          if (alike.length >= most) refuse('too-many-keys', { most });
          await registerKey(lauta, stores, { keyId, accountId, deviceId, publicKey, pairingId });
        })
        .catch((error: unknown) => {
          if (!isDuplicate(error)) throw error;
        });
    }
    const key = known ?? (await custody.findKey(keyId));
    if (!key || key.accountId !== accountId) refuse('key-registered');
    return keyView(key);
  });

  table.signedIn('post', '/api/own-keys/:keyId/revoke', async ({ lauta, request, account }) => {
    if (account.pairing) refuse('not-allowed');
    const { why } = revokeKeySchema.parse(request.body);
    const keyId = String(request.params['keyId']);
    const { custody } = lauta.storage.read;
    const key = /^[0-9a-f]{64}$/.test(keyId) ? await custody.findKey(keyId) : null;
    if (!key || key.accountId !== account.accountId) refuse('not-found', { what: 'key' });
    // Once struck off it stays so, from the first time on.
    if (key.revokedAt === null)
      await lauta.storage.change(async (stores) => {
        const at = lauta.clock.now();
        await stores.custody.revokeKey(keyId, at, why);
        const { accountId } = account;
        await note(lauta, stores, accountId, at, { kind: 'key.revoke', accountId, keyId, why });
      });
    return keyView((await custody.findKey(keyId)) ?? key);
  });
}

/** Claims that were announced and have not come yet. */
async function announcedIn(stores: Stores, eventId: EventId): Promise<AnnouncedView[]> {
  const announced = await stores.custody.announcedIn(eventId, MOST_ANNOUNCED);
  const entrants = await stores.people.entrantsOf(eventId);
  return announced.flatMap(({ body, heardAt }): AnnouncedView[] => {
    const entrant = entrants.find(({ entrantId }) => entrantId === body.entrantId);
    if (!entrant) return [];
    const { catchId, speciesId, capturedAt, claimedSteps, photographs } = body;
    const { entrantId, number, name } = entrant;
    return [
      {
        catchId,
        entrant: { entrantId, number, name },
        speciesId,
        capturedAt,
        claimedSteps,
        heardAt: heardAt.toISOString(),
        bytes: photographs.reduce((sum, { byteLength }) => sum + byteLength, 0),
      },
    ];
  });
}

function keyView({ keyId, deviceId, registeredAt, revokedAt, revokedWhy }: StoredKey): OwnKeyView {
  return {
    keyId,
    deviceId,
    registeredAt: registeredAt.toISOString(),
    revokedAt: revokedAt?.toISOString() ?? null,
    revokedWhy,
  };
}
