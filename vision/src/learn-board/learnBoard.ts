import { seededDice } from '@lauta/core/dice';
import type { LineFamily, MeasuringBoard } from '../board/board.ts';
import { cornersPx, lensPriors, locateBoard, quality } from '../find-board/locate.ts';
import { numeralsSeen } from '../find-board/numerals.ts';
import { patternOf, type Pattern } from '../find-board/pattern.ts';
import { measureLines, refineOutwards, refinePose, type RefinedPose } from '../find-board/refine.ts';
import { shrinkFactor, shrinkRaster, smoothTones, tonesOf, type Tones } from '../find-board/tones.ts';
import { MM_PER_INCH } from '@lauta/core/units';
import { boardPointOf, projectBoardPoint, type LensPose } from '../camera/lens.ts';
import { mapQuad, scalePx, type Point, type Quad } from '../geometry/point.ts';
import { colourLookup } from '../image/colourAt.ts';
import type { Raster } from '../image/raster.ts';
import { faceEdges, faceEnd, isFaceBetween } from './faceEdges.ts';
import { bandsOf, quantile, type PrintedFace } from './lineContrast.ts';
import { faceUnder, movedAcross, poseOverLines, type MarkedLine } from './markedLines.ts';
import { coloursOf, numeralsOf, strokeProfile, uprightOf } from './strokeProfile.ts';
import type { SeenFace } from './seenFace.ts';
import { rulingBetween, rulingNear, type Ruling } from './ruling.ts';

/** Why no profile comes of a photograph. */
export type LearnTrouble =
  | 'too-small'
  /** The marks are no two lines seen from above, the lower number nearer to the stop. */
  | 'marks-unusable'
  /** No lines are seen where they are marked. */
  | 'no-lines'
  /** Lines are seen, but not at whole steps between the marked numbers. */
  | 'no-scale'
  | 'no-numerals';

export interface LearnWish {
  unit: 'in' | 'cm';
  /** The lower number first. */
  lines: readonly [MarkedLine, MarkedLine];
  /** EXIF 35 mm equivalent, or null when the file tells none. */
  focal35Mm: number | null;
  /** Whether an upright stands along the far edge. */
  hasWall: boolean;
  /** Across the ruled face as measured with a ruler, mm; null to take it from the photograph. */
  widthMm: number | null;
}

/** What a board's profile holds besides its key and its name. */
export type LearntBoard = Omit<MeasuringBoard, 'id' | 'name'>;

export interface Learning {
  board: LearntBoard;
  /** The ruled face's corners, px of the upright picture. */
  corners: Quad;
  /** Where the profile's lines fall, px: from far to near, one pair of ends for each drawn part. */
  drawn: readonly (readonly [Point, Point])[];
  /** Share of the profile's line pieces that are seen in their places. */
  seenShare: number;
  /** How well the numerals are read in their places (correlation with a plain font, median). */
  numeralFit: number;
  /** Whether the bench, told nothing but the profile, finds the same board in the same place. */
  isFoundAgain: boolean;
}

export type LearnResult = { ok: true; value: Learning } | { ok: false; code: LearnTrouble };

const LEAST_SIDE_PX = 300;
/** Distortions tried at first; the fit goes on from the best. */
const K1_TRIED = [0, -0.02, -0.04, 0.02, -0.06, -0.08];
const ROUNDS = 2;
const USUAL_UPRIGHT_MM = 40;
const USUAL_THICKNESS_MM = 4;
/** A scale goes on while this share of its lines is seen in a unit. */
const GOES_ON_SHARE = 0.45;
/** The face's end may be seen this far beside a whole unit, mm. */
const END_SLACK_MM = 2.5;
/** A marked line lies this near to where it was marked, mm: half a centimetre beside it is another line. */
const MARK_SLACK_MM = 2;
const LONGEST_UNITS = { in: 60, cm: 150 } as const;
const LEAST_NUMERAL_FIT = 0.45;
/** Every second numeral alone is read as well as all: coarser ones must be read clearly better. */
const CLEARLY_BETTER_FIT = 0.2;
/** Corners that the bench finds may lie this far beside the learnt ones, as a share of the face's length. */
const SAME_PLACE_SHARE = 0.004;
const UNIT_MM = { in: MM_PER_INCH, cm: 10 } as const;

/**
 * Makes a board's profile from one photograph of it, empty, in which a person marked two lines and told their numbers:
 * line families, strokes, numerals, colours and what is seen of the stop. Yields between its parts, so that whoever
 * runs it can stop. What one photograph cannot tell (the uprights' heights and thickness) is a guess.
 */
export function* learnBoard(photo: Raster, wish: LearnWish): Generator<undefined, LearnResult> {
  if (Math.min(photo.widthPx, photo.heightPx) < LEAST_SIDE_PX) return refused('too-small');
  const factor = shrinkFactor(photo.widthPx, photo.heightPx);
  const small = shrinkRaster(photo, factor);
  const smooth = smoothTones(tonesOf(small));
  const lines = scaledLines(wish.lines, 1 / factor);
  const unitMm = UNIT_MM[wish.unit];
  if (!(lines[0].value >= 0 && lines[1].value - lines[0].value >= 1)) return refused('marks-unusable');
  yield;
  const rough = yield* fitRoughly(smooth, wish, lines, unitMm);
  if (!rough.ok) return rough;
  yield;
  const fitted = fitWhole(small, smooth, wish, lines, unitMm, rough.value);
  if (!fitted) return refused('no-scale');
  yield;
  const { face, scaleLength } = fitted;
  const seen = { photo: small, pose: face.pose };
  const { lines: families, inkShare } = strokesOf(seen, fitted, unitMm);
  const lined = { ...bareBoard(wish.unit, scaleLength, face.widthMm), ...inkOf(face), lines: families };
  const { gain, ...colours } = coloursOf(seen, lined, inkShare);
  const printed = bestNumerals({ ...lined, ...colours }, numeralsOf(seen, lined, inkShare), face);
  if (!printed) return refused('no-numerals');
  const board = { ...printed.board, ...uprightsOf(seen, printed.board, wish.hasWall, gain) };
  yield;
  const pattern = patternOf(board);
  const { sights, looked } = measureLines(smooth, face.pose, pattern, { mostPx: 2, coarse: false });
  const corners = cornersPx(face.pose, board);
  const again = yield* locateBoard(smooth, [board], {
    focal35Mm: wish.focal35Mm,
    dice: seededDice(1),
    colourAt: colourLookup(small),
  });
  const grown = (point: Point): Point => scalePx(point, factor);
  const endOf = (xMm: number, yMm: number): Point => grown(projectBoardPoint(face.pose, xMm, yMm));
  return {
    ok: true,
    value: {
      board: profileOf(board),
      corners: mapQuad(corners, grown),
      drawn: pattern.lines.flatMap(({ xMm, spansMm }) =>
        spansMm.map(([from, to]) => [endOf(xMm, from), endOf(xMm, to)] as const),
      ),
      seenShare: looked > 0 ? sights.length / looked : 0,
      numeralFit: printed.fit,
      isFoundAgain: again.ok && isSamePlace(cornersPx(again.value.pose, board), corners),
    },
  };
}

/** Strokes of all families, and how bright the ink is as a share of the face. */
function strokesOf(
  seen: SeenFace,
  { face, ruling, scaleLength }: Fitted,
  unitMm: number,
): { lines: LineFamily[]; inkShare: number } {
  const finest = Math.min(...ruling.families.map(({ every }) => every));
  const profiles = ruling.families.map(({ every, spans }, i) => {
    const coarser = ruling.families.slice(0, i).map((other) => other.every);
    const placesMm = placesOf(every, coarser, scaleLength).map((at) => at * unitMm);
    return strokeProfile(seen, face.widthMm, placesMm, spans, 0.55 * finest * unitMm, face.inkDarker);
  });
  const extremes = profiles.map(({ extreme }) => extreme);
  const inkShare = face.inkDarker ? Math.min(...extremes, 0.9) : Math.max(...extremes, 1.1);
  return {
    inkShare,
    lines: ruling.families.map(({ every, spans }, i) => ({
      every,
      spans: spans.map(([from, to]) => [round(from, 3), round(to, 3)]),
      strokeMm: round(profiles[i].strokeMm(inkShare), 1),
    })),
  };
}

/** Of several guesses where the numerals stand the one under which they are read best; null when none is. */
function bestNumerals(
  lined: MeasuringBoard,
  candidates: readonly MeasuringBoard['numerals'][],
  { smooth, pose }: PrintedFace,
): { board: MeasuringBoard; fit: number } | null {
  let best: { board: MeasuringBoard; fit: number } | null = null;
  for (const numerals of candidates) {
    const board = { ...lined, numerals, lines: withoutNumerals(lined, numerals) };
    const fits = numeralsSeen(smooth, pose, patternOf(board)).flat();
    const fit = quantile(
      fits.filter((one) => one !== null),
      0.5,
    );
    if (fit > (best ? best.fit + CLEARLY_BETTER_FIT : LEAST_NUMERAL_FIT)) best = { board, fit };
  }
  return best;
}

/** What is seen of the uprights; where nothing is, a usual height and the face's colour. */
function uprightsOf(
  seen: SeenFace,
  board: MeasuringBoard,
  hasWall: boolean,
  gain: number,
): Pick<MeasuringBoard, 'stop' | 'wall'> {
  const unseen = { heightMm: USUAL_UPRIGHT_MM, colour: board.face, band: null };
  const stop = uprightOf(seen, 'stop', board, gain) ?? unseen;
  const { heightMm, colour } = (hasWall ? uprightOf(seen, 'wall', board, gain) : null) ?? unseen;
  return {
    stop: { ...stop, thicknessMm: USUAL_THICKNESS_MM },
    wall: hasWall ? { heightMm, colour, thicknessMm: USUAL_THICKNESS_MM } : null,
  };
}

function refused(code: LearnTrouble): { ok: false; code: LearnTrouble } {
  return { ok: false, code };
}

/** The same marked lines in a picture of another size. */
export function scaledLines([first, second]: LearnWish['lines'], by: number): LearnWish['lines'] {
  const scaled = ({ value, far, near }: LearnWish['lines'][0]): LearnWish['lines'][0] => ({
    value,
    far: scalePx(far, by),
    near: scalePx(near, by),
  });
  return [scaled(first), scaled(second)];
}

const round = (value: number, places: number): number => Number(value.toFixed(places));

function profileOf(board: MeasuringBoard): LearntBoard {
  const { unit, scaleLength, widthMm, face, ink, lines, numerals, stop, wall } = board;
  return { unit, scaleLength, widthMm, face, ink, lines, numerals, stop, wall };
}

function isSamePlace(found: readonly Point[], learnt: readonly Point[]): boolean {
  const [a, b] = learnt;
  const most = SAME_PLACE_SHARE * Math.hypot(b[0] - a[0], b[1] - a[1]);
  return found.every(([x, y], i) => {
    const [u, v] = learnt[i];
    return Math.hypot(x - u, y - v) < most;
  });
}

function placesOf(every: number, coarser: readonly number[], scaleLength: number): number[] {
  const places: number[] = [];
  for (let i = 1; i * every <= scaleLength + 1e-6; i++) {
    const at = i * every;
    if (coarser.every((other) => Math.abs(at / other - Math.round(at / other)) > 1e-6)) places.push(at);
  }
  return places;
}

/** Finer lines that fall among the numerals' strokes seem to be printed there: such spans are dropped. */
function withoutNumerals(
  { lines, widthMm }: MeasuringBoard,
  { heightMm, centresAt }: MeasuringBoard['numerals'],
): MeasuringBoard['lines'] {
  const among = ([from = 0, to = 1]: readonly number[]): boolean =>
    centresAt.some((at) => {
      const reach = (heightMm / 2 + 2) / widthMm;
      return from > at - reach && to < at + reach;
    });
  return lines
    .map((family) => ({ ...family, spans: family.spans.filter((span) => !among(span)) }))
    .filter(({ spans }) => spans.length > 0);
}

/** A board of which nothing but its size is known. */
function bareBoard(unit: 'in' | 'cm', scaleLength: number, widthMm: number): MeasuringBoard {
  return {
    id: 'unknown',
    name: '',
    unit,
    scaleLength,
    widthMm: round(widthMm, 1),
    ...inkOf({ inkDarker: true }),
    lines: [],
    numerals: { every: 1, heightMm: 10, centresAt: [] },
    stop: { heightMm: USUAL_UPRIGHT_MM, thicknessMm: USUAL_THICKNESS_MM, colour: '#808080', band: null },
    wall: null,
  };
}

function inkOf({ inkDarker }: Pick<PrintedFace, 'inkDarker'>): Pick<MeasuringBoard, 'face' | 'ink'> {
  return inkDarker ? { face: '#ffffff', ink: '#000000' } : { face: '#000000', ink: '#ffffff' };
}

/** Before strokes are measured lines are taken to be this broad, mm. */
const USUAL_STROKE_MM = 1.2;

function linePattern(face: PrintedFace, unit: 'in' | 'cm', ruling: Ruling, scaleLength: number): Pattern {
  return patternOf({
    ...bareBoard(unit, scaleLength, face.widthMm),
    ...inkOf(face),
    lines: ruling.families.map(({ every, spans }) => ({ every, spans, strokeMm: USUAL_STROKE_MM })),
  });
}

interface Fitted {
  face: PrintedFace;
  ruling: Ruling;
  /** In units. */
  scaleLength: number;
}

interface Rough {
  face: PrintedFace;
  ruling: Ruling;
  fit: RefinedPose;
}

/** Pose and lens from the marks and the lines between them, by what is printed next to the marks. */
function* fitRoughly(
  smooth: Tones,
  wish: LearnWish,
  lines: LearnWish['lines'],
  unitMm: number,
): Generator<undefined, { ok: true; value: Rough } | { ok: false; code: LearnTrouble }> {
  const centrePx: Point = [(smooth.widthPx - 1) / 2, (smooth.heightPx - 1) / 2];
  let best: Rough | null = null;
  let sawLines = false;
  for (const prior of lensPriors(smooth, wish.focal35Mm)) {
    for (const k1 of K1_TRIED) {
      yield;
      let start: { pose: LensPose; widthMm: number };
      try {
        start = poseOverLines(lines, unitMm, { focalPx: prior.focalPx, k1, centrePx });
      } catch {
        return refused('marks-unusable');
      }
      if (!(start.widthMm > 20 && start.widthMm < 700) || start.pose.rotation[8] < 0.5)
        return refused('marks-unusable');
      const marksMm = lines.map(({ value }) => value * unitMm);
      const face = { smooth, ...start, inkDarker: isInkDarker(smooth, start.pose, marksMm, start.widthMm) };
      const ruling = rulingNear(face, wish.unit, unitMm, marksMm, pxPerMm(start.pose, marksMm[0]));
      if (ruling.families.length === 0) continue;
      sawLines = true;
      const pattern = linePattern(face, wish.unit, ruling, lines[1].value);
      const fit = refineOutwards(smooth, start.pose, pattern, { ...prior, k1, k1Sigma: 0.02 });
      if (!fit || !holdsMarks(fit.pose, lines, unitMm)) continue;
      if (!best || quality(fit) > quality(best.fit)) best = { face, ruling, fit };
      if (best.fit.seenShare > 0.85 && best.fit.residualPx < 0.3) return { ok: true, value: best };
    }
  }
  if (!sawLines) return refused('no-lines');
  return best && best.fit.seenShare > 0.4 ? { ok: true, value: best } : refused('no-scale');
}

function holdsMarks(pose: LensPose, lines: LearnWish['lines'], unitMm: number): boolean {
  return lines.every(({ value, far, near }) =>
    [far, near].every((end) => Math.abs(boardPointOf(pose, ...end)[0] - value * unitMm) < MARK_SLACK_MM),
  );
}

function pxPerMm(pose: LensPose, xMm: number): number {
  const a = projectBoardPoint(pose, xMm, 0);
  const b = projectBoardPoint(pose, xMm + 10, 0);
  return Math.hypot(b[0] - a[0], b[1] - a[1]) / 10;
}

function isInkDarker(smooth: Tones, pose: LensPose, marksMm: readonly number[], widthMm: number): boolean {
  const contrastOf = (inkDarker: boolean): number =>
    quantile(
      bandsOf({ smooth, pose, widthMm, inkDarker }, marksMm, {
        bandMm: 2, slackMm: 0.75, share: 0.5, flankMm: 1.9,
      }), // prettier-ignore
      0.6,
    );
  return contrastOf(true) >= contrastOf(false);
}

/** The scale to its end, the face's edges, and all families, each time with a better pose. */
function fitWhole(
  photo: Raster,
  smooth: Tones,
  wish: LearnWish,
  lines: LearnWish['lines'],
  unitMm: number,
  { face: first, ruling: near, fit }: Rough,
): Fitted | null {
  const [prior] = lensPriors(smooth, wish.focal35Mm);
  if (!prior) return null;
  let face: PrintedFace = { ...first, ...faceUnder(fit.pose, lines) };
  let ruling = near;
  let scaleLength = lines[1].value;
  const refit = (): boolean => {
    const refined = refinePose(smooth, face.pose, linePattern(face, wish.unit, ruling, scaleLength), prior, [
      { mostPx: 4, coarse: false },
      { mostPx: 2.5, coarse: false },
    ]);
    if (refined) face = { ...face, pose: refined.pose };
    return refined !== null;
  };
  for (let round = 0; round < ROUNDS; round++) {
    scaleLength = endOfScale({ ...face, photo }, wish.unit, unitMm, ruling, scaleLength);
    if (!refit()) return null;
    const { farMm, nearMm } = faceEdges(
      { ...face, photo },
      scaleLength * unitMm,
      placesOf(ruling.families[0]?.every ?? 1, [], scaleLength).map((at) => at * unitMm),
    );
    face = { ...face, pose: movedAcross(face.pose, farMm), widthMm: nearMm - farMm };
    const scale = pxPerMm(face.pose, 0.5 * scaleLength * unitMm);
    ruling = rulingBetween(face, wish.unit, unitMm, scaleLength, scale);
    if (ruling.families.length === 0) return null;
  }
  if (wish.widthMm !== null) {
    face = { ...face, widthMm: wish.widthMm };
    if (!refit()) return null;
  }
  return { face, ruling, scaleLength };
}

/** The last place of the scale, in units: where its lines are no longer seen, or the face ends beyond the last one. */
function endOfScale(
  face: PrintedFace & { photo: Raster },
  unit: 'in' | 'cm',
  unitMm: number,
  ruling: Ruling,
  from: number,
): number {
  const pattern = linePattern(face, unit, ruling, LONGEST_UNITS[unit]);
  let last = from;
  for (let misses = 0; misses < 2;) {
    const toMm = (last + misses + 1) * unitMm;
    if (!isFaceBetween(face, [toMm - 2 * unitMm, toMm - unitMm], [toMm - unitMm, toMm])) break;
    const lines = pattern.lines.filter(({ xMm }) => xMm > toMm - unitMm + 0.1 && xMm < toMm + 0.1);
    const shares = lines.map((line) => {
      const { sights, looked } = measureLines(face.smooth, face.pose, { ...pattern, lines: [line] }, { mostPx: 2.5, coarse: false }); // prettier-ignore
      return { at: line.xMm / unitMm, share: looked > 0 ? sights.length / looked : 0 };
    });
    const seen = shares.filter(({ share }) => share >= GOES_ON_SHARE);
    const furthest = seen.at(-1);
    if (!furthest || lines.length === 0) {
      misses++;
      continue;
    }
    if (seen.length < lines.length) {
      last = Math.max(last, furthest.at);
      break;
    }
    last = furthest.at;
    misses = 0;
  }
  // A last line on the very edge is an edge, not a line.
  const step = Math.min(...ruling.families.map(({ every }) => every));
  const endMm = faceEnd(face, (last + 0.5 * step) * unitMm, 1.3 * step * unitMm);
  if (endMm === null) return round(last, 4);
  const whole = Math.round(endMm / unitMm);
  const isNextWhole = whole > last && whole < last + 1.5 * step;
  if (isNextWhole && Math.abs(whole * unitMm - endMm) < END_SLACK_MM) return whole;
  const at = Math.round(endMm / unitMm / step) * step;
  const isNext = at > last && Math.abs(at * unitMm - endMm) < 0.3 * step * unitMm;
  return round(isNext ? at : last, 4);
}
