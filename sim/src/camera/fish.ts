import { rollDice } from './dice.ts';
import { makeNoise } from './noise.ts';
import { clamp, mix, smoothstep, type Rgb } from './rgb.ts';
import type { Relief } from './relief.ts';
import {
  TAIL_ROOT,
  TAIL_SPREAD_RAD,
  tailCover,
  tailRadius,
  tailTip,
  type Noise,
  type TailFin,
} from './tailFin.ts';

/** How a kind of fish looks. Shares are of the total length unless said otherwise. */
export interface FishLook extends TailFin {
  depth: number;
  back: Rgb;
  flank: Rgb;
  belly: Rgb;
  pattern: 'band' | 'bars' | 'spots' | 'plain';
  patternColour: Rgb;
  fin: Rgb;
  jaw: number;
  /** Over 1 for a long snout: outlines are read at share ** taper. */
  taper?: number;
  /** How much of the pattern's colour the tail shows in blotches. */
  tailBlotched?: number;
  /** How thick the fish lies, and so how high it carries its nose; 1 is usual. */
  thickness?: number;
}

/** Invented fish in the manner of the trade's; ids are those of the demo's rule sheet. */
export const FISH_LOOKS: Record<string, FishLook> = {
  'largemouth-bass': {
    depth: 1,
    back: [58, 72, 38],
    flank: [128, 142, 82],
    belly: [222, 218, 196],
    pattern: 'band',
    patternColour: [44, 52, 30],
    fin: [104, 108, 66],
    fork: 0.1,
    jaw: 0.14,
  },
  'smallmouth-bass': {
    depth: 0.94,
    back: [82, 66, 34],
    flank: [150, 122, 66],
    belly: [214, 202, 172],
    pattern: 'bars',
    patternColour: [74, 58, 30],
    fin: [120, 96, 54],
    fork: 0.13,
    jaw: 0.1,
  },
  'spotted-bass': {
    depth: 0.92,
    back: [64, 78, 46],
    flank: [142, 152, 104],
    belly: [228, 226, 210],
    pattern: 'spots',
    patternColour: [48, 58, 36],
    fin: [114, 114, 76],
    fork: 0.12,
    jaw: 0.12,
  },
  walleye: {
    depth: 0.74,
    back: [70, 62, 28],
    flank: [158, 134, 62],
    belly: [226, 220, 204],
    pattern: 'plain',
    patternColour: [60, 52, 24],
    fin: [138, 114, 60],
    fork: 0.2,
    jaw: 0.11,
  },
};

export interface Fish {
  look: FishLook;
  /** Decides the individual pattern: the same seed is the same fish. */
  seed: number;
  lengthMm: number;
  /** Height of the body's axis across the face, mm. */
  axisYMm: number;
  /** How far the middle bows away from the straight line, share of the length. */
  bow: number;
  /** Height of the tail over the face, mm. */
  tailMm?: number;
  /** How far the nose lies from the stop, mm. */
  noseGapMm?: number;
  /** How far the jaws are apart at the nose, mm. */
  mouthGapMm?: number;
  /** The head lies at the far end, the tail at the stop. */
  isReversed?: boolean;
  /** The back lies towards the angler, the belly away. */
  isBackNear?: boolean;
  /** How far the fins of back and belly stand open, 0 to 1; 1 is usual. */
  finsOpen?: number;
  /** How high the end of the tail stands over the face, and how far it is bent sideways, mm. */
  curl?: { upMm: number; asideMm: number };
}

/** Places in board coordinates, mm: what lies at the stop, the far end, the eye, the hind edge of the gill cover. */
export interface FishTruth {
  nose: readonly [number, number, number];
  tail: readonly [number, number, number];
  eye: readonly [number, number];
  gill: readonly [number, number];
}

const BACK = curve([0, 0.01, 0.03, 0.036, 0.1, 0.066, 0.22, 0.108, 0.36, 0.13, 0.5, 0.122, 0.64, 0.086, 0.78, 0.048, 0.86, 0.043, 1, 0.043]); // prettier-ignore
const BELLY = curve([0, 0.012, 0.03, 0.034, 0.1, 0.068, 0.22, 0.106, 0.36, 0.126, 0.5, 0.118, 0.64, 0.082, 0.78, 0.044, 0.86, 0.04, 1, 0.04]); // prettier-ignore
const THICK = curve([0, 0.05, 0.08, 0.088, 0.22, 0.122, 0.4, 0.128, 0.6, 0.09, 0.78, 0.044, 0.86, 0.024, 1, 0.008]); // prettier-ignore

const BODY_END = 0.88;
const TAIL_HEIGHT_MM = 2;

/** Where a fish lies: its own coordinates (mm from the nose towards the tail, mm from the axis towards the belly) for places of the board. */
class FishFrame {
  private readonly fish: Fish;
  private readonly noseMm: number;

  constructor(fish: Fish) {
    this.fish = fish;
    const gapMm = fish.noseGapMm ?? 0;
    this.noseMm = fish.isReversed ? gapMm + fish.lengthMm : gapMm;
  }

  axisAt(s: number): number {
    const { axisYMm, bow, lengthMm, curl } = this.fish;
    const aside = curl ? curl.asideMm * smoothstep(0.6, 1, s) * Math.max(0, s - 0.6) * 2.5 : 0;
    return axisYMm + bow * lengthMm * Math.sin(Math.PI * clamp(s, 0, 1)) + aside;
  }

  /** Place on the board of a share of the length and a distance from the axis, mm. */
  place(s: number, acrossMm: number): [number, number] {
    const { lengthMm, isReversed, isBackNear } = this.fish;
    const x = this.noseMm + (isReversed ? -1 : 1) * s * lengthMm;
    return [x, this.axisAt(s) + (isBackNear ? -1 : 1) * acrossMm];
  }

  /** Shares of the length along the fish and across it, of a place of the board. */
  shares(xMm: number, yMm: number): [number, number] {
    const { lengthMm, isReversed, isBackNear } = this.fish;
    const s = ((isReversed ? -1 : 1) * (xMm - this.noseMm)) / lengthMm;
    return [s, ((isBackNear ? -1 : 1) * (yMm - this.axisAt(s))) / lengthMm];
  }

  /** Visits the cells between two shares of the length, within a share of it about the axis; `across` is in shares too. */
  visit(
    relief: Relief,
    fromS: number,
    toS: number,
    reach: number,
    paint: (cell: number, s: number, across: number) => void,
  ): void {
    const { lengthMm, axisYMm, curl } = this.fish;
    const ends = [this.place(fromS, 0)[0], this.place(toS, 0)[0]];
    const asideMm = Math.abs(curl?.asideMm ?? 0);
    relief.visit(
      Math.min(...ends),
      axisYMm - reach * lengthMm - asideMm,
      Math.max(...ends),
      axisYMm + reach * lengthMm + asideMm,
      (cell, x, y) => {
        const [s, across] = this.shares(x, y);
        if (s >= fromS && s <= toS) paint(cell, s, across);
      },
    );
  }
}

/** The upper jaw opens by so much of the gap, the lower by the rest. */
const UPPER_JAW_SHARE = 0.3;
const CAVITY: Rgb = [96, 34, 30];

/** Where a place of an open mouth lies when it is shut; null inside of the mouth. */
function shutMouth({ look, lengthMm, mouthGapMm = 0 }: Fish, s: number, across: number): number | null {
  if (mouthGapMm <= 0 || s >= look.jaw || s < 0) return across;
  const line = mouthLine(s);
  const open = ((mouthGapMm / lengthMm) * (look.jaw - s)) / look.jaw;
  const upper = UPPER_JAW_SHARE * open;
  const lower = open - upper;
  if (across < line - upper) return across + upper;
  if (across > line + lower) return across - lower;
  return null;
}

function mouthLine(s: number): number {
  return 0.004 + 0.2 * s;
}

/** Lays a fish onto the relief: by default head at the stop, left flank up, belly towards the angler. */
export function layFish(relief: Relief, fish: Fish): FishTruth {
  const { look, lengthMm } = fish;
  const tailMm = fish.tailMm ?? TAIL_HEIGHT_MM;
  const noise = makeNoise(fish.seed);
  const frame = new FishFrame(fish);
  const tip = tailTip(look, noise);
  const thickness = look.thickness ?? 1;
  layFins(relief, fish, noise, frame, tip.reach);
  frame.visit(relief, 0, BODY_END, 0.4, (cell, s, seen) => {
    const shut = shutMouth(fish, s, seen);
    const across = (shut ?? mouthLine(s)) * lengthMm;
    const half = (across < 0 ? BACK : BELLY)(tapered(look, s)) * look.depth * lengthMm;
    const v = across / half;
    if (Math.abs(v) >= 1) return;
    // The wrist of the tail runs out into the fin's rays, in a rounded end.
    const ending = smoothstep(0.8, BODY_END, s + 0.02 * v * v);
    if (ending >= 1) return;
    const thickMm = THICK(s) * thickness * lengthMm;
    if (shut === null) {
      const deep = 0.7 + 0.5 * noise(s * 90, seen * 90);
      relief.put(cell, 0.35 * thickMm, [CAVITY[0] * deep, CAVITY[1] * deep, CAVITY[2] * deep], 1, 0.3);
      return;
    }
    const round = 0.42 + 0.58 * Math.sqrt(1 - v * v) * (1 - 0.25 * Math.abs(v));
    const height = Math.max(tailMm, thickMm * round * (1 - ending));
    relief.put(
      cell,
      height,
      mix(bodyColour(look, noise, s, v, lengthMm), look.fin, 0.85 * ending),
      1,
      0.5 - 0.3 * ending,
    );
  });
  drawHead(relief, fish, frame);
  const [noseX, noseY] = frame.place(0, 0);
  const [tailX, tailY] = frame.place(1, tip.offset * lengthMm);
  const nose = [noseX, noseY, THICK(0) * thickness * lengthMm * 0.5] as const;
  const tail = [tailX, tailY, tailMm + (fish.curl?.upMm ?? 0)] as const;
  const eye = frame.place(EYE_AT, -0.026 * look.depth * lengthMm);
  const gill = frame.place(GILL_AT, 0.03 * lengthMm);
  // Read is whatever lies farther out.
  return fish.isReversed ? { nose: tail, tail: nose, eye, gill } : { nose, tail, eye, gill };
}

const EYE_AT = 0.098;
const GILL_AT = 0.26;

function tapered(look: FishLook, s: number): number {
  return look.taper === undefined ? s : Math.max(0, s) ** look.taper;
}

function bodyColour(look: FishLook, noise: Noise, s: number, v: number, lengthMm: number): Rgb {
  const shade = v + 0.35 * (noise(s * 30, v * 4) - 0.5);
  let colour = mix(look.back, look.flank, smoothstep(-0.75, -0.1, shade));
  colour = mix(colour, look.belly, smoothstep(0.12, 0.72, shade));
  colour = mix(colour, look.patternColour, patternShare(look, noise, s, v));
  const scale = Math.sin((s * lengthMm) / 1.1 + (v * 40 > 0 ? 0 : 1)) * Math.sin(v * lengthMm * 0.05);
  const grain = 1 + 0.06 * scale + 0.16 * (noise(s * 160, v * 40) - 0.5);
  return [colour[0] * grain, colour[1] * grain, colour[2] * grain];
}

/** Brightness (0-255) of a fish's own skin at shares of its length along and across: without light, place or camera. */
export function skinLuma(fish: Fish): (s: number, across: number) => number {
  const { look, lengthMm } = fish;
  const noise = makeNoise(fish.seed);
  return (s, across) => {
    const half = (across < 0 ? BACK : BELLY)(tapered(look, s)) * look.depth;
    const [r, g, b] = bodyColour(look, noise, s, across / half, lengthMm);
    return 0.3 * r + 0.6 * g + 0.1 * b;
  };
}

function patternShare(look: FishLook, noise: Noise, s: number, v: number): number {
  const behindGill = smoothstep(0.24, 0.3, s);
  switch (look.pattern) {
    case 'band': {
      const centre = -0.02 + 0.1 * Math.sin(s * 9);
      const width = 0.12 + 0.22 * noise(s * 42, 3);
      return (
        behindGill *
        0.85 *
        smoothstep(width + 0.1, width - 0.08, Math.abs(v - centre)) *
        smoothstep(0.3, 0.5, noise(s * 36, v * 5))
      );
    }
    case 'bars':
      return (
        behindGill * 0.75 * smoothstep(0.52, 0.66, noise(s * 44, v * 1.4 + 9)) * smoothstep(0.65, 0.2, v)
      );
    case 'spots':
      return behindGill * 0.85 * smoothstep(0.6, 0.68, noise(s * 70, v * 11 + 4)) * smoothstep(0.75, 0.35, v);
    case 'plain':
      return behindGill * 0.4 * smoothstep(0.5, 0.75, noise(s * 24, v * 3)) * smoothstep(0.4, -0.2, v);
  }
}

function drawHead(relief: Relief, fish: Fish, frame: FishFrame): void {
  const { look } = fish;
  const dark: Rgb = [30, 30, 24];
  const tint = (cell: number, colour: Rgb, share: number): void => {
    for (let channel = 0; channel < 3; channel++) {
      const at = cell * 3 + channel;
      const under = relief.colour[at];
      relief.colour[at] = under + (colour[channel] - under) * share;
    }
  };
  frame.visit(relief, 0, 0.34, 0.2, (cell, s, seen) => {
    if (relief.cover[cell] < 1) return;
    const d = shutMouth(fish, s, seen);
    if (d === null) return;
    // The closed mouth: a line from the nose back and down to the jaw's corner, with the lip below it.
    if (s < look.jaw) tint(cell, dark, 0.8 * smoothstep(0.0032, 0.0012, Math.abs(d - mouthLine(s))));
    // Gill cover: an arc behind the cheek, with a lighter plate before it.
    const gill = gillArc(look, s, d);
    tint(cell, dark, 0.6 * smoothstep(0.05, 0.015, Math.abs(gill - 1)) * smoothstep(0.1, 0.18, s));
    tint(cell, look.flank, 0.25 * smoothstep(1, 0.6, gill) * smoothstep(0.12, 0.2, s));
    // Eye.
    const eye = Math.hypot(s - EYE_AT, d + 0.026 * look.depth) / 0.0175;
    if (eye < 1.12) {
      tint(cell, dark, smoothstep(1.12, 1, eye));
      tint(cell, [196, 160, 62], smoothstep(0.98, 0.86, eye));
      tint(cell, [12, 12, 14], smoothstep(0.6, 0.5, eye));
      tint(
        cell,
        [235, 238, 240],
        smoothstep(0.2, 0.1, Math.hypot(s - 0.093, d + 0.031 * look.depth) / 0.0175),
      );
      relief.gloss[cell] = 1;
    }
  });
}

/** 1 on the gill cover's edge, less on it. */
function gillArc(look: FishLook, s: number, across: number): number {
  return Math.hypot((s - 0.13) / 0.135, (across - 0.005) / (0.1 * look.depth));
}

/** Whether a place of the board lies under the gill cover of a fish. */
export function isOnGillCover(fish: Fish, xMm: number, yMm: number): boolean {
  const [s, across] = new FishFrame(fish).shares(xMm, yMm);
  return s > 0 && gillArc(fish.look, s, across) < 1;
}

interface Fin {
  from: number;
  to: number;
  side: -1 | 1;
  heightAt: (t: number) => number;
  lean: number;
}

const FINS: readonly Fin[] = [
  {
    from: 0.34,
    to: 0.57,
    side: -1,
    heightAt: (t) => 0.052 * Math.sin(Math.PI * (0.15 + 0.75 * t)),
    lean: 0.3,
  },
  {
    from: 0.57,
    to: 0.74,
    side: -1,
    heightAt: (t) => 0.07 * Math.sin(Math.PI * (0.2 + 0.72 * t)),
    lean: 0.55,
  },
  {
    from: 0.62,
    to: 0.75,
    side: 1,
    heightAt: (t) => 0.066 * Math.sin(Math.PI * (0.15 + 0.75 * t)),
    lean: 0.6,
  },
  { from: 0.31, to: 0.39, side: 1, heightAt: (t) => 0.05 * Math.sin(Math.PI * (0.1 + 0.8 * t)), lean: 0.8 },
];

function layFins(relief: Relief, fish: Fish, noise: Noise, frame: FishFrame, reach: number): void {
  const { look, lengthMm, curl, finsOpen = 1 } = fish;
  const tailMm = fish.tailMm ?? TAIL_HEIGHT_MM;
  const rays = (phase: number): number => 0.82 + 0.18 * Math.sin(phase);
  const finColour = (light: number): Rgb => [look.fin[0] * light, look.fin[1] * light, look.fin[2] * light];
  for (const { from, to, side, heightAt, lean } of FINS) {
    frame.visit(relief, from, to + 0.08, 0.3, (cell, s, across) => {
      const edge = (side < 0 ? BACK : BELLY)(tapered(look, s)) * look.depth;
      const out = side * across - edge;
      const t = (s - lean * Math.max(0, out) - from) / (to - from);
      if (out < -0.01 || t < 0 || t > 1 || out > finsOpen * heightAt(t)) return;
      const light = rays(t * (to - from) * 520) * (1 - 3 * Math.max(0, out));
      relief.put(cell, 2.5, finColour(light), 0.9, 0.15);
    });
  }
  frame.visit(relief, TAIL_ROOT, 1 + 1 / lengthMm, 0.16, (cell, s, dy) => {
    const dx = s - TAIL_ROOT;
    const angle = Math.atan2(dy, dx);
    if (Math.abs(angle) > (look.tailSpreadRad ?? TAIL_SPREAD_RAD)) return;
    const insideMm = (tailRadius(angle, look, noise) * reach - Math.hypot(dx, dy)) * lengthMm;
    if (insideMm < 0) return;
    const light = rays(angle * 90) * (0.95 - 0.6 * dx) * (look.tail?.light ?? 1);
    const blotch = look.tailBlotched ? look.tailBlotched * smoothstep(0.5, 0.62, noise(dx * 60, dy * 60)) : 0;
    const upMm = curl ? curl.upMm * (dx / (1 - TAIL_ROOT)) ** 2 : 0;
    relief.put(
      cell,
      tailMm + upMm,
      mix(finColour(light), look.patternColour, blotch),
      tailCover(insideMm) * (1 - (look.tail?.clear ?? 0) * smoothstep(0.06, 0.14, dx)),
      0.15,
    );
  });
}

/** Piecewise smooth curve through x, y pairs. */
function curve(pairs: readonly number[]): (x: number) => number {
  return (x) => {
    let i = 0;
    while (i + 3 < pairs.length && pairs[i + 2] <= x) i += 2;
    const [x0, y0, x1, y1] = [pairs[i], pairs[i + 1], pairs[i + 2] ?? pairs[i], pairs[i + 3] ?? pairs[i + 1]];
    if (x1 === x0) return y1;
    const t = clamp((x - x0) / (x1 - x0), 0, 1);
    // Between straight and eased: no kinks to see, no overshoot.
    return y0 + (y1 - y0) * (0.5 * t + 0.5 * t * t * (3 - 2 * t));
  };
}

/** A fish's outward variation from its seed: bow and place across the face. */
export function poseFish(seed: number, widthMm: number): Pick<Fish, 'axisYMm' | 'bow'> {
  const dice = rollDice(seed);
  return { axisYMm: widthMm * dice.between(0.47, 0.53), bow: dice.between(-0.012, 0.012) };
}
