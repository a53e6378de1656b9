import { describe, expect, it } from 'vitest';
import { rulerAxis } from './axis.ts';

describe('the axis over the standings', () => {
  it.each([
    [341, 'quarter-inch', 10],
    [62, 'quarter-inch', 2],
    [2150, 'millimetre', 200],
    [430, 'half-centimetre', 20],
  ] as const)('for %d steps of a %s is numbered by %d', (longest, step, spacing) => {
    const axis = rulerAxis(longest, step);
    const labels = axis.ticks.flatMap((tick) => (tick.label === null ? [] : [Number(tick.label)]));
    expect(labels[0]).toBe(0);
    expect(labels[1]).toBe(spacing);
    expect(labels.length).toBeLessThanOrEqual(13);
    expect(axis.endSteps).toBeGreaterThanOrEqual(longest);
  });

  it('is to scale: a tick’s place is its share of the end', () => {
    const axis = rulerAxis(341, 'quarter-inch');
    for (const tick of axis.ticks) expect(tick.share).toBeCloseTo(tick.steps / axis.endSteps, 12);
  });

  it('is there for an empty event too', () => {
    expect(rulerAxis(0, 'quarter-inch').endSteps).toBeGreaterThan(0);
  });
});
