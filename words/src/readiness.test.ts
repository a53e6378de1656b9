import { describe, expect, it } from 'vitest';
import { wayWords } from './readiness.ts';

describe('a way to lose a fish’s points', () => {
  it.each([
    [
      { kind: 'infraction', infraction: 'mouth-open', penalty: { kind: 'deduction', steps: 2 } },
      'mouth open: ½ off',
    ],
    [
      { kind: 'infraction', infraction: 'identifier-missing', penalty: { kind: 'disqualification' } },
      'no card: the fish does not count',
    ],
    [{ kind: 'under-minimum' }, 'a fish under its minimum'],
    [{ kind: 'species' }, 'a kind of fish that does not count'],
    [{ kind: 'over-limit', bagLimit: 5 }, 'more fish than the 5 that count: the smaller ones fall out'],
  ] as const)('%j is said with what it costs', (way, words) => {
    expect(wayWords(way, 'quarter-inch')).toBe(words);
  });

  it.each(['outside-hours', 'board-not-approved'] as const)('“%s” has words', (kind) => {
    expect(wayWords({ kind }, 'quarter-inch').length).toBeGreaterThan(10);
  });
});
