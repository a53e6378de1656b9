/** What a check says of a photograph, its file, its way here: nothing to see, look yourself, wrong. People decide. */
export const TONES = ['clear', 'look', 'fault'] as const;
export type Tone = (typeof TONES)[number];

/**
 * Why a check says what it says: a code, with the facts that its sentence needs. The sentence is made where it is read.
 * @typeParam Facts of each code the facts that go with it; unknown where there are none
 */
export type Reason<Facts> = { [Code in keyof Facts]: { code: Code } & Facts[Code] }[keyof Facts];

/** What a check found. It informs; people decide. */
export interface Finding<Check extends string, Facts> {
  check: Check;
  tone: Tone;
  /** How sure it is, 0 to 1. */
  confidence: number;
  reason: Reason<Facts>;
}

/** The one that says most against what was looked at; the first of equals. */
export function worstOf<F extends { tone: Tone }>([first, ...others]: readonly [F, ...F[]]): F {
  return others.reduce(
    (worst, one) => (TONES.indexOf(one.tone) > TONES.indexOf(worst.tone) ? one : worst),
    first,
  );
}
