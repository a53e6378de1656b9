import { lineContrast, quantile, type PrintedFace } from './lineContrast.ts';
import { colourAt, medianColour, type Rgb, type SeenFace } from './seenFace.ts';

const REACH_MM = 7;
const STEP_MM = 0.25;
/** Colours are compared this far on both sides of a supposed edge, mm. */
const SIDE_MM = 1.25;
/** An edge that is this far from where it was marked is half as likely, mm. */
const DOUBT_MM = 5;
/** Less difference of colour (of 441) is no edge: what was marked stays. */
const LEAST_STEP = 12;

/** Lines that reach an edge are looked at this far inside of it for what they should look like, mm. */
const INSIDE_MM: readonly [number, number] = [3, 9];
const LEAST_LINE = 0.12;

interface FaceInPhoto extends SeenFace {
  widthMm: number;
}

/**
 * Where the ruled face's edges are seen, board coordinates, mm: where lines end that reach them, else where the colour
 * changes, else where they were marked. Lines go first: a shadow of the wall looks like an edge, but not to them.
 * @param linesMm places of lines that may reach the edges
 */
export function faceEdges(
  face: FaceInPhoto & PrintedFace,
  lengthMm: number,
  linesMm: readonly number[],
): { farMm: number; nearMm: number } {
  const places: number[] = [];
  for (let xMm = 0.04 * lengthMm; xMm < 0.96 * lengthMm; xMm += lengthMm / 120) places.push(xMm);
  return {
    farMm: linesEnd(face, linesMm, 0, -1) ?? edgeNear(face, (off) => places.map((xMm) => [xMm, off])) ?? 0,
    nearMm:
      linesEnd(face, linesMm, face.widthMm, 1) ??
      face.widthMm + (edgeNear(face, (off) => places.map((xMm) => [xMm, face.widthMm + off])) ?? 0),
  };
}

/** Where lines that come up to an edge end, mm across; null where none come so far. */
function linesEnd(
  face: PrintedFace,
  linesMm: readonly number[],
  edgeMm: number,
  outwards: -1 | 1,
): number | null {
  const contrastAt = (outMm: number): number =>
    quantile(
      linesMm
        .map((xMm) => lineContrast(face, xMm, edgeMm + outwards * outMm, { flankMm: 1.9, slackMm: 0 }))
        .filter((value) => value !== null),
      0.5,
    );
  const inside: number[] = [];
  for (let inMm = INSIDE_MM[0]; inMm <= INSIDE_MM[1]; inMm += 0.5) inside.push(contrastAt(-inMm));
  const plateau = quantile(inside, 0.5);
  if (plateau < LEAST_LINE) return null;
  let before = plateau;
  for (let outMm = -INSIDE_MM[0]; outMm <= REACH_MM; outMm += STEP_MM) {
    const here = contrastAt(outMm);
    if (here < plateau / 2) {
      const back = (plateau / 2 - here) / Math.max(1e-6, before - here);
      return edgeMm + outwards * (outMm - STEP_MM * Math.min(1, back));
    }
    before = here;
  }
  return null;
}

/** Where the face ends along the scale, near a place, mm; null where no edge is seen. */
export function faceEnd(face: FaceInPhoto, nearMm: number, reachMm: number): number | null {
  const places: number[] = [];
  for (let share = 0.1; share < 0.91; share += 0.02) places.push(share * face.widthMm);
  const off = edgeNear(face, (by) => places.map((yMm) => [nearMm + by, yMm]), Math.min(REACH_MM, reachMm));
  return off === null ? null : nearMm + off;
}

/** Colours of neighbouring stretches of one face differ by less than this in any channel, log units. */
const SAME_COLOUR = 0.3;

/** Whether a stretch of the plane has the colour of the stretch before it, as a face has and the ground beyond has not. */
export function isFaceBetween(
  face: FaceInPhoto,
  before: readonly [number, number],
  here: readonly [number, number],
): boolean {
  const colourOf = ([from, to]: readonly [number, number]): Rgb | null => {
    const places: [number, number][] = [];
    for (let share = 0.08; share < 1; share += 0.1)
      for (let yShare = 0.1; yShare < 0.91; yShare += 0.04)
        places.push([from + share * (to - from), yShare * face.widthMm]);
    return colourOver(face, places);
  };
  const a = colourOf(before);
  const b = colourOf(here);
  if (!a || !b) return false;
  return a.every((value, i) => Math.abs(Math.log((value + 6) / (b[i] + 6))) < SAME_COLOUR);
}

/** Fewer places than this inside of the picture say nothing. */
const LEAST_PLACES = 8;

function colourOver(face: SeenFace, places: readonly (readonly [number, number])[]): Rgb | null {
  const seen = places.map(([xMm, yMm]) => colourAt(face, xMm, yMm)).filter((colour) => colour !== null);
  return seen.length < LEAST_PLACES ? null : medianColour(seen);
}

function edgeNear(
  face: FaceInPhoto,
  placesAt: (offMm: number) => readonly (readonly [number, number])[],
  reachMm = REACH_MM,
): number | null {
  const count = Math.round((reachMm + SIDE_MM) / STEP_MM);
  const profile: (readonly number[] | null)[] = [];
  for (let i = -count; i <= count; i++) {
    profile.push(colourOver(face, placesAt(i * STEP_MM)));
  }
  const side = Math.round(SIDE_MM / STEP_MM);
  let best: number | null = null;
  let bestStep = LEAST_STEP;
  for (let i = side; i < profile.length - side; i++) {
    const a = profile[i - side];
    const b = profile[i + side];
    if (!a || !b) continue;
    const offMm = (i - count) * STEP_MM;
    const step = Math.hypot(...a.map((value, channel) => value - b[channel])) / (1 + (offMm / DOUBT_MM) ** 2);
    if (step > bestStep) [best, bestStep] = [offMm, step];
  }
  return best;
}
