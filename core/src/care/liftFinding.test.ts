import { describe, expect, it } from 'vitest';
import { liftFinding, type WaterEvent } from './index.ts';

const lift = (...seconds: (number | null)[]): { events: WaterEvent[] } => {
  const events: WaterEvent[] = [{ step: 'hooked', atMs: 0 }];
  let atMs = 60_000;
  for (const long of seconds) {
    events.push({ step: 'lifted', atMs });
    if (long !== null) events.push({ step: 'returned', atMs: atMs + 1000 * long });
    atMs += 60_000;
  }
  return { events };
};

describe('the longest lift', () => {
  it.each([
    ['under the limit', lift(3, 5.9), { tone: 'clear', longestSeconds: 5.9, lifts: 2 }],
    ['at it', lift(6), { tone: 'clear', longestSeconds: 6 }],
    ['a tenth over it', lift(2, 6.1), { tone: 'fault', longestSeconds: 6.1 }],
    ['of a fish that never left the water', lift(), { tone: 'clear', longestSeconds: null, lifts: 0 }],
    ['that nobody ended', lift(2, null), { tone: 'look', longestSeconds: 2, isOpen: true }],
    ['over it, with another that nobody ended', lift(9, null), { tone: 'fault', longestSeconds: 9 }],
    ['of a fish whose clock nobody tapped', null, { tone: 'look', longestSeconds: null, lifts: 0 }],
  ] as const)('%s', (_what, handling, expected) => {
    expect(liftFinding(6, handling)).toMatchObject(expected);
  });

  it('mended by hand is looked at', () => {
    const mended = { events: [{ step: 'hooked', atMs: 0 }, { step: 'lifted', atMs: 1 }, { step: 'returned', atMs: 5001, tappedAtMs: 9000 }] } as const; // prettier-ignore
    expect(liftFinding(6, mended as never)).toMatchObject({ tone: 'look', isMended: true });
  });

  it('is no matter of a sheet without a limit', () => {
    expect(liftFinding(undefined, lift(60))).toBeNull();
  });
});
