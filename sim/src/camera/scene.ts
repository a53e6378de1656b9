import type { Identifier } from '@lauta/core/identifier';
import { faceLengthMm, undistortPx, type MeasuringBoard } from '@lauta/vision';
import { CARD_MM } from '@lauta/core/identifier';
import { rollDice, seedFor } from './dice.ts';
import { FISH_LOOKS, poseFish, type Fish } from './fish.ts';
import type { PlacedHand } from './hand.ts';
import type { Print } from './print.ts';
import type { Rgb } from './rgb.ts';
import type { Capsule, Thing } from './things.ts';

export type Vector = readonly [number, number, number];

/** A pinhole camera with one radial term (OpenCV's k1). Axes are unit vectors in board coordinates; px centres lie at whole numbers. */
export interface Camera {
  widthPx: number;
  heightPx: number;
  focalPx: number;
  focal35Mm: number;
  k1: number;
  positionMm: Vector;
  right: Vector;
  down: Vector;
  forward: Vector;
}

export const GROUNDS = ['planks', 'turf', 'hull', 'carpet', 'plate', 'gravel', 'corrugated'] as const;
export type Ground = (typeof GROUNDS)[number];

export interface Light {
  /** Unit vector towards the sun. */
  sun: Vector;
  sunStrength: number;
  skyStrength: number;
  warmth: number;
  /** The edge of a large shadow (the photographer's): where n · (x, y) exceeds the offset the sun is gone. */
  shade: { nx: number; ny: number; offsetMm: number; softMm: number } | null;
  /** Sun through leaves: how large the patches are, mm, and how much of the sun they take. */
  dapple?: { seed: number; sizeMm: number; depth: number };
}

/** Water on the face: how much it mirrors the sun, and drops. */
export interface Wet {
  shine: number;
  drops: number;
  seed: number;
}

export interface PlacedCard {
  identifier: Identifier;
  centreMm: readonly [number, number];
  turnRad: number;
  /** Over the face; from `OVER_FISH_MM` on it lies on top of the fish. */
  zMm: number;
  /** A mirrored sky or lamp on it: place in mm of the card, radius and strength (0-255 added in its middle). */
  glare?: { atMm: readonly [number, number]; radiusMm: number; strength: number };
  /** Written by hand: no QR. */
  isHandwritten?: boolean;
}

export const OVER_FISH_MM = 3;

/** Something that lies about on the ground, mm of the board's plane. */
export interface Clutter {
  parts: readonly Capsule[];
  colour: Rgb;
  /** It lies on the card, not under it. */
  isOnCard?: boolean;
}

/** A screen or print that was photographed instead of a board: how it lies in the picture. */
export interface Rephotograph {
  seed: number;
  /** Its own px across. */
  columns: number;
}

export interface Scene {
  seed: number;
  board: MeasuringBoard;
  fish: Fish | null;
  hand: PlacedHand | null;
  /** A second fish on the board. */
  otherFish?: Fish;
  /** What lies on board and fish. */
  things?: readonly Thing[];
  clutter?: readonly Clutter[];
  rephotograph?: Rephotograph;
  card: PlacedCard | null;
  camera: Camera;
  light: Light;
  ground: Ground;
  noiseLevel: number;
  /** Standard deviation of the picture's blur, px. */
  blurPx: number;
  exposure: number;
  /** How dirty the face is; 1 is a little worn. */
  wear: number;
  wet: Wet | null;
  /** How the face is printed; by default as it is described. */
  print?: Print;
  /** Lines that somebody drew on the stop with a marker, mm across the board and their thickness. */
  stopMarks?: readonly { yMm: number; thickMm: number; colour: Rgb }[];
}

export interface SceneWish {
  board: MeasuringBoard;
  look: string;
  lengthMm: number;
  identifier: Identifier | null;
  widthPx?: number;
  heightPx?: number;
  /** Highest tilt of the camera, degrees. */
  maxTiltDeg?: number;
  hand?: boolean;
  fish?: boolean;
  /** The individual; by default it follows from the scene's seed. */
  fishSeed?: number;
}

/** Grounds of the demo's pictures. */
const PLAIN_GROUNDS = ['planks', 'turf', 'hull', 'carpet'] as const;

/** Draws everything that was not wished for from a seed. */
export function drawScene(seed: number, wish: SceneWish): Scene {
  const dice = rollDice(seedFor(seed, 'scene'));
  const { board } = wish;
  const look = FISH_LOOKS[wish.look];
  const fishSeed = wish.fishSeed ?? seedFor(seed, 'fish');
  if (!look) throw new RangeError(`look: unknown ${wish.look}`);
  const fish = {
    look,
    seed: fishSeed,
    lengthMm: wish.lengthMm,
    ...poseFish(seedFor(seed, 'pose'), board.widthMm),
  };
  return {
    seed,
    board,
    fish: (wish.fish ?? true) ? fish : null,
    hand:
      (wish.hand ?? dice.chance(0.55))
        ? { seed: seedFor(seed, 'hand'), xMm: wish.lengthMm * dice.between(0.42, 0.6) }
        : null,
    card: wish.identifier ? placeCard(seed, wish.identifier, board, wish.lengthMm) : null,
    camera: placeCamera(seed, board, wish.widthPx ?? 1600, wish.heightPx ?? 1200, wish.maxTiltDeg ?? 12),
    light: drawLight(seed),
    ground: dice.pick(PLAIN_GROUNDS),
    noiseLevel: dice.between(1.2, 3),
    blurPx: 0,
    exposure: 1,
    wear: 1,
    wet: null,
  };
}

function drawLight(seed: number): Light {
  const dice = rollDice(seedFor(seed, 'light'));
  const azimuth = dice.between(0, 2 * Math.PI);
  const elevation = (dice.between(38, 68) * Math.PI) / 180;
  const clouds = dice.next() ** 1.5;
  return {
    sun: [
      Math.cos(azimuth) * Math.cos(elevation),
      Math.sin(azimuth) * Math.cos(elevation),
      Math.sin(elevation),
    ],
    sunStrength: 0.85 * (1 - 0.85 * clouds),
    skyStrength: 0.42 + 0.34 * clouds,
    warmth: dice.between(-0.04, 0.08),
    shade: null,
  };
}

export function placeCard(
  seed: number,
  identifier: Identifier,
  board: MeasuringBoard,
  lengthMm: number,
): PlacedCard {
  const dice = rollDice(seedFor(seed, 'card'));
  const turnRad = dice.between(-0.25, 0.25);
  const roomMm = faceLengthMm(board) - lengthMm;
  if (roomMm > CARD_MM.width + 90 && dice.chance(0.6)) {
    const x = lengthMm + 60 + CARD_MM.width / 2 + dice.between(0, Math.max(0, roomMm - CARD_MM.width - 90));
    return { identifier, centreMm: [x, board.widthMm * dice.between(0.42, 0.58)], turnRad, zMm: 0.8 };
  }
  const x = dice.between(0.55, 0.85) * faceLengthMm(board);
  return { identifier, centreMm: [x, -CARD_MM.height * 0.95], turnRad, zMm: -BOARD_THICK_MM + 0.8 };
}

/** The board's slab stands this high over the ground. */
export const BOARD_THICK_MM = 12;

function placeCamera(
  seed: number,
  board: MeasuringBoard,
  widthPx: number,
  heightPx: number,
  maxTiltDeg: number,
): Camera {
  const dice = rollDice(seedFor(seed, 'camera'));
  const focal35Mm = dice.whole(20, 27);
  return aimCamera(
    {
      widthPx,
      heightPx,
      focalPx: (focal35Mm * Math.hypot(widthPx, heightPx)) / Math.hypot(36, 24),
      focal35Mm,
      k1: 0,
      tiltDeg: maxTiltDeg * dice.next(),
      towardsRad: dice.between(0, 2 * Math.PI),
      rollDeg: dice.between(-7, 7),
      targetShare: [dice.between(0.48, 0.52), dice.between(0.4, 0.7)],
      fillShare: dice.between(0.72, 0.92),
    },
    board,
  );
}

export interface Aim {
  widthPx: number;
  heightPx: number;
  focalPx: number;
  focal35Mm: number;
  k1: number;
  tiltDeg: number;
  /** Direction over the board in which the camera looks when it is tilted. */
  towardsRad: number;
  rollDeg: number;
  /** Where on the face the optical axis meets it, shares of length and width. */
  targetShare: readonly [number, number];
  /** Share of the picture's width that the face fills. */
  fillShare: number;
}

/** Places a camera; it steps back until the whole ruled face is in the picture. */
export function aimCamera(wanted: Aim, board: MeasuringBoard): Camera {
  const { widthPx, heightPx, focalPx, focal35Mm, k1 } = wanted;
  const lengthMm = faceLengthMm(board);
  const tilt = (wanted.tiltDeg * Math.PI) / 180;
  const towards = wanted.towardsRad;
  const roll = (wanted.rollDeg * Math.PI) / 180;
  const forward: Vector = [
    Math.sin(tilt) * Math.cos(towards),
    Math.sin(tilt) * Math.sin(towards),
    -Math.cos(tilt),
  ];
  const level = unit(subtract([1, 0, 0], scale(forward, forward[0])));
  // The board's frame is left-handed seen as x, y, z (y towards the angler, z up), hence right × forward.
  const levelDown = cross(level, forward);
  const right = unit(add(scale(level, Math.cos(roll)), scale(levelDown, Math.sin(roll))));
  const down = cross(right, forward);
  const target: Vector = [lengthMm * wanted.targetShare[0], board.widthMm * wanted.targetShare[1], 0];
  const aim = (rangeMm: number): Camera => ({
    widthPx,
    heightPx,
    focalPx,
    focal35Mm,
    k1,
    positionMm: subtract(target, scale(forward, rangeMm)),
    right,
    down,
    forward,
  });
  let rangeMm = (focalPx * lengthMm) / (wanted.fillShare * widthPx);
  // Steps back until the whole ruled face is in the picture.
  for (let step = 0; step < 60 && !faceInPicture(aim(rangeMm), board); step++) rangeMm *= 1.03;
  return aim(rangeMm);
}

function faceInPicture(camera: Camera, board: MeasuringBoard): boolean {
  const marginPx = 0.02 * camera.widthPx;
  const lengthMm = faceLengthMm(board);
  const corners: Vector[] = [[-20, 0, 0], [lengthMm, 0, 0], [lengthMm, board.widthMm, 0], [-20, board.widthMm, 0]]; // prettier-ignore
  return corners.every((corner) => {
    const [x, y] = projectPoint(camera, corner);
    return x > marginPx && y > marginPx && x < camera.widthPx - marginPx && y < camera.heightPx - marginPx;
  });
}

/** Where a point in board coordinates (mm) falls in the picture, px. */
export function projectPoint(camera: Camera, point: Vector): [number, number] {
  const way = subtract(point, camera.positionMm);
  const depth = dot(way, camera.forward);
  const x = dot(way, camera.right) / depth;
  const y = dot(way, camera.down) / depth;
  const bend = camera.focalPx * (1 + camera.k1 * (x * x + y * y));
  return [(camera.widthPx - 1) / 2 + bend * x, (camera.heightPx - 1) / 2 + bend * y];
}

/** Directions of rays through px, in board coordinates (not of unit length). */
export function rayCaster(
  camera: Camera,
): (xPx: number, yPx: number, into: [number, number, number]) => void {
  const { forward, right, down, focalPx, k1 } = camera;
  const centrePx = [(camera.widthPx - 1) / 2, (camera.heightPx - 1) / 2] as const;
  // Undistorting each ray by itself would take longer than seeing what it meets: a table over the squared radius.
  const steps = 2048;
  const farthest = (centrePx[0] ** 2 + centrePx[1] ** 2) / focalPx ** 2 + 0.01;
  const straighten = Float64Array.from({ length: steps + 2 }, (_, i) => {
    const radius = Math.sqrt((i / steps) * farthest);
    if (radius === 0 || k1 === 0) return 1;
    return undistortPx({ focalPx: 1, k1, centrePx: [0, 0] }, radius, 0)[0] / radius;
  });
  return (xPx, yPx, into) => {
    let u = (xPx - centrePx[0]) / focalPx;
    let v = (yPx - centrePx[1]) / focalPx;
    const place = Math.min(steps, ((u * u + v * v) / farthest) * steps);
    const whole = place | 0;
    const low = straighten[whole];
    const ratio = low + (place - whole) * (straighten[whole + 1] - low);
    u *= ratio;
    v *= ratio;
    into[0] = forward[0] + u * right[0] + v * down[0];
    into[1] = forward[1] + u * right[1] + v * down[1];
    into[2] = forward[2] + u * right[2] + v * down[2];
  };
}

export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const scale = (a: Vector, by: number): Vector => [a[0] * by, a[1] * by, a[2] * by];
export const add = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const subtract = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const unit = (a: Vector): Vector => scale(a, 1 / Math.hypot(a[0], a[1], a[2]));
export const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** Where the ray through a px meets the plane `zMm` over the face, mm. */
export function boardPointAt(camera: Camera, xPx: number, yPx: number, zMm: number): [number, number] {
  const ray: [number, number, number] = [0, 0, 0];
  rayCaster(camera)(xPx, yPx, ray);
  const t = (zMm - camera.positionMm[2]) / ray[2];
  return [camera.positionMm[0] + t * ray[0], camera.positionMm[1] + t * ray[1]];
}
