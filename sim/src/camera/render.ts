import { faceLengthMm, type Quad, type Raster } from '@lauta/vision';
import { CARD_MM } from '@lauta/core/identifier';
import { rollDice, seedFor } from './dice.ts';
import { layFish, type FishTruth } from './fish.ts';
import { layHand } from './hand.ts';
import { Relief } from './relief.ts';
import { rephotograph } from './rephotograph.ts';
import { projectPoint, type PlacedCard, type Scene, type Vector } from './scene.ts';
import { layThing } from './things.ts';
import { World } from './world.ts';

/** Changes whenever the same scene would give other pixels; caches are kept by it. */
export const RENDERER_VERSION = 4;

/** What is known of a rendered photograph: px of the picture, mm of the board. */
export interface PhotoTruth {
  board: string;
  lengthMm: number | null;
  /** Where the tail's tip is seen along the scale. */
  apparentMm: number | null;
  corners: Quad;
  nosePx: [number, number] | null;
  tailPx: [number, number] | null;
  eyePx: [number, number] | null;
  cardCornersPx: [number, number][] | null;
  tiltDeg: number;
  cameraHeightMm: number;
  focal35Mm: number;
  focalPx: number;
  k1: number;
  positionMm: readonly [number, number, number];
}

export interface RenderedPhoto {
  raster: Raster;
  truth: PhotoTruth;
}

/**
 * Renders a scene. Pure: the same scene gives the same pixels.
 * @param onProgress told now and then which share of the picture is done
 */
export function renderScene(
  scene: Scene,
  onProgress: (share: number) => void = () => undefined,
): RenderedPhoto {
  const { board, camera } = scene;
  const lengthMm = faceLengthMm(board);
  // The arm reaches in from beyond the picture's lower edge.
  const reachesOut = scene.things !== undefined || scene.otherFish !== undefined;
  const nearMm = Math.max(scene.hand ? nearEdgeMm(camera) + 40 : 0, board.widthMm + (reachesOut ? 240 : 60));
  const relief = new Relief(-45, -60, lengthMm + 40, Math.min(nearMm, board.widthMm + 700), 1.5);
  const fishTruth = scene.fish ? layFish(relief, scene.fish) : null;
  if (scene.otherFish) layFish(relief, scene.otherFish);
  (scene.things ?? []).forEach((thing, i) => layThing(relief, thing, seedFor(scene.seed, `thing ${i}`)));
  if (scene.hand && scene.fish) layHand(relief, scene.hand, scene.fish.axisYMm - 6, board.widthMm);
  const world = new World(scene, relief);
  const seen = blurRaster(shoot(scene, world, onProgress), scene.blurPx);
  const raster = scene.rephotograph ? rephotograph(seen, scene.rephotograph) : seen;
  return { raster, truth: truthOf(scene, fishTruth, camera) };
}

/** Where the picture's lower edge falls on the board's plane, farthest towards the angler. */
function nearEdgeMm({
  widthPx,
  heightPx,
  focalPx,
  forward,
  right,
  down,
  positionMm,
}: Scene['camera']): number {
  const places = [-1, 1].map((side) => {
    const [u, v] = [(side * widthPx) / 2 / focalPx, heightPx / 2 / focalPx];
    const [dy, dz] = ([1, 2] as const).map((axis) => forward[axis] + u * right[axis] + v * down[axis]);
    return positionMm[1] - (positionMm[2] / dz) * dy;
  });
  return Math.max(...places);
}

function cardCorners({ centreMm, turnRad, zMm }: PlacedCard): Vector[] {
  const [c, s] = [Math.cos(turnRad), Math.sin(turnRad)];
  return [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([u, v]): Vector => {
    const [x, y] = [(u * CARD_MM.width) / 2, (v * CARD_MM.height) / 2];
    return [centreMm[0] + x * c - y * s, centreMm[1] + x * s + y * c, zMm];
  });
}

function truthOf(scene: Scene, fish: FishTruth | null, camera: Scene['camera']): PhotoTruth {
  const { board } = scene;
  const lengthMm = faceLengthMm(board);
  const project = (point: Vector): [number, number] => projectPoint(camera, point);
  let apparentMm: number | null = null;
  if (fish) {
    const [cx, , cz] = camera.positionMm;
    const [x, , z] = fish.tail;
    apparentMm = x + ((x - cx) * z) / (cz - z);
  }
  return {
    board: board.id,
    lengthMm: fish?.tail[0] ?? null,
    apparentMm,
    corners: [
      project([0, 0, 0]),
      project([lengthMm, 0, 0]),
      project([lengthMm, board.widthMm, 0]),
      project([0, board.widthMm, 0]),
    ],
    nosePx: fish ? project(fish.nose) : null,
    tailPx: fish ? project(fish.tail) : null,
    eyePx: fish ? project([...fish.eye, fish.nose[2]]) : null,
    cardCornersPx: scene.card ? cardCorners(scene.card).map(project) : null,
    tiltDeg: (Math.acos(-camera.forward[2]) * 180) / Math.PI,
    cameraHeightMm: camera.positionMm[2],
    focal35Mm: camera.focal35Mm,
    focalPx: camera.focalPx,
    k1: camera.k1,
    positionMm: camera.positionMm,
  };
}

/** Places within a pixel, x and y in turn: a rotated grid, so that neither rows nor columns of an edge fall together. */
const WITHIN_PX = Float64Array.of(-0.375, -0.125, 0.125, -0.375, -0.125, 0.375, 0.375, 0.125);

/** Neighbours that differ by more than this (0-255) have an edge between them. */
const EDGE_STEP = 5;

function isEdge(colours: Float32Array, i: number, j: number): boolean {
  return (
    Math.abs(colours[3 * i] - colours[3 * j]) > EDGE_STEP ||
    Math.abs(colours[3 * i + 1] - colours[3 * j + 1]) > EDGE_STEP ||
    Math.abs(colours[3 * i + 2] - colours[3 * j + 2]) > EDGE_STEP
  );
}

function shoot(scene: Scene, world: World, onProgress: (share: number) => void): Raster {
  const { camera } = scene;
  const { widthPx, heightPx } = camera;
  const data = new Uint8ClampedArray(widthPx * heightPx * 4);
  const grain = grainTable(seedFor(scene.seed, 'grain'), scene.noiseLevel);
  const sum = new Float32Array(3);
  const once = new Float32Array(widthPx * heightPx * 3);
  const isDetailed = new Uint8Array(widthPx * heightPx);
  for (let row = 0; row < heightPx; row++) {
    if (row % 64 === 0) onProgress((0.5 * row) / heightPx);
    for (let column = 0; column < widthPx; column++) {
      const i = row * widthPx + column;
      sum[0] = sum[1] = sum[2] = 0;
      isDetailed[i] = world.see(column, row, sum) ? 1 : 0;
      once[3 * i] = sum[0];
      once[3 * i + 1] = sum[1];
      once[3 * i + 2] = sum[2];
    }
  }
  const farPx2 = (widthPx * widthPx + heightPx * heightPx) / 4;
  let grainAt = 0;
  for (let row = 0; row < heightPx; row++) {
    if (row % 64 === 0) onProgress(0.5 + (0.5 * row) / heightPx);
    const isLastRow = row + 1 === heightPx;
    for (let column = 0; column < widthPx; column++) {
      const i = row * widthPx + column;
      let samples = 1;
      // Where nothing changes from px to px one ray is enough.
      if (
        isDetailed[i] === 1 &&
        ((column > 0 && isEdge(once, i, i - 1)) ||
          (column + 1 < widthPx && isEdge(once, i, i + 1)) ||
          (row > 0 && isEdge(once, i, i - widthPx)) ||
          (!isLastRow && isEdge(once, i, i + widthPx)))
      ) {
        sum[0] = sum[1] = sum[2] = 0;
        samples = WITHIN_PX.length / 2;
        for (let k = 0; k < WITHIN_PX.length; k += 2)
          world.see(column + WITHIN_PX[k], row + WITHIN_PX[k + 1], sum);
      } else {
        sum[0] = once[3 * i];
        sum[1] = once[3 * i + 1];
        sum[2] = once[3 * i + 2];
      }
      const [fromX, fromY] = [column - widthPx / 2, row - heightPx / 2];
      const exposure = (1 - (0.22 * (fromX * fromX + fromY * fromY)) / farPx2) / samples;
      data[4 * i] = sum[0] * exposure + grain[(grainAt + 1) & GRAIN_MASK];
      data[4 * i + 1] = sum[1] * exposure + grain[(grainAt + 2) & GRAIN_MASK];
      data[4 * i + 2] = sum[2] * exposure + grain[(grainAt + 3) & GRAIN_MASK];
      data[4 * i + 3] = 255;
      grainAt = (grainAt + 3) & GRAIN_MASK;
    }
    grainAt = (grainAt * 31 + row * 977) & GRAIN_MASK;
  }
  return { widthPx, heightPx, data };
}

/** Gaussian blur of the colours, cut off at three standard deviations. */
function blurRaster(raster: Raster, sigmaPx: number): Raster {
  if (sigmaPx <= 0) return raster;
  const { widthPx, heightPx } = raster;
  const reach = Math.ceil(3 * sigmaPx);
  const weights = Float32Array.from({ length: 2 * reach + 1 }, (_, i) =>
    Math.exp(-((i - reach) ** 2) / (2 * sigmaPx ** 2)),
  );
  const total = weights.reduce((sum, value) => sum + value, 0);
  const kernel = weights.map((value) => value / total);
  const across = new Float32Array(raster.data.length);
  blurLines(raster.data, across, kernel, heightPx, widthPx * 4, widthPx, 4);
  const out = new Uint8ClampedArray(raster.data.length);
  blurLines(across, out, kernel, widthPx, 4, heightPx, widthPx * 4);
  for (let i = 3; i < out.length; i += 4) out[i] = 255;
  return { widthPx, heightPx, data: out };
}

/** Blurs `lines` lines (`lineStride` apart) of `count` px (`stride` apart). */
function blurLines(
  from: Float32Array | Uint8ClampedArray,
  to: Float32Array | Uint8ClampedArray,
  kernel: Float32Array,
  lines: number,
  lineStride: number,
  count: number,
  stride: number,
): void {
  const reach = kernel.length >> 1;
  for (let line = 0; line < lines; line++) {
    const start = line * lineStride;
    for (let i = 0; i < count; i++) {
      let red = 0;
      let green = 0;
      let blue = 0;
      for (let k = -reach; k <= reach; k++) {
        const at = i + k < 0 ? 0 : i + k >= count ? count - 1 : i + k;
        const weight = kernel[k + reach];
        const source = start + at * stride;
        red += weight * from[source];
        green += weight * from[source + 1];
        blue += weight * from[source + 2];
      }
      const target = start + i * stride;
      to[target] = red;
      to[target + 1] = green;
      to[target + 2] = blue;
    }
  }
}

const GRAIN_SIZE = 1 << 16;
const GRAIN_MASK = GRAIN_SIZE - 1;

function grainTable(seed: number, level: number): Float32Array {
  const dice = rollDice(seed);
  return Float32Array.from({ length: GRAIN_SIZE }, () => level * dice.normal());
}
