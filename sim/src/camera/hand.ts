import { rollDice } from './dice.ts';
import { makeNoise } from './noise.ts';
import type { Rgb } from './rgb.ts';
import type { Relief } from './relief.ts';
import { layCapsule, type Capsule } from './things.ts';

export const SKIN: readonly Rgb[] = [[224, 178, 148], [198, 146, 112], [158, 108, 78], [112, 74, 54], [236, 194, 170], [52, 60, 68]]; // prettier-ignore

export interface PlacedHand {
  seed: number;
  xMm: number;
  /** Skin or glove; by default drawn from the seed. */
  tone?: Rgb;
  /** How far across the face the fingers reach, mm; by default a little beyond the fish's axis. */
  reachYMm?: number;
  /** Whether a place lies under something: a finger in the gills ends at the cover's edge. */
  isUnder?: (xMm: number, yMm: number) => boolean;
}

/** A hand from the angler's side, fingers over the body behind the gill cover. The last of the tones is a glove. */
export function layHand(relief: Relief, hand: PlacedHand, usualReachYMm: number, edgeYMm: number): void {
  const { seed, xMm, reachYMm = usualReachYMm } = hand;
  const dice = rollDice(seed);
  const drawn = dice.pick(SKIN);
  const tone = hand.tone ?? drawn;
  const noise = makeNoise(seed);
  const wrist: readonly [number, number] = [xMm + dice.between(6, 30), edgeYMm + 60];
  const parts: Capsule[] = [];
  for (let finger = 0; finger < 4; finger++) {
    const x = xMm - 30 + finger * 19;
    const tipY = reachYMm + ([8, 0, 2, 13][finger] ?? 0) + dice.between(-3, 3);
    const knuckle: readonly [number, number] = [wrist[0] - 26 + finger * 17, edgeYMm - 4];
    parts.push({ from: [x, tipY], to: knuckle, radiusFromMm: 7.5, radiusToMm: 9.5 });
    parts.push({
      from: knuckle,
      to: [wrist[0] - 14 + finger * 9, wrist[1]],
      radiusFromMm: 10.5,
      radiusToMm: 13,
    });
  }
  parts.push({
    from: [xMm + 62, edgeYMm - 22],
    to: [wrist[0] + 16, wrist[1] - 14],
    radiusFromMm: 8.5,
    radiusToMm: 12,
  });
  parts.push({
    from: wrist,
    to: [wrist[0] + dice.between(-10, 50), relief.y1Mm + 60],
    radiusFromMm: 25,
    radiusToMm: 32,
  });
  const under = relief.height.slice();
  for (const part of parts) {
    layCapsule(relief, under, part, 0.18, (x, y, along) => {
      if (hand.isUnder?.(x, y)) return null;
      const light = 0.93 + 0.16 * (noise(x / 6, y / 6) - 0.5) - 0.1 * Math.max(0, 0.12 - along);
      return [tone[0] * light, tone[1] * light * 0.99, tone[2] * light * 0.98];
    });
  }
}
