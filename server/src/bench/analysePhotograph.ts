import {
  SHIPPED_BOARDS,
  analysisSteps,
  isTurned,
  runAnalysis,
  scaleAnalysis,
  scalePx,
  toUprightPx,
  type MeasuringBoard,
  type PhotoAnalysis,
  type Point,
  type Quad,
} from '@lauta/vision';
import type { Identifier } from '@lauta/core/identifier';
import { decodePhotograph } from './decodePhotograph.ts';
import { readCodes } from './readCodes.ts';

/**
 * A photograph is analysed in about a second; what takes longer than this is called not readable. Longer than the page
 * waits: here a busy machine must not make a photograph unreadable, and no thumb is waiting.
 */
export const ANALYSIS_LIMIT_MS = 12_000;

export interface AnalysedPhotograph {
  analysis: PhotoAnalysis;
  /** Upright. */
  widthPx: number;
  heightPx: number;
  orientation: number | null;
  isTruncated: boolean;
  ms: { decode: number; analyse: number };
}

export interface AnalysisWish {
  limitTiltDeg?: number;
  otherBoards?: readonly MeasuringBoard[];
  /** The entrant's card of the day. */
  expected?: Identifier | null;
  /** Corners that a person set roughly, px of the picture as stored. */
  nearStored?: Quad;
}

/** Decodes and analyses one JPEG: the code that threads, command line and benches run. Px of the upright original. */
export async function analysePhotograph(
  bytes: Uint8Array,
  board: MeasuringBoard,
  { limitTiltDeg, otherBoards = SHIPPED_BOARDS, expected = null, nearStored }: AnalysisWish = {},
): Promise<AnalysedPhotograph> {
  const start = performance.now();
  const { raster, widthPx, heightPx, exif, isTruncated } = await decodePhotograph(bytes);
  const decoded = performance.now();
  const shrunk = widthPx / raster.widthPx;
  const [storedWidth, storedHeight] = isTurned(exif.orientation) ? [heightPx, widthPx] : [widthPx, heightPx];
  const near = nearStored?.map((corner): Point => {
    return scalePx(toUprightPx(corner, exif.orientation, storedWidth, storedHeight), 1 / shrunk);
  });
  const steps = analysisSteps(raster, board, {
    focal35Mm: exif.focal35Mm,
    otherBoards,
    expected,
    withFlank: true,
    ...(limitTiltDeg === undefined ? {} : { limitTiltDeg }),
    ...(near ? { near: near as unknown as Quad } : {}),
    isOver: () => performance.now() - decoded > ANALYSIS_LIMIT_MS,
  });
  const analysis = await runAnalysis(steps, readCodes);
  return {
    analysis: scaleAnalysis(analysis, shrunk),
    widthPx,
    heightPx,
    orientation: exif.orientation,
    isTruncated,
    ms: { decode: Math.round(decoded - start), analyse: Math.round(performance.now() - decoded) },
  };
}
