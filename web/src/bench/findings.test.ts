import { describe, expect, it } from 'vitest';
import { BENCH_CHECKS, type Finding } from '@lauta/vision';
import { FILE_CHECKS } from '@lauta/core/file-evidence';
import { INFRACTIONS } from '@lauta/core/rules';
import { FILE_CHECK_WORDS, INFRACTION_WORDS } from '@lauta/words/catch';
import { measureWords, openFindings } from './FindingsList.tsx';
import { viewOf } from './view.ts';
import { CHECK_WORDS, RESHOOT_WORDS } from './words.ts';

const finding = (check: Finding['check'], tone: Finding['tone'], confidence = 0.8): Finding => ({
  check,
  tone,
  confidence,
  reason: { code: 'nose-touches' },
  place: null,
});

describe('open findings', () => {
  it('are faults before looks, the surer first, without what is clear or could not be asked', () => {
    const open = openFindings([
      finding('unsharp', 'clear'),
      finding('nose-gap', 'look', 0.4),
      finding('mouth-open', 'fault', 0.7),
      finding('tail-held', 'look', 0.6),
      finding('eye-covered', 'fault', 0.9),
      { ...finding('more-fish', 'look', 0.3), isUnanswered: true },
    ]);
    expect(open.map(({ check }) => check)).toEqual(['eye-covered', 'mouth-open', 'tail-held', 'nose-gap']);
  });

  it('stay as they are in the list that they come from', () => {
    const findings = [finding('nose-gap', 'look'), finding('mouth-open', 'fault')];
    openFindings(findings);
    expect(findings.map(({ check }) => check)).toEqual(['nose-gap', 'mouth-open']);
  });
});

describe('words for people', () => {
  it('are there for every check, different ones, with an advice that is a sentence', () => {
    expect(new Set(BENCH_CHECKS.map((check) => CHECK_WORDS[check])).size).toBe(BENCH_CHECKS.length);
    for (const check of BENCH_CHECKS) expect(RESHOOT_WORDS[check]).toMatch(/^[A-Z].*\.$/);
    expect(new Set(FILE_CHECKS.map((check) => FILE_CHECK_WORDS[check])).size).toBe(FILE_CHECKS.length);
  });

  it('of a check say what is asked for, those of an infraction what is wrong', () => {
    for (const infraction of INFRACTIONS) {
      const check = BENCH_CHECKS.find((one) => one === infraction);
      if (check) expect(CHECK_WORDS[check]).not.toBe(INFRACTION_WORDS[infraction]);
    }
  });

  it('give a measure in its unit', () => {
    expect(measureWords({ value: 14.6, unit: 'mm' }, 'centimetre')).toBe('14.6 mm');
    expect(measureWords({ value: 14.6, unit: 'mm' }, 'quarter-inch')).toBe('0.57 in');
    expect(measureWords({ value: 22.4, unit: 'deg' }, 'centimetre')).toBe('22°');
    expect(measureWords({ value: 0.357, unit: 'share' }, 'centimetre')).toBe('36 %');
  });
});

describe('a place that is gone to', () => {
  const photo = { width: 2000, height: 1500 };
  const frame = { width: 800, height: 600 };

  it('comes into the middle, a few times nearer than the whole picture', () => {
    const { scale, x, y } = viewOf([900, 700], photo, frame);
    expect(scale).toBeCloseTo(3.2 * 0.4, 9);
    expect([900 * scale + x, 700 * scale + y]).toEqual([400, 300]);
  });

  it('at the picture’s corner leaves no gap beside the picture', () => {
    const { x, y, scale } = viewOf([0, 0], photo, frame);
    expect([x, y]).toEqual([0, 0]);
    const end = viewOf([2000, 1500], photo, frame);
    expect([end.x + 2000 * scale, end.y + 1500 * scale]).toEqual([800, 600]);
  });

  it('of a small picture is not enlarged without end', () => {
    expect(viewOf([50, 40], { width: 100, height: 75 }, frame).scale).toBeLessThanOrEqual(8);
  });
});
