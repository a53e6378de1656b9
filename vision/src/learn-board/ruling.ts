import { bandsOf, quantile, type PrintedFace } from './lineContrast.ts';

/** Steps of a scale within its unit, from coarse to fine; a place belongs to the first that divides it. */
const STEPS = { in: [1, 1 / 2, 1 / 4, 1 / 8, 1 / 16], cm: [1, 1 / 2, 1 / 5, 1 / 10] } as const;
/** Every how many units longer or broader lines may come (common practice, no source). */
const GROUPS = [2, 3, 4, 5, 6, 10, 12];
const USUAL_FLANK_MM = 1.9;
/** Lines nearer to each other than this many px run into one another. */
const LEAST_STEP_PX = 3.2;
/** Lines nearer to a coarser one than this are told from its edge by looking at both sides. */
const CROWDED_MM = 4.5;
const LEAST_CONTRAST = 0.08;
/** A family whose contrast is under this share of the clearest one's is no print. */
const LEAST_SHARE = 0.22;
const LEAST_SPAN_MM = 4;
const MOST_GAP_MM = 3;
/** Ends of spans nearer to an edge than this lie on it. */
const AT_EDGE_MM = 2.5;
/** Families whose spans and contrast differ by less are one family. */
const SAME_SPAN_SHARE = 0.04;
const SAME_CONTRAST_SHARE = 0.2;
/** How much of the scatter between lines a grouping must explain. */
const LEAST_GAIN = 0.12;

export interface Ruling {
  /** Coarse ones first; strokes are not known yet. */
  families: readonly LineKind[];
}

export interface LineKind extends Look {
  every: number;
}

interface Look {
  spans: readonly (readonly [number, number])[];
  contrast: number;
}

/**
 * Which lines are printed in the neighbourhood of marked ones, where even a rough pose is good to half a millimetre.
 * @param marksMm places of the marked lines
 */
export function rulingNear(
  face: PrintedFace,
  unit: 'in' | 'cm',
  unitMm: number,
  marksMm: readonly number[],
  pxPerMm: number,
): Ruling {
  const places = (step: number, coarser: readonly number[]): number[] =>
    marksMm.flatMap((markMm) =>
      multiplesOf(step, coarser, -1.3, 1.3)
        .filter((at) => at !== 0)
        .map((at) => markMm + at * unitMm),
    );
  const marked = lookOf(
    bandsOf(face, marksMm, { bandMm: 1, slackMm: 0.5, share: 0.5, flankMm: USUAL_FLANK_MM }),
    face,
    0,
  );
  return rulingBy(face, unit, unitMm, places, pxPerMm, { slackMm: 0.5, least: marked?.contrast ?? 0 });
}

/** Which lines are printed up to the scale's end, once the pose is good; longer ones every few units included. */
export function rulingBetween(
  face: PrintedFace,
  unit: 'in' | 'cm',
  unitMm: number,
  toUnits: number,
  pxPerMm: number,
): Ruling {
  const places = (step: number, coarser: readonly number[]): number[] =>
    multiplesOf(step, coarser, step, toUnits).map((at) => at * unitMm);
  const units = multiplesOf(1, [], 1, toUnits);
  const groups = groupUnits(face, units, unitMm);
  const families: LineKind[] = [];
  let coarser: number[] = [];
  for (const every of [...groups, 1]) {
    const members = units.filter((at) => divides(every, at) && !coarser.some((other) => divides(other, at)));
    const look = lookOf(
      bandsOf(face, members.map((at) => at * unitMm), { bandMm: 1, slackMm: 0.25, share: 0.4, flankMm: USUAL_FLANK_MM }), // prettier-ignore
      face,
      0,
    );
    coarser = [...coarser, every];
    if (look) families.push({ every, ...look });
  }
  const clearest = Math.max(0, ...families.map(({ contrast }) => contrast));
  const fine = rulingBy(face, unit, unitMm, places, pxPerMm, { slackMm: 0.25, least: clearest });
  return {
    families: merged([...families, ...fine.families.filter(({ every }) => every < 1)], face.widthMm),
  };
}

function rulingBy(
  face: PrintedFace,
  unit: 'in' | 'cm',
  unitMm: number,
  places: (step: number, coarser: readonly number[]) => number[],
  pxPerMm: number,
  { slackMm, least }: { slackMm: number; least: number },
): Ruling {
  const families: LineKind[] = [];
  let clearest = least;
  STEPS[unit].forEach((step, i) => {
    if (step * unitMm * pxPerMm < LEAST_STEP_PX) return;
    const flankMm = Math.min(USUAL_FLANK_MM, (step * unitMm) / 2);
    const members = places(step, STEPS[unit].slice(0, i));
    const look = lookOf(
      bandsOf(face, members, {
        bandMm: 1,
        slackMm: Math.min(slackMm, flankMm / 3),
        share: 0.4,
        flankMm,
        // Next to finer lines stands a coarser one, and its edge is no line.
        bothSides: step * unitMm < CROWDED_MM,
      }),
      face,
      LEAST_SHARE * clearest,
    );
    if (!look) return;
    clearest = Math.max(clearest, look.contrast);
    families.push({ every: step, ...look });
  });
  return { families: merged(families, face.widthMm) };
}

function divides(step: number, at: number): boolean {
  return Math.abs(at / step - Math.round(at / step)) < 1e-6;
}

function multiplesOf(step: number, coarser: readonly number[], from: number, to: number): number[] {
  const places: number[] = [];
  for (let i = Math.ceil(from / step - 1e-9); i * step <= to + 1e-9; i++) {
    const at = i * step;
    if (!coarser.some((other) => divides(other, at))) places.push(at);
  }
  return places;
}

/** Where across the face a kind of line is drawn; null where it is not printed. */
function lookOf(bands: readonly number[], face: PrintedFace, leastContrast: number): Look | null {
  const contrast = quantile(bands, 0.95);
  if (contrast < Math.max(LEAST_CONTRAST, leastContrast)) return null;
  const level = 0.5 * contrast;
  const bandMm = face.widthMm / bands.length;
  const valueAt = (i: number): number => bands[i] ?? 0;
  const crossing = (inside: number, outside: number): number => {
    const share = (valueAt(inside) - level) / Math.max(1e-6, valueAt(inside) - valueAt(outside));
    return (inside + 0.5 + (outside - inside) * Math.min(1, Math.max(0, share))) * bandMm;
  };
  const runs: [number, number][] = [];
  for (let i = 0; i < bands.length; i++) {
    if (valueAt(i) < level) continue;
    let end = i;
    while (end + 1 < bands.length && valueAt(end + 1) >= level) end++;
    const from = i === 0 ? 0 : crossing(i, i - 1);
    const to = end === bands.length - 1 ? face.widthMm : crossing(end, end + 1);
    const last = runs.at(-1);
    if (last && from - last[1] < MOST_GAP_MM) last[1] = to;
    else runs.push([from, to]);
    i = end;
  }
  const spans = runs
    .map(
      ([from, to]) =>
        [from < AT_EDGE_MM ? 0 : from, to > face.widthMm - AT_EDGE_MM ? face.widthMm : to] as const,
    )
    .filter(([from, to]) => to - from >= LEAST_SPAN_MM)
    .map(([from, to]) => [from / face.widthMm, to / face.widthMm] as const);
  return spans.length > 0 ? { spans, contrast } : null;
}

/** A finer family that looks as a coarser one is its continuation: the coarser one goes. */
function merged(families: readonly LineKind[], widthMm: number): LineKind[] {
  const kept: LineKind[] = [];
  for (const family of families) {
    for (let i = kept.length - 1; i >= 0; i--) {
      const coarse = kept[i];
      if (divides(family.every, coarse.every) && looksAlike(coarse, family, widthMm)) kept.splice(i, 1);
    }
    kept.push(family);
  }
  return kept;
}

function looksAlike(a: Look, b: Look, widthMm: number): boolean {
  if (a.spans.length !== b.spans.length) return false;
  if (Math.abs(a.contrast - b.contrast) > SAME_CONTRAST_SHARE * Math.max(a.contrast, b.contrast))
    return false;
  const slack = Math.max(SAME_SPAN_SHARE, 3 / widthMm);
  return a.spans.every(([from, to], i) => {
    const other = b.spans[i];
    return Math.abs(from - other[0]) < slack && Math.abs(to - other[1]) < slack;
  });
}

/** Every how many units the lines look different, coarse ones first; none for a scale whose units are all alike. */
function groupUnits(face: PrintedFace, units: readonly number[], unitMm: number): number[] {
  const profiles = new Map(
    units.map((at) => [
      at,
      bandsOf(face, [at * unitMm], { bandMm: 2, slackMm: 0.25, share: 0.5, flankMm: USUAL_FLANK_MM }),
    ]),
  );
  const found: number[] = [];
  let members = units;
  let step = 1;
  for (;;) {
    let best: { every: number; gain: number } | null = null;
    const whole = scatterOf(members, profiles);
    for (const times of GROUPS) {
      const every = step * times;
      const inside = members.filter((at) => divides(every, at));
      const outside = members.filter((at) => !divides(every, at));
      if (inside.length < 2 || outside.length < 2) continue;
      const gain = 1 - (scatterOf(inside, profiles) + scatterOf(outside, profiles)) / Math.max(1e-9, whole);
      if (gain > LEAST_GAIN && gain > (best?.gain ?? 0)) best = { every, gain };
    }
    if (!best) return found;
    const { every } = best;
    found.unshift(every);
    members = members.filter((at) => divides(every, at));
    step = every;
  }
}

function scatterOf(members: readonly number[], profiles: ReadonlyMap<number, readonly number[]>): number {
  const all = members.flatMap((at) => [profiles.get(at) ?? []]);
  const bands = all[0]?.length ?? 0;
  let sum = 0;
  for (let band = 0; band < bands; band++) {
    const values = all.map((profile) => profile[band]);
    const middle = quantile(values, 0.5);
    for (const value of values) sum += Math.abs(value - middle);
  }
  return sum;
}
