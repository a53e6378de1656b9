import { projectBoardPoint, type LensPose } from '../camera/lens.ts';
import { faceLengthMm, type MeasuringBoard } from '../board/board.ts';
import { focalPxFrom35mm } from '../camera/camera.ts';
import type { ColourAt } from '../image/colourAt.ts';
import { mapQuad, turn, type Point, type Quad } from '../geometry/point.ts';
import { latticeHeights, type Lattice } from './heights.ts';
import { patternOf, type Pattern } from './pattern.ts';
import { placePattern, type Placement } from './placements.ts';
import { findParallels, planesOf, type Dice, type MarkedPlane, type ParallelStrokes } from './boardPlane.ts';
import { measureLines, refineOutwards, refinePose, type LensPrior, type RefinedPose } from './refine.ts';
import { isStanding, quarterTurned, quarterTurnedPx, turnedBack, turnedBackPx } from './quarterTurn.ts';
import { findStrokes, type Stroke } from './strokes.ts';
import { halveTones, smoothTones, type Tones } from './tones.ts';
import { likeliestZero, movedTo } from './zero.ts';

export type BoardTrouble = 'no-board' | 'no-anchor';

export interface LocatedBoard extends RefinedPose {
  board: MeasuringBoard;
  /** Log odds that this zero and turn are the right ones. */
  zeroOdds: number;
}

export interface LocateOptions {
  /** EXIF 35 mm equivalent, or null when the file tells none. */
  focal35Mm: number | null;
  dice: Dice;
  /** Colours of the picture that the tones are of. */
  colourAt: ColourAt;
  /** Corners set roughly by a person, px: only what lies there is looked at, and another place is no answer. */
  near?: Quad;
  /** In a picture that is higher than wide a board is looked for one way alone, where time is short. */
  way?: BoardWay;
}

/** How a board lies in a picture: its scale across it, or up and down. */
export type BoardWay = 'lying' | 'standing';

/** Distortions under which strokes are looked for, and those tried with what was found. */
const K1_STARTS: readonly { k1: number; near: readonly number[] }[] = [
  { k1: -0.005, near: [-0.02, -0.005, 0.01, 0.028] },
  { k1: -0.042, near: [-0.06, -0.045, -0.03] },
];
/** Horizontal fields of view tried when the file tells none, degrees (common practice, no source). */
const FIELDS_DEG = [72, 86, 62];
const LEAST_STRENGTH = 0.22;
const VANISHING_POINTS = 3;
/** Placements of the pattern that are fitted, and the least score of one (a board half hidden by a fish has 0.3). */
const PLACEMENTS_TRIED = 3;
const LEAST_SCORE = 0.16;
const LEAST_SEEN = 0.3;
const LEAST_PIECES = 120;
/** Share of another kind's own lines that is seen by chance at most. */
const RIVAL_SEEN = 0.25;
/** A zero is believed from 10 to 1 on. */
const LEAST_ODDS = Math.log(10);

export type Location =
  { ok: true; value: LocatedBoard } | { ok: false; code: BoardTrouble; seenShare: number };

/**
 * Finds a board in smoothed tones (px of these) and tells which of several kinds it is. Yields between its attempts,
 * so that whoever runs it can stop. A board stands in a high picture when the phone was held along it, or did not know
 * which way is up as it looked down: then it is looked for in the turned picture.
 * @param boards the claimed kind first; it wins where another kind explains the picture no better
 */
export function* locateBoard(
  smooth: Tones,
  boards: readonly MeasuringBoard[],
  options: LocateOptions,
): Generator<undefined, Location> {
  const { near, way } = options;
  const mayStand = near ? isStanding(near) : smooth.heightPx > smooth.widthPx && way !== 'lying';
  const isLyingAsked = !mayStand || (!near && way !== 'standing');
  const lying = isLyingAsked ? yield* locateLying(smooth, boards, options) : null;
  if (lying && (lying.ok || !mayStand)) return lying;
  const turned = quarterTurned(smooth);
  const found = yield* locateLying(turned, boards, {
    ...options,
    colourAt: (x, y) => options.colourAt(...turnedBackPx([x, y], smooth)),
    ...(near ? { near: mapQuad(near, (corner) => quarterTurnedPx(corner, smooth)) } : {}),
  });
  if (!found.ok) return lying ?? found;
  const { board, zeroOdds, pose, seenShare } = found.value;
  const [prior] = lensPriors(smooth, options.focal35Mm);
  const held = { ...prior, focalPx: pose.focalPx };
  const fitted = refinePose(smooth, turnedBack(pose, smooth), patternOf(board), held, LAST_ROUNDS);
  return fitted
    ? { ok: true, value: { ...fitted, board, zeroOdds } }
    : { ok: false, code: 'no-board', seenShare };
}

function* locateLying(
  smooth: Tones,
  boards: readonly MeasuringBoard[],
  options: LocateOptions,
): Generator<undefined, Location> {
  const patterns = boards.map(patternOf);
  const strokesWith = remembered((inkDarker: boolean) =>
    withinReach(strokesOf(smooth, inkDarker), options.near),
  );
  // The best fit of each kind. One whose zero cannot be settled may be another kind's lines at another scale.
  const fits = new Map<Pattern, Fit>();
  const refused = new Set<Pattern>();
  let unanchored: Location | null = null;
  const tried = (fit: Fit): Location => {
    const location = anchor(smooth, fit, options);
    if (!location.ok) {
      unanchored ??= location;
      refused.add(fit.pattern);
    }
    return location;
  };
  const bestLeft = (): Fit | null =>
    [...fits.values()]
      .filter(({ pattern }) => !refused.has(pattern))
      .reduce<Fit | null>((best, fit) => better(best, fit), null);
  for (const prior of lensPriors(smooth, options.focal35Mm)) {
    const searchWith = remembered((inkDarker: boolean) =>
      parallelSearch(smooth, strokesWith(inkDarker), prior, options.dice),
    );
    for (let attempt = 0; attempt < VANISHING_POINTS; attempt++) {
      // The claimed kind first; the others are asked together, the likeliest first.
      for (const asked of [patterns.slice(0, 1), patterns.slice(1)]) {
        yield;
        const placed: Placed[] = [];
        for (const pattern of asked.filter((one) => !refused.has(one))) {
          const parallels = searchWith(pattern.inkDarker).attempt(attempt);
          const candidates = latticesIn(smooth, parallels, pattern, prior);
          placed.push(...placementsOf(smooth, candidates, pattern));
          yield;
        }
        for (const { pattern, placement } of likeliest(placed)) {
          if (refused.has(pattern)) continue;
          yield;
          const refined = refineOutwards(smooth, placement.pose, pattern, prior);
          if (refined) fits.set(pattern, better(fits.get(pattern) ?? null, { pattern, refined }));
          const best = bestLeft();
          // Another kind is asked only where its own lines are seen as well.
          if (!best || !isGood(best.refined) || hasRival(smooth, best, patterns)) continue;
          const location = tried(best);
          if (location.ok) return location;
        }
      }
      // Seen by several kinds, or what was best has no zero: the others of them.
      const best = bestLeft();
      if (best && (isGood(best.refined) || unanchored)) break;
    }
    const best = bestLeft();
    if (unanchored || (best && isGood(best.refined))) break;
  }
  for (let best = bestLeft(); best && best.refined.seenShare >= LEAST_SEEN; best = bestLeft()) {
    const location = tried(best);
    if (location.ok) return location;
  }
  const seenShare = Math.max(0, ...[...fits.values()].map(({ refined }) => refined.seenShare));
  return unanchored ?? { ok: false, code: 'no-board', seenShare };
}

/** Whether lines that another kind has and this one has not are seen at the same place. */
function hasRival(smooth: Tones, { pattern, refined }: Fit, patterns: readonly Pattern[]): boolean {
  return patterns.some((other) => {
    if (other === pattern || other.inkDarker !== pattern.inkDarker) return false;
    const lines = other.lines.filter((line) =>
      pattern.lines.every(({ xMm }) => Math.abs(xMm - line.xMm) > 1.5),
    );
    if (lines.length < 8) return false;
    const { sights, looked } = measureLines(
      smooth,
      refined.pose,
      { ...other, lines },
      { mostPx: 2, coarse: false },
    );
    return looked > 40 && sights.length / looked > RIVAL_SEEN;
  });
}

interface Fit {
  pattern: Pattern;
  refined: RefinedPose;
}

/**
 * How much of the picture a fit explains: a fit that slipped by a line at one end sees fewer lines, and those less well
 * in their places; a kind with too few or too many lines explains fewer or misses more.
 */
export function quality(fit: RefinedPose): number {
  return (fit.seenCount * fit.seenShare) / (1 + (fit.residualPx / 0.3) ** 2);
}

function better(a: Fit | null, b: Fit): Fit {
  return a && quality(a.refined) >= quality(b.refined) ? a : b;
}

/** Lines in their places to a sixth of a px are no chance, even when a fish hides most of them. */
export function isGood({ seenShare, seenCount, residualPx }: RefinedPose): boolean {
  if (seenCount < LEAST_PIECES) return false;
  return (residualPx < 0.17 && seenShare > 0.38) || (residualPx < 0.24 && seenShare > 0.7);
}

/** How far beside the corners that a person set roughly the board may lie, as a share of its longest side. */
const ROUGH_SHARE = 0.12;

/** Strokes whose middle lies inside of the corners, widened. */
function withinReach(strokes: readonly Stroke[], near: Quad | undefined): readonly Stroke[] {
  if (!near) return strokes;
  const cx = near.reduce((sum, [x]) => sum + x, 0) / 4;
  const cy = near.reduce((sum, [, y]) => sum + y, 0) / 4;
  const longest = Math.max(
    ...near.map(([x, y], i) => {
      const [u, v] = near[(i + 1) % 4];
      return Math.hypot(u - x, v - y);
    }),
  );
  const wide = near.map(([x, y]): Point => {
    const away = Math.hypot(x - cx, y - cy) || 1;
    const by = (away + ROUGH_SHARE * longest) / away;
    return [cx + (x - cx) * by, cy + (y - cy) * by];
  });
  return strokes.filter((stroke) => {
    const at: Point = [(stroke.x0 + stroke.x1) / 2, (stroke.y0 + stroke.y1) / 2];
    const turns = wide.map((corner, i) => Math.sign(turn(corner, wide[(i + 1) % 4], at)));
    return turns.every((way) => way >= 0) || turns.every((way) => way <= 0);
  });
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

/** What is known of the lens before anything is seen: by the file's focal length, or several usual ones. */
export function lensPriors({ widthPx, heightPx }: Tones, focal35Mm: number | null): LensPrior[] {
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

interface ParallelSearch {
  /** What is found when the strokes of all former attempts are left out: seams and planks may have won those. */
  attempt(index: number): readonly { found: ParallelStrokes; near: readonly number[] }[];
}

/** Looks for parallel strokes once for all kinds of board. */
function parallelSearch(
  smooth: Tones,
  strokes: readonly Stroke[],
  prior: LensPrior,
  dice: Dice,
): ParallelSearch {
  const attempts: { found: ParallelStrokes; near: readonly number[] }[][] = [];
  let left = strokes;
  return {
    attempt(index) {
      while (attempts.length <= index) {
        const used = new Set<Stroke>();
        const here: { found: ParallelStrokes; near: readonly number[] }[] = [];
        for (const { k1, near } of left.length > 20 ? K1_STARTS : []) {
          const found = findParallels(left, { focalPx: prior.focalPx, k1, centrePx: centreOf(smooth) }, dice);
          if (!found) continue;
          here.push({ found, near });
          for (const stroke of found.strokes) used.add(stroke);
        }
        attempts.push(here);
        left = left.filter((stroke) => !used.has(stroke));
      }
      return attempts[index] ?? [];
    },
  };
}

function centreOf({ widthPx, heightPx }: Tones): Point {
  return [(widthPx - 1) / 2, (heightPx - 1) / 2];
}

/** Heights at which the strokes of an attempt fall on a kind's lattice, the strongest first. */
function latticesIn(
  smooth: Tones,
  attempt: readonly { found: ParallelStrokes; near: readonly number[] }[],
  pattern: Pattern,
  prior: LensPrior,
): Candidate[] {
  const centrePx = centreOf(smooth);
  const field = smooth.widthPx / prior.focalPx;
  const lowestMm = pattern.lengthMm / (1.3 * field);
  const highestMm = pattern.lengthMm / (0.33 * field);
  const candidates: Candidate[] = [];
  for (const { found, near } of attempt) {
    for (const k1 of near) {
      for (const plane of planesOf(found, { focalPx: prior.focalPx, k1, centrePx })) {
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
  return candidates.sort((a, b) => b.lattice.strength - a.lattice.strength);
}

interface Placed {
  pattern: Pattern;
  placement: Placement;
}

/** The few placements worth a fit: those with nearly the best score. */
function likeliest(placed: readonly Placed[]): Placed[] {
  const sorted = placed.toSorted((a, b) => b.placement.score - a.placement.score);
  const [first] = sorted;
  return sorted
    .filter(({ placement }) => placement.score > 0.6 * (first?.placement.score ?? 0))
    .slice(0, PLACEMENTS_TRIED);
}

/** A function whose results are kept. */
function remembered<A, R>(make: (of: A) => R): (of: A) => R {
  const known = new Map<A, R>();
  return (of) => {
    const former = known.get(of);
    if (former !== undefined) return former;
    const made = make(of);
    known.set(of, made);
    return made;
  };
}

/** Where a kind's print may lie, those with too low a score left out. */
function placementsOf(smooth: Tones, candidates: readonly Candidate[], pattern: Pattern): Placed[] {
  return distinct(candidates)
    .flatMap(({ plane, lattice }) => placePattern(smooth, plane, lattice, pattern, 2))
    .filter(({ score }) => score > LEAST_SCORE)
    .map((placement) => ({ pattern, placement }));
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

/** The fit from a pose that is nearly right. */
const LAST_ROUNDS = [
  { mostPx: 3, coarse: false },
  { mostPx: 2, coarse: false },
] as const;

/** Settles which line is zero and which way round the board lies. */
function anchor(smooth: Tones, { pattern, refined: fitted }: Fit, options: LocateOptions): Location {
  const zero = likeliestZero(smooth, fitted.pose, pattern, options.colourAt);
  if (zero.odds < LEAST_ODDS) return { ok: false, code: 'no-anchor', seenShare: fitted.seenShare };
  const pose = movedTo(fitted.pose, pattern, zero);
  const [prior] = lensPriors(smooth, options.focal35Mm);
  const last = refinePose(smooth, pose, pattern, prior, LAST_ROUNDS);
  if (!last) return { ok: false, code: 'no-board', seenShare: fitted.seenShare };
  if (options.near && !isNear(cornersPx(last.pose, pattern.board), options.near))
    return { ok: false, code: 'no-board', seenShare: last.seenShare };
  return { ok: true, value: { ...last, board: pattern.board, zeroOdds: zero.odds } };
}

function isNear(corners: readonly Point[], near: Quad): boolean {
  const longest = Math.hypot(near[1][0] - near[0][0], near[1][1] - near[0][1]);
  return corners.every(([x, y], i) => {
    const [u, v] = near[i];
    return Math.hypot(x - u, y - v) < ROUGH_SHARE * longest;
  });
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
