import { describe, expect, it } from 'vitest';
import { HAZARDS, HOOK_ADVICE_CODES, HOOK_PLACES, SCHOOLS, VITALITY_SIGNS } from '@lauta/core/care';
import { PREPARE_ITEMS } from '@lauta/core/planning';
import { HAZARD_CAUTION, HAZARD_WORDS, HOOK_ADVICE_WORDS, UNHOOKING } from './hazards.ts';
import { PREPARE_WORDS } from './prepare.ts';
import { schoolWords } from './schools.ts';
import { SIGN_WORDS } from './vitality.ts';

/** Every sentence of these words. */
const SENTENCES = [
  ...Object.values(PREPARE_WORDS).flatMap(({ what, why, how }) => [what, why, how]),
  ...Object.values(HAZARD_WORDS).flatMap(({ hazard, hold, never }) => [hazard, hold, never]),
  ...SCHOOLS.flatMap(({ id }) => [schoolWords(id).question, ...Object.values(schoolWords(id).sides)]),
  ...Object.values(UNHOOKING).flat(),
  ...Object.values(HOOK_ADVICE_WORDS),
  ...Object.values(SIGN_WORDS),
];

describe('the words', () => {
  it('have no code of core without a sentence, and no sentence without a code', () => {
    expect(Object.keys(PREPARE_WORDS).sort()).toEqual(PREPARE_ITEMS.map(({ id }) => id as string).sort());
    expect(Object.keys(HAZARD_WORDS).sort()).toEqual(HAZARDS.map(({ id }) => id as string).sort());
    expect(Object.keys(UNHOOKING).sort()).toEqual([...HOOK_PLACES].sort());
    expect(Object.keys(HOOK_ADVICE_WORDS).sort()).toEqual([...HOOK_ADVICE_CODES].sort());
    expect(Object.keys(SIGN_WORDS).sort()).toEqual([...VITALITY_SIGNS].sort());
    for (const { id, sides } of SCHOOLS)
      expect(Object.keys(schoolWords(id).sides).sort(), id).toEqual([...(sides as readonly string[])].sort());
  });

  it('are sentences, none twice', () => {
    for (const words of SENTENCES) expect(words.length, words).toBeGreaterThan(6);
    const how = Object.values(PREPARE_WORDS).map((item) => item.how);
    expect(new Set(how).size).toBe(how.length);
  });
});

describe('what hands are told', () => {
  it('says of every kind what never to do, and sends injuries to medical care', () => {
    for (const { never, tools } of Object.values(HAZARD_WORDS)) {
      expect(never.startsWith('Never')).toBe(true);
      expect(tools.length).toBeGreaterThan(0);
    }
    expect(HAZARD_CAUTION).toContain('seek medical care');
  });

  it('cuts the leader where the hook sits deep', () => {
    expect(UNHOOKING.deep.join(' ')).toContain('cut the leader');
  });

  it('asks on no side for a bare hand in the gills', () => {
    for (const words of SENTENCES) expect(words).not.toMatch(/hand in(to)? the gills/i);
  });
});
