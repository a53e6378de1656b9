import { useEffect, useMemo, useRef, useState } from 'react';
import type { Identifier } from '@lauta/core/identifier';
import { frameMerit, rankFrames, type MeasuringBoard, type PhotoAnalysis } from '@lauta/vision';
import { openCaller } from '../workers/calls.ts';
import type { BenchCalls } from '../bench/benchCalls.ts';
import type { Frame } from './frames.ts';

const MOST_READERS = 2;
const WAIT_MS = 100;

export interface ReadFrame {
  frame: Frame;
  /** Null until it was read. */
  analysis: PhotoAnalysis | null;
  /** It could not be read at all. */
  hasFailed: boolean;
}

export interface Proposal {
  /** The best first. */
  ranked: readonly ReadFrame[];
  readCount: number;
  /** The best, once it is known to be: it is faultless, or all have been read. */
  best: ReadFrame | null;
  isFaultless: boolean;
}

/** Lets benches read the frames, two at a time, and ranks them. */
export function useFrameAnalyses(
  frames: readonly Frame[],
  {
    board,
    others,
    approved,
    expected,
  }: {
    board: MeasuringBoard | null;
    others: readonly MeasuringBoard[];
    approved: readonly string[];
    expected: Identifier | null;
  },
): Proposal {
  const [known, setKnown] = useState<ReadonlyMap<string, PhotoAnalysis | 'failed'>>(new Map());
  const begun = useRef(new Set<string>());
  const open = frames.filter(({ frameId }) => !known.has(frameId));
  const next = useRef(open);
  const isNeeded = open.length > 0 && board !== null;
  useEffect(() => {
    next.current = open;
  });
  useEffect(() => {
    if (!isNeeded) return;
    const abort = new AbortController();
    const taken = begun.current;
    const read = async (): Promise<void> => {
      const worker = new Worker(new URL('../bench/bench.worker.ts', import.meta.url), { type: 'module' });
      abort.signal.addEventListener('abort', () => worker.terminate());
      const bench = openCaller<BenchCalls>(worker);
      while (!abort.signal.aborted) {
        const frame = next.current.find(({ frameId }) => !taken.has(frameId));
        if (!frame) {
          // More may be on their way from the lab.
          await new Promise((resolve) => setTimeout(resolve, WAIT_MS));
          continue;
        }
        taken.add(frame.frameId);
        const analysis = await readOne(frame).catch(() => null);
        if (!abort.signal.aborted)
          setKnown((former) => new Map(former).set(frame.frameId, analysis ?? 'failed'));
      }
      async function readOne({ photo }: Frame): Promise<PhotoAnalysis | null> {
        const opened = await bench.call('open', { photo }, abort.signal);
        if (!opened.ok) return null;
        const wish = { board: board as MeasuringBoard, others, approved, expected, photo: opened.value, near: null }; // prettier-ignore
        return bench.call('analyse', wish, abort.signal);
      }
    };
    const readers = Math.min(MOST_READERS, navigator.hardwareConcurrency || 1);
    for (let i = 0; i < readers; i++) void read();
    return () => {
      abort.abort();
      begun.current = new Set();
    };
  }, [isNeeded, board, others, approved, expected]);
  return useMemo(() => proposalOf(frames, known), [frames, known]);
}

/** The frames from the best to the least, and which of them to propose. */
function proposalOf(
  frames: readonly Frame[],
  known: ReadonlyMap<string, PhotoAnalysis | 'failed'>,
): Proposal {
  const all = frames.map((frame): ReadFrame => {
    const found = known.get(frame.frameId);
    return {
      frame,
      analysis: found === 'failed' ? null : (found ?? null),
      hasFailed: found === 'failed',
    };
  });
  const ranked = rankFrames(all);
  const readCount = frames.filter(({ frameId }) => known.has(frameId)).length;
  const [first] = ranked;
  const merit = first?.analysis ? frameMerit(first.analysis) : null;
  const isFaultless = merit !== null && merit.hasLength && merit.faults.length + merit.looks.length === 0;
  const isKnown = isFaultless || readCount === frames.length;
  return { ranked, readCount, isFaultless, best: first && isKnown ? first : null };
}
