import { describe, expect, it } from 'vitest';
import {
  CLOCK_BACK,
  appendEntry,
  canonicalBytes,
  commitTo,
  genesisHash,
  hashHex,
  notPrefixAt,
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

function chain(length: number, at = (i: number) => `2026-11-24T10:00:0${i}.000Z`): StoredEntry[] {
  const entries: StoredEntry[] = [];
  let head: LedgerHead = { seq: 0, hash: genesisHash(EVENT) };
  for (let i = 0; i < length; i++) {
    const entry = appendEntry(head, {
      eventId: EVENT,
      actorId: 'actor',
      kind: i === 0 ? 'event.create' : 'catch.claim',
      at: at(i),
      body: { steps: 60 + i, note: 'ä€😀' },
    });
    entries.push(entry);
    head = entry;
  }
  return entries;
}

const verify = (entries: StoredEntry[], head?: LedgerHead, eventId = EVENT) => {
  const { ok, head: end, faults } = verifyLedger(eventId, entries, { firstKind: 'event.create', head });
  return { ok, end, faults };
};

describe('the chain', () => {
  it('holds when nothing was touched', () => {
    const entries = chain(5);
    expect(verify(entries)).toEqual({ ok: true, end: { seq: 5, hash: entries[4]?.hash }, faults: [] });
  });

  it('never holds without entries, nor without its beginning', () => {
    expect(verify([]).faults).toEqual([{ seq: 1, fault: 'empty' }]);
    const other = appendEntry({ seq: 0, hash: genesisHash(EVENT) }, { eventId: EVENT, actorId: 'x', kind: 'catch.claim', at: '', body: {} }); // prettier-ignore
    expect(verify([other]).faults).toEqual([{ seq: 1, fault: 'headless' }]);
  });

  it('names the entry in which any single byte was changed', () => {
    const entries = chain(3);
    const target = entries[1] as StoredEntry;
    for (let i = 0; i < target.bytes.length; i++) {
      const bytes = target.bytes.slice();
      bytes[i] = (bytes[i] ?? 0) ^ 1;
      const altered = entries.with(1, { ...target, bytes });
      expect(verify(altered).faults[0]).toEqual({ seq: 2, fault: 'altered' });
    }
  });

  it('names the first entry after one that was rewritten with a fitting hash', () => {
    const entries = chain(3);
    const forged = appendEntry(entries[0] as LedgerHead, {
      eventId: EVENT,
      actorId: 'x',
      kind: 'catch.claim',
      at: '2026-11-24T10:00:01.000Z',
      body: { steps: 99 },
    });
    expect(verify(entries.with(1, forged)).faults).toEqual([{ seq: 3, fault: 'broken-link' }]);
  });

  it('names every fault, and not the first alone', () => {
    const entries = chain(6);
    const spoil = (i: number) => {
      const one = entries[i] as StoredEntry;
      entries[i] = { ...one, bytes: Uint8Array.from(one.bytes, (byte, k) => (k === 99 ? byte ^ 1 : byte)) };
    };
    spoil(1);
    spoil(4);
    expect(verify(entries).faults).toEqual([{ seq: 2, fault: 'altered' }, { seq: 5, fault: 'altered' }]); // prettier-ignore
  });

  it('finds an entry taken out, in the middle or at the end, and a head that is behind', () => {
    const entries = chain(4);
    expect(verify(entries.toSpliced(1, 1)).faults[0]).toEqual({ seq: 2, fault: 'missing' });
    const head = { seq: 4, hash: entries[3]?.hash ?? '' };
    expect(verify(entries.slice(0, 3), head).faults).toEqual([{ seq: 4, fault: 'missing' }]);
    expect(verify(entries, { seq: 3, hash: entries[2]?.hash ?? '' }).faults).toEqual([{ seq: 4, fault: 'altered' }]); // prettier-ignore
  });

  it('finds a whole chain rewritten against a head kept elsewhere', () => {
    expect(verify(chain(3), { seq: 3, hash: 'ff' }).faults).toEqual([{ seq: 3, fault: 'altered' }]);
  });

  it('is bound to its event', () => {
    expect(verify(chain(1), undefined, 'another').ok).toBe(false);
  });

  it('refuses bytes that are not canonical though their hash fits', () => {
    const bytes = utf8('{ "v":1 }');
    expect(verify([{ seq: 1, bytes, hash: hashHex(bytes) }]).faults).toEqual([{ seq: 1, fault: 'not-canonical' }]); // prettier-ignore
  });

  it('says when time runs back, unless the entry itself does', () => {
    const back = (i: number) => `2026-11-24T10:00:0${[0, 5, 3][i]}.000Z`;
    expect(verify(chain(3, back)).faults).toEqual([{ seq: 3, fault: 'time-runs-back' }]);
    const [first, second] = chain(2, back) as [StoredEntry, StoredEntry];
    const third = appendEntry(second, { eventId: EVENT, actorId: 'x', kind: 'y', at: back(2), body: { [CLOCK_BACK]: back(1) } }); // prettier-ignore
    expect(verify([first, second, third]).ok).toBe(true);
  });
});

describe('an older copy', () => {
  it('is the beginning of a ledger, or differs from some entry on', () => {
    const entries = chain(5);
    expect(notPrefixAt(entries.slice(0, 3), entries)).toBeNull();
    expect(notPrefixAt(entries, entries.slice(0, 3))).toBe(4);
    const rewritten = chain(5, (i) => `2026-11-24T11:00:0${i}.000Z`);
    expect(notPrefixAt([...entries.slice(0, 2), ...rewritten.slice(2)], entries)).toBe(3);
  });
});

describe('a commitment', () => {
  const salt = new Uint8Array(16).fill(7);

  it('depends on salt, label and value, and needs a salt', () => {
    expect(commitTo(salt, 'a', { a: 1, b: 2 })).toBe(commitTo(salt, 'a', { b: 2, a: 1 }));
    expect(commitTo(salt, 'a', 'x')).not.toBe(commitTo(new Uint8Array(16), 'a', 'x'));
    expect(commitTo(salt, 'a', 'x')).not.toBe(commitTo(salt, 'b', 'x'));
    expect(() => commitTo(new Uint8Array(8), 'a', 'x')).toThrow(RangeError);
  });

  it('of version 1 is to salt and value alone', () => {
    expect(commitTo(salt, null, 'x')).toBe(hashHex(new Uint8Array([...salt, ...utf8('"x"')])));
  });
});
