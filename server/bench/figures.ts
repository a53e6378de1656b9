import type { Point } from '@lauta/vision';
import type { Read } from './analyseAll.ts';
import { faultsOf } from './faultsOf.ts';

/** An eighth of an inch, mm: a step of many events. */
const EIGHTH_MM = 3.175;

/** What a set of photographs was read like. Shares are 0 to 1; NaN where there is nothing to share. */
export interface Figures {
  count: number;
  /** Of all: the claimed board's corners within 0.3 % of the picture's width. */
  found: number;
  /** Of all: a length was told. */
  read: number;
  medianMm: number;
  p95Mm: number;
  worstMm: number;
  /** Of all: read, and within an eighth of an inch. */
  withinEighth: number;
  /** Of those read: within one and within two of their own sigmas. */
  inOne: number;
  inTwo: number;
  /** Of those read: off by more than an eighth of an inch while sigma is under half of it. */
  confidentlyWrong: number;
  /** Of those with nothing wrong: some finding that is a fault, and some that is a fault or a look. */
  withFault: number;
  withLook: number;
}

export function figuresOf(reads: readonly Read[]): Figures {
  const lengths = reads.flatMap((read) => lengthError(read) ?? []);
  const sizes = lengths.map(({ errorMm }) => Math.abs(errorMm)).sort((a, b) => a - b);
  const at = (share: number): number => sizes[Math.floor(share * (sizes.length - 1))] ?? NaN;
  const inside = (k: number): number =>
    share(lengths, ({ errorMm, sigmaMm }) => Math.abs(errorMm) < k * sigmaMm);
  const valid = reads.filter(({ record }) => faultsOf(record).size === 0);
  const withTone = (...tones: string[]): number =>
    share(valid, ({ found }) => (found?.analysis.findings ?? []).some(({ tone }) => tones.includes(tone)));
  return {
    count: reads.length,
    found: share(reads, (read) => cornersOffPx(read) < 0.003 * (read.found?.widthPx ?? 1)),
    read: lengths.length / reads.length,
    medianMm: at(0.5),
    p95Mm: at(0.95),
    worstMm: at(1),
    withinEighth: sizes.filter((size) => size <= EIGHTH_MM).length / reads.length,
    inOne: inside(1),
    inTwo: inside(2),
    confidentlyWrong: share(lengths, isConfidentlyWrong),
    withFault: withTone('fault'),
    withLook: withTone('fault', 'look'),
  };
}

export interface LengthError {
  /** What was read, less what lies on the board from the stop on. */
  errorMm: number;
  sigmaMm: number;
}

export function lengthError({ record, found }: Read): LengthError | null {
  const { lengthMm, sigmaMm } = found?.analysis ?? { lengthMm: null, sigmaMm: null };
  if (lengthMm === null || sigmaMm === null || record.lengthMm === null) return null;
  return { errorMm: lengthMm - record.lengthMm - record.noseGapMm, sigmaMm };
}

export function isConfidentlyWrong({ errorMm, sigmaMm }: LengthError): boolean {
  return Math.abs(errorMm) > EIGHTH_MM && sigmaMm < EIGHTH_MM / 2;
}

/** How far the worst corner of the claimed board is off, px; infinite where it was not found. */
export function cornersOffPx({ record, found }: Read): number {
  const corners = found?.analysis.found?.corners;
  if (!corners || found.analysis.found?.boardId !== record.board) return Infinity;
  return Math.max(
    ...corners.map(([x, y]: Point, i) =>
      Math.hypot(x - (record.corners[i]?.[0] ?? NaN), y - (record.corners[i]?.[1] ?? NaN)),
    ),
  );
}

function share<T>(of: readonly T[], holds: (one: T) => boolean): number {
  return of.length === 0 ? NaN : of.filter(holds).length / of.length;
}

export function percent(part: number): string {
  return Number.isNaN(part) ? '-' : `${(100 * part).toFixed(1)} %`;
}

/** The columns of `figuresRow`. */
export const FIGURES_HEAD =
  '| scenes | n | corners within 0.3 % | length read | median | 95th | worst | within 1/8 in, of all | in 1 sigma | in 2 sigma | confidently wrong | with a fault | with a look |\n| --- | --- | --- | --- | --- | --- | --- | --- | --- | --- | --- | --- | --- |';

export function figuresRow(name: string, reads: readonly Read[]): string {
  const of = figuresOf(reads);
  const mm = (value: number): string => value.toFixed(2);
  return `| ${[name, of.count, percent(of.found), percent(of.read), mm(of.medianMm), mm(of.p95Mm), mm(of.worstMm), percent(of.withinEighth), percent(of.inOne), percent(of.inTwo), percent(of.confidentlyWrong), percent(of.withFault), percent(of.withLook)].join(' | ')} |`;
}
