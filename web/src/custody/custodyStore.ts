import type { SignedCapture } from '@lauta/contract';
import type { ChainHead, PublicKey } from '@lauta/core/custody';
import { deviceDatabase } from '../device/database.ts';
import type { AccountId, CaptureId, EntrantId, EventId, FileId, KeyId } from '@lauta/core/ids';

export interface DeviceKey {
  keyId: KeyId;
  publicKey: PublicKey;
  /** Cannot be exported: it signs, and nobody reads it. */
  pair: CryptoKeyPair;
}

/** What was signed on this device. */
export interface KeptCapture {
  captureId: CaptureId;
  eventId: EventId;
  entrantId: EntrantId;
  signed: SignedCapture;
  /** The frame that it speaks of, by its id in the frames' store; null where none is kept. */
  frameId: FileId | null;
  /** 0 as long as it is not in the outbox. */
  isTold: 0 | 1;
}

declare module '../device/deviceStores.ts' {
  interface DeviceStores {
    /** By account. */
    keys: { key: string; value: DeviceKey };
    chains: { key: string; value: ChainHead };
    captures: { key: string; value: KeptCapture; indexes: { isTold: number } };
  }
}

/** Keys, chains and captures of this device; rejects where the browser refuses to store. */
export function openCustodyStore(name?: string) {
  const database = () => deviceDatabase(name);
  const chainOf = (keyId: KeyId, eventId: EventId): string => `${keyId} ${eventId}`;
  return {
    /** The account's key on this device; null before one was made. */
    async key(accountId: AccountId): Promise<DeviceKey | null> {
      return (await (await database()).get('keys', accountId)) ?? null;
    },
    async putKey(accountId: AccountId, key: DeviceKey): Promise<void> {
      await (await database()).put('keys', key, accountId);
    },
    async head(keyId: KeyId, eventId: EventId): Promise<ChainHead | null> {
      return (await (await database()).get('chains', chainOf(keyId, eventId))) ?? null;
    },
    /** A capture and the new head of its chain, together: no capture is forgotten that the next one names. */
    async append(head: ChainHead, kept: KeptCapture): Promise<void> {
      const db = await database();
      const change = db.transaction(['chains', 'captures'], 'readwrite', { durability: 'strict' });
      await Promise.all([
        change.objectStore('chains').put(head, chainOf(kept.signed.statement.keyId, kept.eventId)),
        change.objectStore('captures').put(kept),
        change.done,
      ]);
    },
    /** What is not in the outbox yet, in the order in which it was signed. */
    async untold(): Promise<KeptCapture[]> {
      const found = await (await database()).getAllFromIndex('captures', 'isTold', 0);
      return found.sort((a, b) => a.signed.statement.seq - b.signed.statement.seq);
    },
    async markTold(captureIds: readonly CaptureId[]): Promise<void> {
      const db = await database();
      const change = db.transaction('captures', 'readwrite');
      for (const id of captureIds) {
        const kept = await change.store.get(id);
        if (kept) await change.store.put({ ...kept, isTold: 1 });
      }
      await change.done;
    },
    /** Frames of an event that are kept for judges to ask for. */
    async framesOf(eventId: EventId): Promise<string[]> {
      const all = await (await database()).getAll('captures');
      return all.flatMap((kept) => (kept.eventId === eventId && kept.frameId !== null ? [kept.frameId] : []));
    },
    async capture(captureId: CaptureId): Promise<KeptCapture | null> {
      return (await (await database()).get('captures', captureId)) ?? null;
    },
  };
}

export type CustodyStore = ReturnType<typeof openCustodyStore>;
