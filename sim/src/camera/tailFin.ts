import { clamp, smoothstep } from './rgb.ts';

/** Smooth random heights in [0, 1] over a plane. */
export type Noise = (x: number, y: number) => number;

/** How a tail fin is cut. */
export interface TailFin {
  fork: number;
  /** Half the angle of the tail's fan. */
  tailSpreadRad?: number;
  /** What has become of the plain fan; by default nothing. */
  tail?: TailShape;
}

/** What has become of a tail's plain fan. Angles run from the axis, the back's side negative. */
export interface TailShape {
  /** Length of the upper and of the lower lobe, shares of the fan's. */
  lobes: readonly [number, number];
  /** Pieces that are missing: where, how wide (radians), and which share of the fan they take. */
  tears: readonly { atRad: number; wideRad: number; deep: number }[];
  /** How ragged the edge is: shares of the fan. */
  ragged: number;
  /** How much of what lies below shows through. */
  clear: number;
  /** The fin's light, as a share of its colour's. */
  light: number;
}

/** Where the fin begins, as a share of the length. */
export const TAIL_ROOT = 0.8;
export const TAIL_SPREAD_RAD = 0.56;

/** A fin thins out over its last millimetre. */
export function tailCover(insideMm: number): number {
  return 0.1 + 0.86 * smoothstep(0, 1, insideMm);
}

/** The caudal fin's edge, before it is scaled so that its farthest point lies at exactly the total length. */
export function tailRadius(angle: number, look: TailFin, noise: Noise): number {
  const { fork, tailSpreadRad = TAIL_SPREAD_RAD, tail } = look;
  const t = Math.abs(angle) / tailSpreadRad;
  const notch = 1 - fork * (0.5 + 0.5 * Math.cos(Math.PI * Math.min(1, t * 1.35)));
  const plain = notch * Math.sqrt(clamp((1 - t) / 0.16, 0, 1)) ** 0.6;
  return tail ? plain * shareLeft(angle, tailSpreadRad, tail, noise) : plain;
}

function shareLeft(
  angle: number,
  spreadRad: number,
  { lobes, tears, ragged }: TailShape,
  noise: Noise,
): number {
  const [upper, lower] = lobes;
  let share = upper + (lower - upper) * smoothstep(-0.4 * spreadRad, 0.4 * spreadRad, angle);
  for (const { atRad, wideRad, deep } of tears)
    share *= 1 - deep * Math.exp(-(((angle - atRad) / wideRad) ** 4));
  return share * (1 - ragged * noise(60 + angle * 70, 3));
}

/** Where the fin reaches farthest: its scale and its place across, in shares of the length. */
export function tailTip(look: TailFin, noise: Noise): { reach: number; offset: number } {
  let farthest = 0;
  let at = 0;
  const spreadRad = look.tailSpreadRad ?? TAIL_SPREAD_RAD;
  // A plain fan's lobes are alike: the back's is told.
  for (let angle = look.tail ? -spreadRad : 0; angle <= spreadRad; angle += 0.0005) {
    const x = tailRadius(angle, look, noise) * Math.cos(angle);
    if (x > farthest) [farthest, at] = [x, angle];
  }
  const reach = (1 - TAIL_ROOT) / farthest;
  const offset = reach * tailRadius(at, look, noise) * Math.sin(at);
  return { reach, offset: look.tail ? offset : -offset };
}
