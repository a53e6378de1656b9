import 'fake-indexeddb/auto';
import { createHash, webcrypto } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { firstFormer, statementBytes, statementHash, type PublicKey } from '@lauta/core/custody';
import { openCustodyStore } from './custodyStore.ts';
import { RUN_ID, openSigner, proofOf, sha256Of, type Capture } from './signer.ts';

const EVENT = '0190c1d2-0000-7000-8000-000000000002';

/** One act at a time, as a lock over tabs would have it. */
function queue() {
  let last: Promise<unknown> = Promise.resolve();
  return <T>(act: () => Promise<T>): Promise<T> => {
    const next = last.then(act, act);
    last = next.catch(() => undefined);
    return next;
  };
}
let count = 0;
const captureOf = (text: string, change: Partial<Capture> = {}): Capture => ({
  eventId: EVENT,
  entrantId: '0190c1d2-0000-7000-8000-000000000005',
  catchId: '0190c1d2-0000-7000-8000-000000000006',
  kind: 'frame',
  photo: new Blob([text]),
  atMs: Date.UTC(2026, 5, 14, 10) + count++,
  monotonicMs: 1000 + count,
  clockOffsetMs: 12,
  position: null,
  identifierCode: 'K7M2',
  frameId: null,
  ...change,
});
/** As another program checks it (Node’s Web Crypto). */
async function fits(key: PublicKey, bytes: Uint8Array, signature: string): Promise<boolean> {
  const imported = await webcrypto.subtle.importKey('jwk', { ...key }, { name: 'ECDSA', namedCurve: 'P-256' }, false, ['verify']); // prettier-ignore
  return webcrypto.subtle.verify({ name: 'ECDSA', hash: 'SHA-256' }, imported, Buffer.from(signature, 'base64url'), bytes); // prettier-ignore
}

describe('what a device signs', () => {
  it('is chained from the event on, each naming the one before, with a signature that fits', async () => {
    const store = openCustodyStore('chain');
    const signer = openSigner(store, queue());
    const first = await signer.sign('me', captureOf('one'));
    const second = await signer.sign('me', captureOf('two'));
    const key = await signer.keyOf('me');
    expect(first.statement).toMatchObject({ seq: 1, former: firstFormer(key.keyId, EVENT), runId: RUN_ID });
    expect(second.statement).toMatchObject({ seq: 2, former: statementHash(first.statement) });
    expect(first.statement.photographSha256).toBe(createHash('sha256').update('one').digest('hex'));
    for (const { statement, signature } of [first, second])
      expect(await fits(key.publicKey, statementBytes(statement), signature)).toBe(true);
    expect(await fits(key.publicKey, statementBytes({ ...first.statement, identifierCode: 'ZZ99' }), first.signature)).toBe(false); // prettier-ignore
  });

  it('takes one place each, however many are signed at once', async () => {
    const signer = openSigner(openCustodyStore('burst'), queue());
    const burst = await Promise.all(Array.from({ length: 12 }, (_, i) => signer.sign('me', captureOf(`frame ${i}`)))); // prettier-ignore
    const places = burst.map(({ statement }) => statement.seq).sort((a, b) => a - b);
    expect(places).toEqual(Array.from({ length: 12 }, (_, i) => i + 1));
    const formers = new Set(burst.map(({ statement }) => statement.former));
    expect(formers.size).toBe(12);
  });

  it('goes on with the same key and chain after a restart, and anew in another event', async () => {
    const before = openSigner(openCustodyStore('restart'), queue());
    const first = await before.sign('me', captureOf('one'));
    const after = openSigner(openCustodyStore('restart'), queue());
    const second = await after.sign('me', captureOf('two'));
    expect(second.statement).toMatchObject({ keyId: first.statement.keyId, seq: 2, former: statementHash(first.statement) }); // prettier-ignore
    const elsewhere = await after.sign(
      'me',
      captureOf('three', { eventId: '0190c1d2-0000-7000-8000-00000000000b' }),
    );
    expect(elsewhere.statement.seq).toBe(1);
  });

  it('is signed by each account with its own key, which cannot be exported', async () => {
    const signer = openSigner(openCustodyStore('two accounts'), queue());
    const [mine, yours] = [await signer.keyOf('me'), await signer.keyOf('you')];
    expect(mine.keyId).not.toBe(yours.keyId);
    expect(mine.pair.privateKey.extractable).toBe(false);
    await expect(crypto.subtle.exportKey('jwk', mine.pair.privateKey)).rejects.toThrow();
    expect(await proofOf(mine, 'me')).toMatch(/^[A-Za-z0-9_-]{86}$/);
  });

  it('waits on the device until it is told, in its order, and then no more', async () => {
    const store = openCustodyStore('told');
    const signer = openSigner(store, queue());
    for (const text of ['one', 'two', 'three']) await signer.sign('me', captureOf(text, { frameId: text }));
    const untold = await store.untold();
    expect(untold.map(({ frameId }) => frameId)).toEqual(['one', 'two', 'three']);
    await store.markTold(untold.slice(0, 2).map(({ captureId }) => captureId));
    expect((await store.untold()).map(({ frameId }) => frameId)).toEqual(['three']);
    expect((await store.capture(untold[0]?.captureId ?? ''))?.frameId).toBe('one');
  });

  it('sums bytes as SHA-256 does (FIPS 180-4, “abc”)', async () => {
    expect(await sha256Of(new Blob(['abc']))).toBe(
      'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad',
    );
  });
});
