import { projectBoardPoint, turnedBy, type LensPose } from '../lens.ts';
import { faceLengthMm, type MeasuringBoard } from '../board.ts';
import { focalPxFrom35mm } from '../camera.ts';
import type { Point } from '../point.ts';
import { latticeHeights, type Lattice } from './heights.ts';
import { voteByNumerals } from './numerals.ts';
import { patternOf, unitStepMm, type Pattern } from './pattern.ts';
import { placePattern, type Placement } from './placements.ts';
import { findParallels, planesOf, type Dice, type MarkedPlane } from './planes.ts';
import { measureLines, refineOutwards, refinePose, type LensPrior, type RefinedPose } from './refine.ts';
import { findStrokes, type Stroke } from './strokes.ts';
import { halveTones, smoothTones, type Tones } from './tones.ts';

export type BoardTrouble = 'no-board' | 'no-anchor';

export interface LocatedBoard extends RefinedPose {
  board: MeasuringBoard;
  /** How much better this zero and turn explain numerals and lines than the next best. */
  anchorMargin: number;
}

export interface LocateOptions {
  /** EXIF 35 mm equivalent, or null when the file tells none. */
  focal35Mm: number | null;
  dice: Dice;
}

/** Distortions under which strokes are looked for, and those tried with what was found. */
const K1_STARTS: readonly { k1: number; near: readonly number[] }[] = [
  { k1: -0.005, near: [-0.02, -0.005, 0.01, 0.028] },
  { k1: -0.042, near: [-0.06, -0.045, -0.03] },
];
/** Horizontal fields of view tried when the file tells none, degrees (common practice, no source). */
const FIELDS_DEG = [72, 86, 62];
const LEAST_STRENGTH = 0.22;
const VANISHING_POINTS = 3;
const LEAST_SEEN = 0.3;
const GOOD_SEEN = 0.55;
const GOOD_RESIDUAL_PX = 0.16;
const LEAST_MARGIN = 1.5;
/** What a column of lines must show at least to speak for lying on the board. */
const SEEN_BY_CHANCE = 0.35;

export type Location =
  { ok: true; value: LocatedBoard } | { ok: false; code: BoardTrouble; seenShare: number };

/**
 * Finds a board of a known kind in smoothed tones; px of these tones. Yields between its attempts, so that whoever
 * runs it can stop.
 */
export function* locateBoard(
  smooth: Tones,
  board: MeasuringBoard,
  options: LocateOptions,
): Generator<undefined, Location> {
  const pattern = patternOf(board);
  const strokes = strokesOf(smooth, pattern.inkDarker);
  let best: RefinedPose | null = null;
  for (const prior of lensPriors(smooth, options.focal35Mm)) {
    best = better(best, yield* fitBest(smooth, strokes, pattern, prior, options.dice));
    if (best && isGood(best)) break;
  }
  if (!best || best.seenShare < LEAST_SEEN)
    return { ok: false, code: 'no-board', seenShare: best?.seenShare ?? 0 };
  return anchor(smooth, best, pattern, options);
}

/** A fit that slipped by a line at one end sees fewer lines, and those less well in their places. */
function quality(fit: RefinedPose): number {
  return fit.seenShare / (1 + (fit.residualPx / 0.3) ** 2);
}

function better(a: RefinedPose | null, b: RefinedPose | null): RefinedPose | null {
  if (!a || !b) return a ?? b;
  return quality(b) > quality(a) ? b : a;
}

function isGood(fit: RefinedPose): boolean {
  return fit.seenShare > GOOD_SEEN && fit.residualPx < GOOD_RESIDUAL_PX;
}

/** Strokes of the picture and of its half, which shows broad ones better. */
export function strokesOf(smooth: Tones, inkDarker: boolean): Stroke[] {
  const half = smoothTones(halveTones(smooth));
  return [
    ...findStrokes(smooth, inkDarker),
    ...findStrokes(half, inkDarker).map(({ x0, y0, x1, y1, lengthPx }) => ({
      x0: 2 * x0, y0: 2 * y0, x1: 2 * x1, y1: 2 * y1, lengthPx: 2 * lengthPx,
    })),
  ]; // prettier-ignore
}

function lensPriors({ widthPx, heightPx }: Tones, focal35Mm: number | null): LensPrior[] {
  if (focal35Mm !== null) {
    return [
      {
        focalPx: focalPxFrom35mm(focal35Mm, widthPx, heightPx),
        // Rounded to whole mm, and about one per cent of its own.
        focalLogSigma: Math.hypot(0.29 / focal35Mm, 0.01),
        k1Sigma: 0.03,
      },
    ];
  }
  return FIELDS_DEG.map((field) => ({
    focalPx: widthPx / 2 / Math.tan((field * Math.PI) / 360),
    focalLogSigma: 0.15,
    k1Sigma: 0.03,
  }));
}

function* fitBest(
  smooth: Tones,
  strokes: readonly Stroke[],
  pattern: Pattern,
  prior: LensPrior,
  dice: Dice,
): Generator<undefined, RefinedPose | null> {
  let best: RefinedPose | null = null;
  let left = strokes;
  for (let attempt = 0; attempt < VANISHING_POINTS && left.length > 20; attempt++) {
    const { candidates, used } = latticesIn(smooth, left, pattern, prior, dice);
    yield;
    best = better(best, yield* fitCandidates(smooth, candidates, pattern, prior));
    if (best && best.seenShare > GOOD_SEEN) return best;
    // Seams and planks may have won: without them the board's lines may.
    left = left.filter((stroke) => !used.has(stroke));
  }
  return best;
}

function latticesIn(
  smooth: Tones,
  strokes: readonly Stroke[],
  pattern: Pattern,
  prior: LensPrior,
  dice: Dice,
): { candidates: Candidate[]; used: Set<Stroke> } {
  const centrePx: Point = [(smooth.widthPx - 1) / 2, (smooth.heightPx - 1) / 2];
  const field = smooth.widthPx / prior.focalPx;
  const lowestMm = faceLengthMm(pattern.board) / (1.3 * field);
  const highestMm = faceLengthMm(pattern.board) / (0.33 * field);
  const candidates: Candidate[] = [];
  const used = new Set<Stroke>();
  for (const { k1, near } of K1_STARTS) {
    const found = findParallels(strokes, { focalPx: prior.focalPx, k1, centrePx }, dice);
    for (const stroke of found?.strokes ?? []) used.add(stroke);
    if (!found) continue;
    for (const guess of near) {
      for (const plane of planesOf(found, { focalPx: prior.focalPx, k1: guess, centrePx })) {
        for (const lattice of latticeHeights(plane.marks, pattern.stepMm, lowestMm, highestMm, 3)) {
          if (lattice.strength < LEAST_STRENGTH) continue;
          candidates.push({ plane, lattice });
          // On a lattice of every second line all marks agree as well.
          const halved = lattice.heightMm / 2;
          if (halved > lowestMm) {
            const [fine] = latticeHeights(plane.marks, pattern.stepMm, 0.997 * halved, 1.003 * halved, 1);
            if (fine) candidates.push({ plane, lattice: fine });
          }
        }
      }
    }
  }
  candidates.sort((a, b) => b.lattice.strength - a.lattice.strength);
  return { candidates, used };
}

function* fitCandidates(
  smooth: Tones,
  candidates: readonly Candidate[],
  pattern: Pattern,
  prior: LensPrior,
): Generator<undefined, RefinedPose | null> {
  const placements: Placement[] = distinct(candidates).flatMap(({ plane, lattice }) =>
    placePattern(smooth, plane, lattice, pattern, 2),
  );
  placements.sort((a, b) => b.score - a.score);
  let best: RefinedPose | null = null;
  for (const placement of placements.slice(0, 4)) {
    yield;
    best = better(best, refineOutwards(smooth, placement.pose, pattern, prior));
    if (best && isGood(best)) return best;
  }
  return best;
}

interface Candidate {
  plane: MarkedPlane;
  lattice: Lattice;
}

const HEIGHTS_TRIED = 4;
const LENSES_TRIED = 2;

/** The strongest candidates of each height (within 4 %), each under another kind of lens. */
function distinct(candidates: readonly Candidate[]): Candidate[] {
  const heights: Candidate[][] = [];
  for (const candidate of candidates) {
    const { heightMm } = candidate.lattice;
    const group = heights.find(([first]) => first && Math.abs(first.lattice.heightMm / heightMm - 1) < 0.04);
    if (!group) {
      if (heights.length < HEIGHTS_TRIED) heights.push([candidate]);
      continue;
    }
    const lens = candidate.plane.lens.k1;
    if (group.length < LENSES_TRIED && group.every(({ plane }) => Math.abs(plane.lens.k1 - lens) > 0.012))
      group.push(candidate);
  }
  return heights.flat();
}

/** Settles which line is zero and which way round the board lies. */
function anchor(smooth: Tones, fitted: RefinedPose, pattern: Pattern, options: LocateOptions): Location {
  const unitMm = unitStepMm(pattern);
  const units = Math.round(pattern.lengthMm / unitMm);
  const reach = Math.min(units, 12);
  const columns = columnsSeen(smooth, fitted.pose, pattern, reach);
  const explained = (shift: number): number => {
    let sum = 0;
    for (let cell = 0; cell < units; cell++) {
      const seen = columns[cell + shift + reach];
      if (seen !== null && seen !== undefined) sum += seen - SEEN_BY_CHANCE;
    }
    return sum;
  };
  const votes = voteByNumerals(smooth, fitted.pose, pattern, reach)
    .map((vote) => ({
      ...vote,
      total: vote.support + 1.5 * explained(vote.turned ? -vote.shift : vote.shift),
    }))
    .sort((a, b) => b.total - a.total);
  const [first, second] = votes;
  if (!first || !second) return { ok: false, code: 'no-anchor', seenShare: fitted.seenShare };
  const anchorMargin = first.total - second.total;
  if (anchorMargin < LEAST_MARGIN || first.support < 1)
    return { ok: false, code: 'no-anchor', seenShare: fitted.seenShare };
  const pose = shifted(first.turned ? halfTurned(fitted.pose, pattern) : fitted.pose, first.shift * unitMm);
  const [prior] = lensPriors(smooth, options.focal35Mm) as [LensPrior];
  const last = refinePose(smooth, pose, pattern, prior, [
    { mostPx: 3, coarse: false },
    { mostPx: 2, coarse: false },
  ]);
  if (!last) return { ok: false, code: 'no-board', seenShare: fitted.seenShare };
  return { ok: true, value: { ...last, board: pattern.board, anchorMargin } };
}

/** Seen share of the lines within each unit, from `reach` units before zero to as many past the end; null outside. */
function columnsSeen(smooth: Tones, pose: LensPose, pattern: Pattern, reach: number): (number | null)[] {
  const unitMm = unitStepMm(pattern);
  const units = Math.round(pattern.lengthMm / unitMm);
  const perUnit = pattern.lines.filter((line) => line.xMm > 0.1 && line.xMm < unitMm + 0.1);
  const seen: (number | null)[] = [];
  for (let cell = -reach; cell < units + reach; cell++) {
    const lines = perUnit.map((line) => ({ ...line, xMm: line.xMm + cell * unitMm }));
    const { sights, looked } = measureLines(
      smooth,
      pose,
      { ...pattern, lines },
      { mostPx: 2, coarse: false },
    );
    seen.push(looked > 0 ? sights.length / looked : null);
  }
  return seen;
}

function shifted(pose: LensPose, byMm: number): LensPose {
  const r = pose.rotation;
  const t = pose.zeroMm;
  return { ...pose, zeroMm: [t[0] + r[0] * byMm, t[1] + r[3] * byMm, t[2] + r[6] * byMm] };
}

/** The same board, its far end taken for zero and its near edge for the far one. */
function halfTurned(pose: LensPose, { lengthMm, widthMm }: Pattern): LensPose {
  const r = pose.rotation;
  const axis = [r[2] * Math.PI, r[5] * Math.PI, r[8] * Math.PI] as const;
  const t = pose.zeroMm;
  return {
    ...pose,
    rotation: turnedBy(r, axis),
    zeroMm: [
      t[0] + r[0] * lengthMm + r[1] * widthMm,
      t[1] + r[3] * lengthMm + r[4] * widthMm,
      t[2] + r[6] * lengthMm + r[7] * widthMm,
    ],
  };
}

/** The ruled face's corners in the picture, px. */
export function cornersPx(pose: LensPose, board: MeasuringBoard): [Point, Point, Point, Point] {
  const lengthMm = faceLengthMm(board);
  return [
    projectBoardPoint(pose, 0, 0),
    projectBoardPoint(pose, lengthMm, 0),
    projectBoardPoint(pose, lengthMm, board.widthMm),
    projectBoardPoint(pose, 0, board.widthMm),
  ];
}
