import { describe, expect, it } from 'vitest';
import { offsetOf } from './clockOffset.ts';

describe('the device’s clock against the server’s', () => {
  it('is taken from the shortest way there and back', () => {
    // The device is 2000 ms ahead; ways of 400, 40 and 900 ms, the last with a slow way back.
    const found = offsetOf([
      { askedMs: 10_000, answeredMs: 10_400, serverMs: 8_200 },
      { askedMs: 20_000, answeredMs: 20_040, serverMs: 18_020 },
      { askedMs: 30_000, answeredMs: 30_900, serverMs: 28_050 },
    ]);
    expect(found).toEqual({ offsetMs: 2000, mayBeOffMs: 20 });
  });

  it('is unknown without an answer', () => {
    expect(offsetOf([])).toBeNull();
  });
});
