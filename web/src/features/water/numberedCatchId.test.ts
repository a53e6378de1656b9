import { describe, expect, it } from 'vitest';
import { v5 as uuidv5, validate, version } from 'uuid';
import { numberedCatchId } from './numberedCatchId.ts';
import { lastKnown, parseNumbers } from './useFishNumber.ts';

const PAIRING = '0190c1d2-0000-7000-8000-0000000000a1';

describe('the number of a fish', () => {
  it('gives both phones of a pairing the same id, and each fish and pairing another', () => {
    expect(numberedCatchId(PAIRING, 7)).toBe(numberedCatchId(PAIRING, 7));
    const ids = new Set(Array.from({ length: 50 }, (_, i) => numberedCatchId(PAIRING, i + 1)));
    ids.add(numberedCatchId('0190c1d2-0000-7000-8000-0000000000a2', 7));
    expect(ids.size).toBe(51);
  });

  it('never goes back to a fish of which this phone has told, whatever is stored', () => {
    expect(parseNumbers(null)).toEqual({ number: 1, told: 0 });
    expect(parseNumbers('{"number":3,"told":7}')).toEqual({ number: 8, told: 7 });
    expect(parseNumbers('{"number":9,"told":7}')).toEqual({ number: 9, told: 7 });
    for (const broken of ['nonsense', '{"number":"x","told":-2}', 'null', '{"number":1e9}'])
      expect(parseNumbers(broken)).toEqual({ number: 1, told: 0 });
  });

  it('is not taken again for a fish that is known, also where nothing is stored', () => {
    const known = [
      numberedCatchId(PAIRING, 2),
      '0190c1d2-0000-7000-8000-0000000000ff',
      numberedCatchId(PAIRING, 5),
    ];
    expect(lastKnown(PAIRING, known)).toBe(5);
    expect(lastKnown(PAIRING, [])).toBe(0);
  });

  it('is a UUID of version 5, made as RFC 9562 A.4 makes its example', () => {
    expect(uuidv5('www.example.com', '6ba7b810-9dad-11d1-80b4-00c04fd430c8')).toBe(
      '2ed6657d-e927-568b-95e1-2665a8aea6a2',
    );
    expect(validate(numberedCatchId(PAIRING, 1)) && version(numberedCatchId(PAIRING, 1))).toBe(5);
  });
});
