import type { Identifier } from '@lauta/core/identifier';
import { faceLengthMm, type MeasuringBoard } from '@lauta/vision';
import { rollDice, seedFor, type Dice } from './dice.ts';
import { FISH_LOOKS, poseFish, type FishLook } from './fish.ts';
import { mix, type Rgb } from './rgb.ts';
import { withFault } from './faults.ts';
import type { PhotoFault } from './photoFault.ts';
import type { RangedScene } from './rangedScene.ts';
import { aimCamera, GROUNDS, placeCard, type Clutter, type Light, type Scene } from './scene.ts';

/** What a drawn scene must have; all else comes from its seed. */
export interface RangeWish {
  boards: readonly MeasuringBoard[];
  widthPx?: number;
  heightPx?: number;
  maxTiltDeg?: number;
  fish?: boolean;
  /** The one thing that is wrong with it; none by default. */
  fault?: PhotoFault;
  /** The seed of another scene whose fish lies here again: in another pose and light, on any of the boards. */
  fishOf?: number;
}

/**
 * Draws a scene from wide ranges: boards turned up to 20° (and half round), tilts up to 40°, lenses of 60 to 95°
 * with barrel or cushion distortion, skin and gloves, outlines and patterns of fish, grounds, sun, cloud and hard
 * shadow, drops, blur, noise.
 */
export function drawRangedScene(seed: number, wish: RangeWish): RangedScene {
  const dice = rollDice(seedFor(seed, 'range'));
  const widthPx = wish.widthPx ?? 2016;
  const heightPx = wish.heightPx ?? 1512;
  const board = dice.pick(wish.boards);
  const own = wish.fishOf ?? seed;
  const look = drawLook(rollDice(seedFor(own, 'look')));
  const lengthMm =
    wish.fishOf === undefined
      ? dice.between(0.36 * faceLengthMm(board), longestMm(board, look))
      : twinLengthMm(wish.fishOf, wish.boards, look);
  const identifier: Identifier = {
    eventCode: 'K7Q4M',
    entrantNumber: dice.whole(101, 999),
    code: Array.from({ length: 4 }, () => dice.pick([...'ABCDEFGHJKMNPQRSTVWXYZ0123456789'])).join(''),
  };
  const hasHand = dice.chance(0.45);
  const hasFish = wish.fish ?? true;
  const light = drawRangedLight(rollDice(seedFor(seed, 'light')), board);
  const scene: Scene = {
    seed,
    board,
    fish: hasFish
      ? {
          look,
          seed: seedFor(own, 'fish'),
          lengthMm,
          ...poseFish(seedFor(seed, 'pose'), board.widthMm),
          tailMm: dice.between(1, 3),
        }
      : null,
    hand:
      hasHand && hasFish
        ? { seed: seedFor(seed, 'hand'), xMm: lengthMm * dice.between(0.3, 0.66), tone: drawTone(dice) }
        : null,
    card: dice.chance(0.85) ? placeCard(seed, identifier, board, lengthMm) : null,
    camera: drawCamera(rollDice(seedFor(seed, 'camera')), board, widthPx, heightPx, wish.maxTiltDeg ?? 40),
    light,
    ground: dice.pick(GROUNDS),
    noiseLevel: dice.between(0.8, 4),
    blurPx: dice.chance(0.6) ? dice.between(0.4, 1.1) : 0,
    // The phone sets its exposure by the light, more or less.
    exposure:
      dice.between(0.7, 1.15) /
      (light.skyStrength + light.sunStrength * light.sun[2] * (light.shade ? 0.7 : 1)),
    wear: dice.between(0.6, 3),
    wet: dice.chance(0.6)
      ? { shine: dice.next() ** 2, drops: dice.whole(0, 120), seed: seedFor(seed, 'drops') }
      : null,
    clutter: drawClutter(rollDice(seedFor(seed, 'clutter')), board),
  };
  const ranged = {
    scene,
    jpegQuality: dice.whole(70, 95),
    hasHand,
    expected: identifier,
    claimedBoard: board,
  };
  if (!wish.fault) return ranged;
  return { ...withFault(ranged, wish.fault, rollDice(seedFor(seed, 'fault'))), fault: wish.fault };
}

/** A deep fish is not so long that it hides the whole board. */
function longestMm(board: MeasuringBoard, look: FishLook): number {
  return Math.min(0.85 * faceLengthMm(board), board.widthMm / (0.25 * look.depth));
}

/** A fish that is photographed twice fits each board; it is the same length wherever it lies. */
function twinLengthMm(fishSeed: number, boards: readonly MeasuringBoard[], look: FishLook): number {
  const most = Math.min(...boards.map((board) => longestMm(board, look)));
  const least = Math.max(...boards.map((board) => 0.36 * faceLengthMm(board)));
  return rollDice(seedFor(fishSeed, 'length')).between(Math.min(least, 0.8 * most), most);
}

/** Tools and lures on the ground about the board. */
function drawClutter(dice: Dice, board: MeasuringBoard): Clutter[] {
  const lengthMm = faceLengthMm(board);
  return Array.from({ length: dice.whole(0, 3) }, (): Clutter => {
    const x = dice.between(-0.1, 1.1) * lengthMm;
    const y = dice.chance(0.5) ? dice.between(-220, -70) : board.widthMm + dice.between(60, 260);
    const turn = dice.between(0, 2 * Math.PI);
    const long = dice.between(50, 150);
    const thick = dice.between(4, 11);
    const colour: Rgb = [dice.between(20, 235), dice.between(20, 220), dice.between(20, 220)];
    const end = (angle: number): [number, number] => [
      x + long * Math.cos(turn + angle),
      y + long * Math.sin(turn + angle),
    ];
    const arms = dice.chance(0.5) ? [-0.25, 0.25] : [0];
    return {
      parts: arms.map((angle) => ({
        from: [x, y],
        to: end(angle),
        radiusFromMm: thick * 0.6,
        radiusToMm: thick,
      })),
      colour,
    };
  });
}

function drawCamera(
  dice: Dice,
  board: MeasuringBoard,
  widthPx: number,
  heightPx: number,
  maxTiltDeg: number,
): Scene['camera'] {
  const field = (dice.between(60, 95) * Math.PI) / 180;
  const focalPx = widthPx / 2 / Math.tan(field / 2);
  const focal35Mm = Math.round((focalPx / Math.hypot(widthPx, heightPx)) * Math.hypot(36, 24));
  // Wide lenses bend like barrels, long ones a little either way.
  const wide = (field - 1.05) / 0.6;
  const k1 = dice.between(-0.03, 0.03) - 0.025 * wide;
  // Most people hold the camera nearly level, some far from it.
  const tiltDeg = dice.chance(0.7) ? dice.between(0, Math.min(15, maxTiltDeg)) : dice.between(0, maxTiltDeg);
  return aimCamera(
    {
      widthPx,
      heightPx,
      focalPx,
      focal35Mm,
      k1,
      tiltDeg,
      towardsRad: dice.between(0, 2 * Math.PI),
      rollDeg: dice.between(-20, 20) * (dice.chance(0.5) ? 0.4 : 1) + (dice.chance(0.1) ? 180 : 0),
      targetShare: [dice.between(0.4, 0.6), dice.between(-0.2, 1.2)],
      fillShare: dice.between(0.55, 0.95),
    },
    board,
  );
}

function drawRangedLight(dice: Dice, board: MeasuringBoard): Light {
  const azimuth = dice.between(0, 2 * Math.PI);
  const elevation = (dice.between(22, 75) * Math.PI) / 180;
  const clouds = dice.chance(0.35) ? dice.between(0.7, 1) : dice.next() ** 2;
  const shadeWay = dice.between(0, 2 * Math.PI);
  const [nx, ny] = [Math.cos(shadeWay), Math.sin(shadeWay)];
  const centre = nx * faceLengthMm(board) * 0.5 + ny * board.widthMm * 0.5;
  return {
    sun: [
      Math.cos(azimuth) * Math.cos(elevation),
      Math.sin(azimuth) * Math.cos(elevation),
      Math.sin(elevation),
    ],
    sunStrength: (0.85 / (0.5 + 0.5 * Math.sin(elevation))) * (1 - 0.9 * clouds),
    skyStrength: dice.between(0.28, 0.45) + 0.34 * clouds,
    warmth: dice.between(-0.05, 0.14),
    shade: dice.chance(0.35)
      ? { nx, ny, offsetMm: centre + dice.between(-260, 260), softMm: dice.between(2, 25) }
      : null,
  };
}

const SKIN_PALE: Rgb = [238, 200, 176];
const SKIN_DARK: Rgb = [82, 54, 40];

function drawTone(dice: Dice): Rgb {
  if (dice.chance(0.6)) return mix(SKIN_PALE, SKIN_DARK, dice.next());
  // Gloves: any hue, from black to bright.
  const light = dice.between(30, 220);
  const chroma = dice.next() * 0.8;
  const hue = dice.between(0, 2 * Math.PI);
  const part = (turn: number): number => light * (1 - chroma * (0.5 + 0.5 * Math.cos(hue + turn)));
  return [part(0), part(2.1), part(4.2)];
}

function drawLook(dice: Dice): FishLook {
  const base = FISH_LOOKS[dice.pick(Object.keys(FISH_LOOKS))];
  const slender = dice.chance(0.3);
  const tint = (colour: Rgb, by: number): Rgb => {
    const light = 1 + dice.between(-by, by);
    return [
      Math.min(250, colour[0] * light * dice.between(0.88, 1.12)),
      Math.min(250, colour[1] * light * dice.between(0.9, 1.1)),
      Math.min(250, colour[2] * light * dice.between(0.8, 1.2)),
    ];
  };
  return {
    depth: slender ? dice.between(0.45, 0.7) : base.depth * dice.between(0.85, 1.15),
    back: tint(base.back, 0.35),
    flank: tint(base.flank, 0.3),
    belly: tint(base.belly, 0.1),
    pattern: dice.pick(['band', 'bars', 'spots', 'plain'] as const),
    patternColour: tint(base.patternColour, 0.4),
    fin: tint(base.fin, 0.4),
    fork: dice.between(0, 0.28),
    jaw: base.jaw,
    taper: slender ? dice.between(1.1, 1.5) : dice.between(0.9, 1.1),
    tailSpreadRad: dice.between(0.4, 0.75),
    tailBlotched: dice.chance(0.4) ? dice.next() : 0,
    thickness: dice.between(0.72, 1.12),
  };
}

const CAREFUL_TILT_DEG = 8;

/** An empty board as a director photographs it on purpose: evenly lit, from nearly straight above, filling the picture. */
export function drawEmptyBoard(
  seed: number,
  board: MeasuringBoard,
  size: { widthPx: number; heightPx: number },
): RangedScene {
  const ranged = drawRangedScene(seed, { boards: [board], fish: false, ...size });
  const { scene } = ranged;
  const dice = rollDice(seedFor(seed, 'careful'));
  const { widthPx, heightPx, focalPx, focal35Mm, k1 } = scene.camera;
  const camera = aimCamera(
    {
      widthPx,
      heightPx,
      focalPx,
      focal35Mm,
      k1,
      tiltDeg: dice.between(0, CAREFUL_TILT_DEG),
      towardsRad: dice.between(0, 2 * Math.PI),
      rollDeg: dice.between(-8, 8),
      targetShare: [dice.between(0.46, 0.54), dice.between(0.45, 0.9)],
      fillShare: dice.between(0.8, 0.95),
    },
    board,
  );
  return {
    ...ranged,
    scene: { ...scene, card: null, wet: null, light: { ...scene.light, shade: null }, camera },
  };
}
