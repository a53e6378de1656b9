import { note } from '../installation/installation.ts';
import type { Lauta } from '../context/lauta.ts';
import type { Stores } from '../storage/storage.ts';
import type { StoredKey } from './custodyStore.ts';

/** Keeps a device's key, and enters that it came: from then on none is exchanged or struck off unseen. */
export async function registerKey(
  lauta: Pick<Lauta, 'clock' | 'signer'>,
  stores: Stores,
  key: Omit<StoredKey, 'registeredAt' | 'revokedAt' | 'revokedWhy'>,
): Promise<void> {
  const { keyId, accountId, deviceId, pairingId } = key;
  const registeredAt = lauta.clock.now();
  await stores.custody.addKey({ ...key, registeredAt });
  await note(lauta, stores, accountId, registeredAt, {
    kind: 'key.register',
    keyId,
    accountId,
    deviceId,
    pairingId,
  });
}
