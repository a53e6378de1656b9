import { describe, expect, it } from 'vitest';
import type { Tone } from '@lauta/core/evidence';
import type { PhotoAnalysis } from '../analyse/analyse.ts';
import { BENCH_CHECKS, withUnanswered } from '../checks/registry.ts';
import { findingOf, type BenchCheck } from '../findings/findings.ts';
import { frameMerit, rankFrames } from './rankFrames.ts';

type Findings = Partial<Record<BenchCheck, Tone>>;

/** A reading as far as the choice of a frame goes. */
function frame(name: string, lengthMm: number | null, findings: Findings = {}, sigmaMm = 0.8) {
  const analysis = {
    lengthMm,
    sigmaMm: lengthMm === null ? null : sigmaMm,
    findings: BENCH_CHECKS.flatMap((check) => {
      const tone = findings[check];
      return tone ? [findingOf(check, tone, 0.9, { code: 'code-read' })] : [];
    }),
  } as unknown as PhotoAnalysis;
  return { name, analysis };
}
const names = (frames: readonly { name: string }[]): string[] => frames.map(({ name }) => name);

describe('the order of a burst’s frames', () => {
  it('puts the one good frame of twelve first, whatever comes before it', () => {
    const burst = [
      frame('open 1', 402, { 'mouth-open': 'fault' }),
      frame('open 2', 403, { 'mouth-open': 'fault' }),
      frame('blurred 1', null, { unsharp: 'fault' }),
      frame('gap', 409, { 'nose-gap': 'fault' }),
      frame('doubt 1', 402, { 'mouth-open': 'look' }),
      frame('good', 401.8, {}),
      frame('blurred 2', 401, { unsharp: 'look' }, 2.5),
      frame('hand', 402, { 'hand-in-gills': 'look', 'mouth-open': 'look' }),
      frame('curled', 398, { 'tail-curled': 'look' }),
      frame('cut', null, { 'tail-cropped': 'fault' }),
      frame('held', null, { 'tail-held': 'fault' }),
      frame('no card', 402, { 'identifier-missing': 'fault' }),
    ];
    expect(names(rankFrames(burst))[0]).toBe('good');
    expect(names(rankFrames(burst.toReversed()))[0]).toBe('good');
    // Without a length nothing is claimed: those come last.
    expect(new Set(names(rankFrames(burst)).slice(-3))).toEqual(new Set(['blurred 1', 'cut', 'held']));
  });

  it('of two good ones takes what proves the greater length, not what reads longer with more doubt', () => {
    const sure = frame('sure', 402, {}, 0.5);
    const unsure = frame('unsure', 403, {}, 2);
    expect(names(rankFrames([unsure, sure]))).toEqual(['sure', 'unsure']);
  });

  it('keeps frames that nobody has read behind those that were, in their own order', () => {
    const late = { name: 'late', analysis: null };
    const later = { name: 'later', analysis: null };
    expect(names(rankFrames([late, frame('cut', null), later]))).toEqual(['cut', 'late', 'later']);
  });

  it('counts no check that could not be asked: without a board all would stand against it twice', () => {
    const { analysis } = frame('no board', null);
    const unanswered = {
      ...analysis,
      findings: withUnanswered([], { code: 'no-board-found' }),
    };
    expect(frameMerit(unanswered).looks).toEqual([]);
  });
});
