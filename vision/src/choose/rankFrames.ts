import type { PhotoAnalysis } from '../analyse/analyse.ts';
import type { BenchCheck } from '../findings/findings.ts';

/** What speaks for and against a frame, as far as it was analysed. */
export interface FrameMerit {
  hasLength: boolean;
  faults: readonly BenchCheck[];
  looks: readonly BenchCheck[];
  /** What the reading proves with two standard uncertainties to spare, mm; 0 without a length. */
  provenMm: number;
}

export function frameMerit({ lengthMm, sigmaMm, findings }: PhotoAnalysis): FrameMerit {
  const withTone = (tone: 'fault' | 'look'): BenchCheck[] =>
    findings.filter((one) => one.tone === tone && !one.isUnanswered).map(({ check }) => check);
  return {
    hasLength: lengthMm !== null,
    faults: withTone('fault'),
    looks: withTone('look'),
    provenMm: lengthMm === null ? 0 : Math.max(0, lengthMm - 2 * (sigmaMm ?? 0)),
  };
}

/**
 * Under 0 when `a` is the better evidence: a length first, then fewer faults, then fewer doubts, then the greater
 * length that is proven.
 */
export function compareMerit(a: FrameMerit, b: FrameMerit): number {
  return (
    Number(b.hasLength) - Number(a.hasLength) ||
    a.faults.length - b.faults.length ||
    a.looks.length - b.looks.length ||
    b.provenMm - a.provenMm
  );
}

/** The frames with the best evidence first; those that nobody has read yet keep their order behind them. */
export function rankFrames<F extends { analysis: PhotoAnalysis | null }>(frames: readonly F[]): F[] {
  const read = frames.flatMap((frame) =>
    frame.analysis ? [{ frame, merit: frameMerit(frame.analysis) }] : [],
  );
  const sorted = read.sort((a, b) => compareMerit(a.merit, b.merit)).map(({ frame }) => frame);
  return [...sorted, ...frames.filter(({ analysis }) => analysis === null)];
}
