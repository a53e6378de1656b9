import { describe, expect, it } from 'vitest';
import {
  appendEntry,
  canonicalBytes,
  commitTo,
  genesisHash,
  hashHex,
  verifyLedger,
  type LedgerHead,
  type StoredEntry,
} from './index.ts';

const utf8 = (text: string) => new TextEncoder().encode(text);

describe('hashes and canonical bytes', () => {
  // FIPS 180-4 examples.
  it.each([
    ['abc', 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad'],
    [
      'abcdbcdecdefdefgefghfghighijhijkijkljklmklmnlmnomnopnopq',
      '248d6a61d20638b8e5c026930c3e6039a33ce45964ff2167f6ecedd419db06c1',
    ],
  ])('SHA-256 of %s', (text, hash) => {
    expect(hashHex(utf8(text))).toBe(hash);
  });

  it('RFC 8785, section 3.2.3: the sample and its hash', () => {
    const sample = {
      numbers: [Number('333333333.33333329'), 1e30, 4.5, 2e-3, 0.000000000000000000000000001],
      string: '€$\u000f\nA\'B"\\\\"/',
      literals: [null, true, false],
    };
    expect(hashHex(canonicalBytes(sample))).toBe(
      '2d5e01a318d0f0879ab568c4be289c8b1f64ef8921a53c6277d5e069978baacb',
    );
  });

  it('RFC 8785, section 3.2.2.2: a lone surrogate is refused; so are NaN and undefined', () => {
    expect(() => canonicalBytes('\ud800')).toThrow(TypeError);
    expect(() => canonicalBytes({ a: NaN })).toThrow(TypeError);
    expect(() => canonicalBytes(undefined)).toThrow(TypeError);
  });
});

const EVENT = '01930000-0000-7000-8000-000000000001';

function chain(length: number): StoredEntry[] {
  const entries: StoredEntry[] = [];
  let head: LedgerHead = { seq: 0, hash: genesisHash(EVENT) };
  for (let i = 0; i < length; i++) {
    const entry = appendEntry(head, {
      eventId: EVENT,
      actorId: 'actor',
      kind: 'catch.claim',
      at: '2026-11-24T10:00:00.000Z',
      body: { steps: 60 + i, note: 'ä€😀' },
    });
    entries.push(entry);
    head = entry;
  }
  return entries;
}

describe('the chain', () => {
  it('holds when nothing was touched, empty too', () => {
    const entries = chain(5);
    expect(verifyLedger(EVENT, entries)).toEqual({ ok: true, head: { seq: 5, hash: entries[4]?.hash } });
    expect(verifyLedger(EVENT, [])).toEqual({ ok: true, head: { seq: 0, hash: genesisHash(EVENT) } });
  });

  it('names the entry in which any single byte was changed', () => {
    const entries = chain(3);
    const target = entries[1] as StoredEntry;
    for (let i = 0; i < target.bytes.length; i++) {
      const bytes = target.bytes.slice();
      bytes[i] = (bytes[i] ?? 0) ^ 1;
      const altered = entries.with(1, { ...target, bytes });
      expect(verifyLedger(EVENT, altered)).toEqual({ ok: false, seq: 2, fault: 'altered' });
    }
  });

  it('names the first entry after one that was rewritten with a fitting hash', () => {
    const entries = chain(3);
    const forged = appendEntry(entries[0] as LedgerHead, {
      eventId: EVENT,
      actorId: 'x',
      kind: 'catch.claim',
      at: '',
      body: { steps: 99 },
    });
    expect(verifyLedger(EVENT, entries.with(1, forged))).toEqual({ ok: false, seq: 3, fault: 'broken-link' });
  });

  it('finds an entry taken out, in the middle or at the end', () => {
    const entries = chain(4);
    expect(verifyLedger(EVENT, entries.toSpliced(1, 1))).toMatchObject({
      ok: false,
      seq: 2,
      fault: 'missing',
    });
    const head = { seq: 4, hash: entries[3]?.hash ?? '' };
    expect(verifyLedger(EVENT, entries.slice(0, 3), head)).toEqual({ ok: false, seq: 4, fault: 'missing' });
  });

  it('finds a whole chain rewritten against a head kept elsewhere', () => {
    expect(verifyLedger(EVENT, chain(3), { seq: 3, hash: 'ff' })).toEqual({
      ok: false,
      seq: 3,
      fault: 'altered',
    });
  });

  it('is bound to its event', () => {
    expect(verifyLedger('another', chain(1))).toMatchObject({ ok: false, seq: 1 });
  });

  it('refuses bytes that are not canonical though their hash fits', () => {
    const bytes = utf8('{ "v":1 }');
    expect(verifyLedger(EVENT, [{ seq: 1, bytes, hash: hashHex(bytes) }])).toEqual({
      ok: false,
      seq: 1,
      fault: 'not-canonical',
    });
  });
});

describe('a commitment', () => {
  it('depends on salt and value, and needs a salt', () => {
    const salt = new Uint8Array(16).fill(7);
    expect(commitTo(salt, { a: 1, b: 2 })).toBe(commitTo(salt, { b: 2, a: 1 }));
    expect(commitTo(salt, 'x')).not.toBe(commitTo(new Uint8Array(16), 'x'));
    expect(() => commitTo(new Uint8Array(8), 'x')).toThrow(RangeError);
  });
});
