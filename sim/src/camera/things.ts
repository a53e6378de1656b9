import { makeNoise } from './noise.ts';
import type { Rgb } from './rgb.ts';
import type { Relief } from './relief.ts';

/** A rounded stick between two places of the board, mm; its ends may differ in thickness. */
export interface Capsule {
  from: readonly [number, number];
  to: readonly [number, number];
  radiusFromMm: number;
  radiusToMm: number;
}

/** Something that lies on board and fish: a tool, a lure, a cord. */
export interface Thing {
  parts: readonly Capsule[];
  colour: Rgb;
  gloss: number;
}

export function layThing(relief: Relief, { parts, colour, gloss }: Thing, seed: number): void {
  const noise = makeNoise(seed);
  const under = relief.height.slice();
  for (const part of parts) {
    layCapsule(relief, under, part, gloss, (x, y) => {
      const light = 0.92 + 0.16 * noise(x / 5, y / 5);
      return [colour[0] * light, colour[1] * light, colour[2] * light];
    });
  }
}

/**
 * Lays a capsule on what is under it.
 * @param colourAt colour by place and by share of the way along the capsule; null where it is hidden
 */
export function layCapsule(
  relief: Relief,
  under: Float32Array,
  part: Capsule,
  gloss: number,
  colourAt: (x: number, y: number, along: number) => Rgb | null,
): void {
  const { from, to } = part;
  const reach = Math.max(part.radiusFromMm, part.radiusToMm);
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const length2 = Math.max(1e-6, dx * dx + dy * dy);
  relief.visit(
    Math.min(from[0], to[0]) - reach,
    Math.min(from[1], to[1]) - reach,
    Math.max(from[0], to[0]) + reach,
    Math.max(from[1], to[1]) + reach,
    (cell, x, y) => {
      const t = Math.min(1, Math.max(0, ((x - from[0]) * dx + (y - from[1]) * dy) / length2));
      const radius = part.radiusFromMm + (part.radiusToMm - part.radiusFromMm) * t;
      const off = Math.hypot(x - from[0] - t * dx, y - from[1] - t * dy);
      if (off >= radius) return;
      const height = under[cell] * 0.85 + radius + Math.sqrt(radius * radius - off * off) * 0.9;
      if (height <= relief.height[cell]) return;
      const colour = colourAt(x, y, t);
      if (colour) relief.put(cell, height, colour, 1, gloss);
    },
  );
}
