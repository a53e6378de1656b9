import { describe, expect, it } from 'vitest';
import type { BenchCheck, Finding, PhotoAnalysis } from '@lauta/vision';
import { frameWords } from './FrameStrip.tsx';
import type { ReadFrame } from './useFrameAnalyses.ts';

const frame = { frameId: 'f', catchId: 'c', photo: new Blob(), takenAt: '2026-06-14T10:00:00Z' };

/** A frame as it was read, with these findings. */
function read(lengthMm: number | null, tones: Partial<Record<BenchCheck, 'look' | 'fault'>> = {}): ReadFrame {
  const findings = Object.entries(tones).map(([check, tone]): Finding => ({
    check: check as BenchCheck,
    tone,
    confidence: 0.8,
    reason: { code: 'code-read' },
    place: null,
  }));
  const analysis = { lengthMm, sigmaMm: 1, findings } as unknown as PhotoAnalysis;
  return { frame, analysis, hasFailed: false };
}

describe('what is said of a frame', () => {
  it('is nothing yet before it was read, and that it cannot be read when it failed', () => {
    expect(frameWords({ frame, analysis: null, hasFailed: false })).toEqual({ tone: null, words: 'waits' });
    expect(frameWords({ frame, analysis: null, hasFailed: true })).toEqual({
      tone: 'fault',
      words: 'not readable',
    });
  });

  it.each([
    [402, {}, 'clear', 'nothing wrong'],
    [402, { 'mouth-open': 'fault' }, 'fault', 'mouth open'],
    [402, { 'mouth-open': 'fault', 'nose-gap': 'fault' }, 'fault', 'mouth open, 1 more'],
    [402, { 'nose-gap': 'look' }, 'look', 'nose at the stop?'],
    [402, { 'nose-gap': 'look', 'mouth-open': 'fault' }, 'fault', 'mouth open'],
    [null, {}, 'fault', 'no length'],
    [null, { 'tail-held': 'fault' }, 'fault', 'tail held or hidden'],
  ] as const)('of %s mm with %j is %s: %s', (lengthMm, verdicts, tone, words) => {
    expect(frameWords(read(lengthMm, verdicts))).toEqual({ tone, words });
  });
});
