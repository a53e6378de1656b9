import type { Result } from '@lauta/core/result';
import { useEffect, useRef, useState } from 'react';
import type { Identifier } from '@lauta/core/identifier';
import type {
  BenchNotes,
  BoardLens,
  BoardMarks,
  BoardReading,
  MeasuringBoard,
  PhotoAnalysis,
  Quad,
  ReadingRefusal,
  StripFrame,
} from '@lauta/vision';
import { useResource, type Resource } from '../ui/useResource.ts';
import { openCaller, type Caller } from '../workers/calls.ts';
import type { BenchCalls, OpenedPhoto, PhotoRefusal } from './benchCalls.ts';

export type Bench = Caller<BenchCalls>;

function startBench(): Resource<Bench> {
  const worker = new Worker(new URL('./bench.worker.ts', import.meta.url), { type: 'module' });
  return { value: openCaller<BenchCalls>(worker), close: () => worker.terminate() };
}

/** A bench's worker for as long as the page stands. */
export function useBenchWorker(): Bench | null {
  return useResource(startBench);
}

export type OpenState =
  { kind: 'opening' } | { kind: 'open'; photo: OpenedPhoto } | { kind: 'refused'; code: PhotoRefusal };

/** Opens a photograph on the bench. */
export function useOpenedPhoto(bench: Bench | null, photo: Blob | null): OpenState {
  const [opened, setOpened] = useState<{ photo: Blob; state: OpenState } | null>(null);
  useEffect(() => {
    if (!bench || !photo) return;
    const abort = new AbortController();
    bench
      .call('open', { photo }, abort.signal)
      .then((result) =>
        setOpened({
          photo,
          state: result.ok ? { kind: 'open', photo: result.value } : { kind: 'refused', code: result.code },
        }),
      )
      .catch(() => undefined);
    return () => abort.abort();
  }, [bench, photo]);
  return opened && opened.photo === photo ? opened.state : { kind: 'opening' };
}

export interface AnalysisState {
  analysis: PhotoAnalysis | null;
  /** Share that is done while it runs, else null. */
  progress: number | null;
  /** The search broke off with a fault of its own. */
  hasFailed: boolean;
}

/**
 * Lets the bench find board and fish by itself, once for each photograph and board; stops when either changes.
 * @param isWanted false while there are marks already
 */
export function useAnalysis(
  bench: Bench | null,
  photo: OpenedPhoto | null,
  board: MeasuringBoard | null,
  others: readonly MeasuringBoard[],
  approved: readonly string[],
  expected: Identifier | null,
  isWanted: boolean,
  onAnalysis: (analysis: PhotoAnalysis) => void,
): AnalysisState {
  const [state, setState] = useState<AnalysisState & { of: string }>({
    analysis: null,
    progress: null,
    hasFailed: false,
    of: '',
  });
  const of = photo && board ? `${photo.sha256} ${board.id}` : '';
  const tell = useRef(onAnalysis);
  useEffect(() => {
    tell.current = onAnalysis;
  });
  useEffect(() => {
    if (!bench || !photo || !board || !isWanted) return;
    const abort = new AbortController();
    bench
      .call('analyse', { board, others, approved, expected, photo, near: null }, abort.signal, (progress) =>
        setState({ analysis: null, progress, hasFailed: false, of }),
      )
      .then((analysis) => {
        setState({ analysis, progress: null, hasFailed: false, of });
        if (analysis) tell.current(analysis);
      })
      .catch(() => {
        if (!abort.signal.aborted) setState({ analysis: null, progress: null, hasFailed: true, of });
      });
    return () => abort.abort();
  }, [bench, photo, board, others, approved, expected, isWanted, of]);
  return state.of === of
    ? state
    : { analysis: null, progress: isWanted && photo ? 0 : null, hasFailed: false };
}

export type ReadResult = Result<BoardReading, ReadingRefusal>;

/**
 * Reads the marks anew whenever they change. The former reading stays on the screen until the new one is there, and
 * is said to be not current: nothing may be claimed on it.
 */
export function useReading(
  bench: Bench | null,
  photo: OpenedPhoto | null,
  board: MeasuringBoard | null,
  marks: BoardMarks | null,
  notes: BenchNotes | null,
): { reading: ReadResult | null; isCurrent: boolean } {
  const [read, setRead] = useState<{
    board: MeasuringBoard;
    marks: BoardMarks;
    reading: ReadResult;
  } | null>(null);
  useEffect(() => {
    if (!bench || !photo || !board || !marks) return;
    const abort = new AbortController();
    bench
      .call('read', { board, marks, bench: notes, photo }, abort.signal)
      .then((reading) => setRead({ board, marks, reading }))
      .catch(() => undefined);
    return () => abort.abort();
  }, [bench, photo, board, marks, notes]);
  return { reading: read?.reading ?? null, isCurrent: read?.marks === marks && read.board === board };
}

/** The rectified board for a frame; the former picture stays until the new one is there. */
export function useStrip(
  bench: Bench | null,
  photo: OpenedPhoto | null,
  board: MeasuringBoard,
  corners: Quad,
  lens: BoardLens | null,
  frame: StripFrame,
): ImageBitmap | null {
  const [picture, setPicture] = useState<ImageBitmap | null>(null);
  const { fromMm, toMm, fromYMm, toYMm, pxPerMm } = frame;
  useEffect(() => {
    if (!bench || !photo) return;
    const abort = new AbortController();
    bench
      .call('strip', { board, corners, lens, frame: { fromMm, toMm, fromYMm, toYMm, pxPerMm } }, abort.signal)
      .then((strip) => setPicture(strip?.picture ?? null))
      .catch(() => undefined);
    return () => abort.abort();
  }, [bench, photo, board, corners, lens, fromMm, toMm, fromYMm, toYMm, pxPerMm]);
  return picture;
}
