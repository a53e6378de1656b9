import type { Raster } from '@lauta/vision';
import { rollDice, seedFor, type Dice } from '../camera/dice.ts';
import { FISH_LOOKS, layFish } from '../camera/fish.ts';
import { SKIN } from '../camera/hand.ts';
import { makeNoise } from '../camera/noise.ts';
import { clamp, mix, smoothstep, type Rgb } from '../camera/rgb.ts';
import { Relief } from '../camera/relief.ts';

/** What can be wrong in a picture of a person with a fish, or of a fish in the water. */
export const PORTRAIT_FAULTS = {
  held: ['hand-over-flank', 'arms-out', 'dirt'],
  water: ['hand-over-flank', 'glare', 'water-line', 'fins-folded', 'dirt'],
} as const;
export type PortraitFault = (typeof PORTRAIT_FAULTS)['held' | 'water'][number];

export interface PortraitWish {
  kind: 'held' | 'water';
  fault: PortraitFault | null;
  /** By default drawn from the seed. */
  look?: string;
  widthPx?: number;
  heightPx?: number;
}

export interface Portrait {
  raster: Raster;
  /** Where nose and tail lie, px. */
  nosePx: readonly [number, number];
  tailPx: readonly [number, number];
}

type Noise = (x: number, y: number) => number;
/** A colour with how much of it covers what is behind. */
type Layer = (x: number, y: number, under: Rgb) => Rgb;

/** Breadths of an adult's face and hand, mm (from memory of anthropometric tables: about 140 and 88). */
const FACE_MM = 140;
const HAND_MM = 88;
/** How much nearer than the face the fish is held, as the ratio of their scales. */
const HELD_NEAR = [1.12, 1.26] as const;
const HELD_OUT = [1.62, 1.85] as const;
/** The last tone of the hands is a glove. */
const BARE = SKIN.slice(0, -1);
const SHIRTS: readonly Rgb[] = [[52, 84, 120], [186, 62, 44], [92, 98, 88], [214, 210, 200], [60, 110, 76], [40, 42, 50], [222, 132, 40]]; // prettier-ignore

/** Draws a portrait as a camera would take it. Pure: the same seed and wish give the same pixels. */
export function drawPortrait(seed: number, wish: PortraitWish): Portrait {
  const { kind, fault, widthPx = 960, heightPx = 720 } = wish;
  const dice = rollDice(seedFor(seed, `portrait ${kind}`));
  const noise = makeNoise(seedFor(seed, 'portrait noise'));
  const look = FISH_LOOKS[wish.look ?? dice.pick(Object.keys(FISH_LOOKS))];
  if (!look) throw new RangeError(`look: expected a known one, got ${wish.look}`);
  const lengthMm = dice.between(320, 520);
  const share = kind === 'held' ? dice.between(0.46, 0.62) : dice.between(0.56, 0.74);
  const pxPerMm = (share * widthPx) / lengthMm;
  const turnRad = dice.between(-0.11, 0.11);
  const centre: [number, number] = [
    widthPx * dice.between(0.47, 0.53),
    heightPx * (kind === 'held' ? dice.between(0.57, 0.63) : dice.between(0.47, 0.55)),
  ];
  const [cos, sin] = [Math.cos(turnRad), Math.sin(turnRad)];
  /** Places of the picture in mm along the fish from its nose and across it from its axis. */
  const onFish = (x: number, y: number): [number, number] => {
    const [u, v] = [(x - centre[0]) / pxPerMm, (y - centre[1]) / pxPerMm];
    return [u * cos + v * sin + lengthMm / 2, v * cos - u * sin];
  };
  const inPicture = (along: number, across: number): [number, number] => {
    const [u, v] = [along - lengthMm / 2, across];
    return [centre[0] + pxPerMm * (u * cos - v * sin), centre[1] + pxPerMm * (u * sin + v * cos)];
  };
  const tone = dice.pick(BARE);
  const layers: Layer[] =
    kind === 'held'
      ? [
          landscape(dice, noise, widthPx, heightPx),
          person(dice, noise, { pxPerMm, fault, centre, heightPx, skin: tone }),
        ]
      : [waterGround(dice, noise)];
  layers.push(
    fishLayer(onFish, { look, lengthMm, dice, fault, kind, seed }),
    ...(fault === 'dirt' ? [dirt(dice, onFish, lengthMm)] : []),
    ...(fault === 'glare' ? [glare(dice, noise, onFish, lengthMm)] : []),
    ...(fault === 'water-line' ? [waterLine(dice, noise, onFish, lengthMm)] : []),
    hands(dice, noise, { onFish, lengthMm, depth: look.depth, kind, fault, tone }),
  );
  const data = new Uint8ClampedArray(4 * widthPx * heightPx);
  const light = dice.between(0.86, 1.1);
  let at = 0;
  for (let y = 0; y < heightPx; y++) {
    for (let x = 0; x < widthPx; x++) {
      let colour: Rgb = [0, 0, 0];
      for (const layer of layers) colour = layer(x, y, colour);
      for (let channel = 0; channel < 3; channel++)
        data[at++] = light * colour[channel] + 5 * (dice.next() - 0.5);
      data[at++] = 255;
    }
  }
  return { raster: { widthPx, heightPx, data }, nosePx: inPicture(0, 0), tailPx: inPicture(lengthMm, 0) };
}

function landscape(dice: Dice, noise: Noise, widthPx: number, heightPx: number): Layer {
  const horizon = heightPx * dice.between(0.2, 0.36);
  const sky = dice.pick<Rgb>([[196, 208, 218], [150, 178, 206], [212, 206, 196]]); // prettier-ignore
  const bank = dice.pick<Rgb>([[70, 86, 52], [98, 96, 62], [58, 74, 66]]); // prettier-ignore
  const water = dice.pick<Rgb>([[92, 108, 112], [70, 90, 100], [116, 122, 112]]); // prettier-ignore
  return (x, y) => {
    if (y < horizon - 34) return mix(sky, [236, 238, 238], smoothstep(0, horizon, y));
    if (y < horizon + 10 * noise(x / 40, 3) - 4) {
      const deep = 0.6 + 0.6 * noise(x / 9, y / 9);
      return [bank[0] * deep, bank[1] * deep, bank[2] * deep];
    }
    const ripple = 0.84 + 0.32 * noise(x / 46, y / 5 + widthPx);
    return [water[0] * ripple, water[1] * ripple, water[2] * ripple];
  };
}

function waterGround(dice: Dice, noise: Noise): Layer {
  const deep = dice.pick<Rgb>([[52, 62, 48], [58, 66, 72], [74, 66, 46]]); // prettier-ignore
  const sky = dice.between(0.1, 0.3);
  return (x, y) => {
    const ripple = noise(x / 70, y / 16);
    return mix([deep[0] * (0.7 + 0.6 * ripple), deep[1] * (0.7 + 0.6 * ripple), deep[2] * (0.7 + 0.6 * ripple)], [190, 204, 214], sky * smoothstep(0.55, 0.75, noise(x / 90 + 40, y / 12))); // prettier-ignore
  };
}

/** Behind the fish: torso, head under a cap, sleeves down to the hands. */
function person(
  dice: Dice,
  noise: Noise,
  {
    pxPerMm,
    fault,
    centre,
    heightPx,
    skin,
  }: {
    pxPerMm: number;
    fault: PortraitFault | null;
    centre: readonly [number, number];
    heightPx: number;
    skin: Rgb;
  },
): Layer {
  const [least, most] = fault === 'arms-out' ? HELD_OUT : HELD_NEAR;
  const nearer = dice.between(least, most);
  const scale = pxPerMm / nearer;
  const x0 = centre[0] + dice.between(-20, 20);
  const faceY = Math.max(0.62 * FACE_MM * scale + 8, centre[1] - dice.between(330, 390) * scale);
  const shirt = dice.pick(SHIRTS);
  const cap = dice.pick(SHIRTS);
  const [rx, ry] = [0.5 * FACE_MM * scale, 0.66 * FACE_MM * scale];
  return (x, y, under) => {
    const cloth = (colour: Rgb): Rgb => {
      const fold = 0.8 + 0.4 * noise(x / 34, y / 52);
      return [colour[0] * fold, colour[1] * fold, colour[2] * fold];
    };
    const [dx, dy] = [(x - x0) / rx, (y - faceY) / ry];
    if (dx * dx + dy * dy < 1) {
      if (dy < -0.38) return cloth(cap);
      // Eyes, mouth and a shadow under the cap: a face is no even patch.
      const shade =
        0.9 +
        0.16 * noise(x / 12, y / 12) -
        0.3 * smoothstep(-0.1, -0.4, dy) -
        0.4 * smoothstep(0.14, 0.08, Math.hypot(Math.abs(dx) - 0.36, 1.3 * (dy + 0.08))) -
        0.25 * smoothstep(0.1, 0.04, Math.abs(dy - 0.5)) * smoothstep(0.4, 0.3, Math.abs(dx));
      return [skin[0] * shade, skin[1] * shade, skin[2] * shade];
    }
    if (dy < -0.38 && dy > -0.6 && Math.abs(dx) < 1.15) return cloth(cap);
    const shoulder = faceY + 1.15 * ry;
    const half = 220 * scale * smoothstep(0, 0.5, (y - shoulder) / (130 * scale)) ** 0.4;
    if (y > shoulder - 4 && Math.abs(x - x0) < half && y < heightPx) return cloth(shirt);
    if (Math.abs(x - x0) < 0.4 * rx && y > faceY && y <= shoulder) return [0.8 * skin[0], 0.78 * skin[1], 0.76 * skin[2]]; // prettier-ignore
    return under;
  };
}

function fishLayer(
  onFish: (x: number, y: number) => [number, number],
  {
    look,
    lengthMm,
    dice,
    fault,
    kind,
    seed,
  }: {
    look: (typeof FISH_LOOKS)[string];
    lengthMm: number;
    dice: Dice;
    fault: PortraitFault | null;
    kind: 'held' | 'water';
    seed: number;
  },
): Layer {
  const reach = 0.36 * lengthMm;
  const relief = new Relief(-6, -reach, lengthMm + 6, reach, 1.4);
  const finsOpen = fault === 'fins-folded' ? 0.12 : kind === 'water' ? 1.25 : dice.between(0.2, 1);
  layFish(relief, { look, seed: seedFor(seed, 'fish'), lengthMm, axisYMm: 0, bow: dice.between(-0.012, 0.02), finsOpen }); // prettier-ignore
  const sun = dice.between(-0.5, 0.2);
  return (x, y, under) => {
    const [along, across] = onFish(x, y);
    const column = Math.floor((along - relief.x0Mm) * relief.cellsPerMm);
    const row = Math.floor((across - relief.y0Mm) * relief.cellsPerMm);
    if (column < 0 || row < 0 || column >= relief.columns || row >= relief.rows) return under;
    const cell = row * relief.columns + column;
    const cover = relief.cover[cell];
    if (cover === 0) return under;
    const round = 1 + 0.14 * clamp(sun - across / (0.13 * lengthMm), -1, 1);
    const [r, g, b] = [0, 1, 2].map((channel) => relief.colour[cell * 3 + channel] * round) as [number, number, number]; // prettier-ignore
    // A wet flank shines a little along its ridge, and that is no glare.
    const shine = 0.3 * smoothstep(0.02, 0, Math.abs(across / lengthMm + 0.05)) * smoothstep(0.2, 0.4, along / lengthMm) * smoothstep(0.75, 0.55, along / lengthMm); // prettier-ignore
    return mix(under, mix([r, g, b], [232, 236, 238], shine), cover);
  };
}

/** Within the body, not on the fins: shares of the length and of half the body's height there. */
function onBody(along: number, across: number, lengthMm: number): boolean {
  const s = along / lengthMm;
  return s > 0.12 && s < 0.76 && Math.abs(across) < lengthMm * 0.115 * Math.sin(Math.PI * clamp(0.2 + 0.8 * s, 0, 1)); // prettier-ignore
}

function dirt(dice: Dice, onFish: (x: number, y: number) => [number, number], lengthMm: number): Layer {
  const flecks = Array.from({ length: dice.whole(16, 30) }, () => {
    const isGrass = dice.chance(0.35);
    return {
      at: [dice.between(0.15, 0.74) * lengthMm, dice.between(-0.09, 0.09) * lengthMm] as const,
      long: isGrass ? dice.between(14, 34) : dice.between(3, 9),
      thick: isGrass ? dice.between(1.2, 2) : dice.between(2.5, 7),
      turn: dice.between(0, Math.PI),
      colour: dice.pick<Rgb>(isGrass ? [[96, 158, 44]] : [[84, 60, 38], [112, 84, 58], [64, 46, 34]]), // prettier-ignore
    };
  });
  return (x, y, under) => {
    const [along, across] = onFish(x, y);
    if (!onBody(along, across, lengthMm)) return under;
    let colour = under;
    for (const { at, long, thick, turn, colour: own } of flecks) {
      const [dx, dy] = [along - at[0], across - at[1]];
      const u = (dx * Math.cos(turn) + dy * Math.sin(turn)) / long;
      const v = (dy * Math.cos(turn) - dx * Math.sin(turn)) / thick;
      colour = mix(colour, own, 0.95 * smoothstep(1.1, 0.8, Math.hypot(u, v)));
    }
    return colour;
  };
}

/** The sky in the flank: patches that leave no drawing. */
function glare(
  dice: Dice,
  noise: Noise,
  onFish: (x: number, y: number) => [number, number],
  lengthMm: number,
): Layer {
  const patches = Array.from({ length: dice.whole(2, 4) }, () => ({
    s: dice.between(0.22, 0.66),
    across: dice.between(-0.06, 0.03),
    long: dice.between(0.07, 0.14),
    high: dice.between(0.022, 0.045),
  }));
  return (x, y, under) => {
    const [along, across] = onFish(x, y);
    if (!onBody(along, across, lengthMm)) return under;
    let share = 0;
    for (const patch of patches) {
      const far = Math.hypot((along / lengthMm - patch.s) / patch.long, (across / lengthMm - patch.across) / patch.high); // prettier-ignore
      share = Math.max(share, smoothstep(1.15, 0.8, far + 0.6 * (noise(x / 14, y / 8) - 0.5)));
    }
    return mix(under, [320, 320, 320], share);
  };
}

/** A fish half out of the water: a white line where the surface meets it, and murk below. */
function waterLine(
  dice: Dice,
  noise: Noise,
  onFish: (x: number, y: number) => [number, number],
  lengthMm: number,
): Layer {
  const level = dice.between(-0.015, 0.05) * lengthMm;
  const thickMm = dice.between(3.5, 7);
  return (x, y, under) => {
    const [along, across] = onFish(x, y);
    const wave = level + 0.02 * lengthMm * (noise(along / 46, 7) - 0.5);
    const below = mix(under, [98, 104, 82], 0.42 * smoothstep(0, 4, across - wave));
    if (along < -0.08 * lengthMm || along > 1.08 * lengthMm) return below;
    const band = smoothstep(thickMm, 0.6 * thickMm, Math.abs(across - wave) * 2);
    return mix(below, [248, 250, 252], 0.95 * band * smoothstep(0.12, 0.28, noise(along / 20, 19)));
  };
}

/** The two hands that hold it: at the jaw and under the belly, or across the flank. */
function hands(
  dice: Dice,
  noise: Noise,
  {
    onFish,
    lengthMm,
    depth,
    kind,
    fault,
    tone,
  }: {
    onFish: (x: number, y: number) => [number, number];
    lengthMm: number;
    depth: number;
    kind: 'held' | 'water';
    fault: PortraitFault | null;
    tone: Rgb;
  },
): Layer {
  const belly = 0.115 * depth * lengthMm;
  const isAcross = fault === 'hand-over-flank';
  const finger = HAND_MM / 8;
  const parts: { from: readonly [number, number]; to: readonly [number, number]; radius: number }[] = [];
  const wrist: [number, number] = [dice.between(0.5, 0.62) * lengthMm, belly + 85];
  const tip = isAcross ? -dice.between(0.35, 0.8) * belly : dice.between(0.55, 0.8) * belly;
  for (let i = 0; i < 4; i++) {
    const x = wrist[0] + (i - 1.5) * 2.1 * finger;
    parts.push({ from: [x + dice.between(-3, 3), tip + dice.between(-3, 5)], to: [x, belly + 30], radius: 0.95 * finger }); // prettier-ignore
  }
  parts.push({ from: [wrist[0] - 20, belly + 38], to: [wrist[0] + 20, belly + 38], radius: 0.36 * HAND_MM });
  parts.push({ from: wrist, to: [wrist[0] + dice.between(40, 110), belly + 330], radius: 0.38 * HAND_MM });
  if (kind === 'held') {
    const jaw: [number, number] = [dice.between(-8, 6), dice.between(14, 24)];
    parts.push({ from: [jaw[0] + 26, jaw[1] + 4], to: [jaw[0] - 30, jaw[1] + 30], radius: finger });
    parts.push({ from: [jaw[0] - 26, jaw[1] + 30], to: [jaw[0] - 34, jaw[1] + 66], radius: 0.44 * HAND_MM });
    parts.push({ from: [jaw[0] - 34, jaw[1] + 66], to: [jaw[0] - 70, jaw[1] + 330], radius: 0.38 * HAND_MM });
  }
  return (x, y, under) => {
    const [along, across] = onFish(x, y);
    let inside = -Infinity;
    for (const { from, to, radius } of parts) {
      const [ex, ey] = [to[0] - from[0], to[1] - from[1]];
      const t = clamp(((along - from[0]) * ex + (across - from[1]) * ey) / (ex * ex + ey * ey), 0, 1);
      const far = Math.hypot(along - from[0] - t * ex, across - from[1] - t * ey);
      inside = Math.max(inside, 1 - far / radius);
    }
    if (inside <= 0) return under;
    const shade = 0.72 + 0.34 * Math.min(1, 2.2 * inside) ** 0.5 + 0.1 * (noise(x / 7, y / 7) - 0.5);
    return mix(under, [tone[0] * shade, tone[1] * shade, tone[2] * shade], smoothstep(0, 0.08, inside));
  };
}
