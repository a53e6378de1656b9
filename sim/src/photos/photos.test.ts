import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, describe, expect, it } from 'vitest';
import {
  SHIPPED_BOARDS,
  analysePhoto,
  boardMap,
  faceLengthMm,
  findBoard,
  readExif,
  trueLengthMm,
  type MeasuringBoard,
  type Raster,
} from '@lauta/vision';
import { drawRangedScene, projectPoint, renderScene } from '../camera/index.ts';
import { drawPhotos } from './drawPhotos.ts';
import type { PhotoRecord } from './photoRecord.ts';

const dir = mkdtempSync(join(tmpdir(), 'lauta-sim-photos-'));
afterAll(() => rmSync(dir, { recursive: true }));

const drawn = drawPhotos({ dir, seeds: [1002, 1007, 1018, 1024], threads: 2, widthPx: 1400, heightPx: 1050 });

async function rasterOf(file: string): Promise<Raster> {
  const { data, info } = await sharp(join(dir, file))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { widthPx: info.width, heightPx: info.height, data: new Uint8ClampedArray(data) };
}

const boardOf = (record: PhotoRecord): MeasuringBoard => findBoard(record.board) as MeasuringBoard;

describe('drawn photographs', () => {
  it('come with their truth and EXIF, the same from the same seed, and are not drawn twice', async () => {
    const records = await drawn;
    expect(records).toHaveLength(4);
    const [first] = records as [PhotoRecord];
    const bytes = readFileSync(join(dir, first.file));
    expect((await readExif(new Uint8Array(bytes))).focal35Mm).toBe(first.camera.focal35);
    const began = performance.now();
    expect(await drawPhotos({ dir, seeds: [1002], threads: 1, widthPx: 1400, heightPx: 1050 })).toEqual([
      first,
    ]);
    expect(performance.now() - began).toBeLessThan(5000);
  }, 300_000);

  it('hold what their truth says: the tail’s px, through the lens, is the length with its parallax', async () => {
    for (const record of await drawn) {
      const board = boardOf(record);
      const lens = { focalPx: record.camera.f, k1: record.camera.k1 };
      const map = boardMap(board, record.corners, lens, { widthPx: 1400, heightPx: 1050 });
      const [apparentMm] = map.toBoard(record.tailPx ?? [0, 0]);
      expect(apparentMm).toBeCloseTo(record.apparentMm ?? NaN, 3);
      // Tails lie 1 to 3 mm over the face, 2 are assumed.
      const [cameraX, , cameraZ] = record.camera.position;
      const offMm = Math.abs(apparentMm - cameraX) / (cameraZ - 3);
      expect(Math.abs(trueLengthMm(apparentMm, cameraX, cameraZ) - (record.lengthMm ?? NaN))).toBeLessThan(
        offMm + 0.02,
      );
      expect(map.pose(lens.focalPx).tiltDeg).toBeCloseTo(record.tiltDeg, 3);
    }
  }, 300_000);

  it('are read: board, kind and length, each within its doubt', async () => {
    for (const record of await drawn) {
      const raster = await rasterOf(record.file);
      const analysis = analysePhoto(raster, boardOf(record), {
        focal35Mm: record.camera.focal35,
        otherBoards: SHIPPED_BOARDS,
      });
      const off = Math.max(
        ...(analysis.found?.corners ?? []).map(([x, y], i) =>
          Math.hypot(x - (record.corners[i]?.[0] ?? NaN), y - (record.corners[i]?.[1] ?? NaN)),
        ),
      );
      expect([record.file, off < 0.003 * 1400]).toEqual([record.file, true]);
      const errorMm = Math.abs((analysis.lengthMm ?? NaN) - (record.lengthMm ?? NaN));
      expect([record.file, errorMm < 3 * (analysis.sigmaMm ?? 0)]).toEqual([record.file, true]);
    }
  }, 300_000);
});

describe('a scene from wide ranges', () => {
  const scenes = Array.from({ length: 400 }, (_, seed) => drawRangedScene(seed, { boards: SHIPPED_BOARDS }));

  it('reaches what is asked for: fields of view, tilts, turns, both kinds of distortion, hands, drops, shade', () => {
    const of = (value: (scene: (typeof scenes)[number]) => number): [number, number] => {
      const values = scenes.map(value);
      return [Math.min(...values), Math.max(...values)];
    };
    const fields = of(
      ({ scene }) => (2 * Math.atan(scene.camera.widthPx / 2 / scene.camera.focalPx) * 180) / Math.PI,
    );
    expect(fields[0]).toBeLessThan(62);
    expect(fields[1]).toBeGreaterThan(93);
    const tilts = of(({ scene }) => (Math.acos(-scene.camera.forward[2]) * 180) / Math.PI);
    expect(tilts[1]).toBeGreaterThan(36);
    expect(tilts[1]).toBeLessThan(40.001);
    const bends = of(({ scene }) => scene.camera.k1);
    expect(bends[0]).toBeLessThan(-0.04);
    expect(bends[1]).toBeGreaterThan(0.02);
    const share = (what: (scene: (typeof scenes)[number]) => boolean): number =>
      scenes.filter(what).length / scenes.length;
    expect(share(({ scene }) => scene.hand !== null)).toBeCloseTo(0.45, 1);
    expect(share(({ scene }) => scene.light.shade !== null)).toBeCloseTo(0.35, 1);
    // Half round: the stop at the right.
    expect(share(({ scene }) => projectPoint(scene.camera, [0, 0, 0])[0] > 1008)).toBeGreaterThan(0.04);
  });

  it('keeps the whole ruled face in the picture', () => {
    for (const { scene } of scenes.slice(0, 100)) {
      const lengthMm = faceLengthMm(scene.board);
      for (const corner of [
        [0, 0, 0],
        [lengthMm, 0, 0],
        [lengthMm, scene.board.widthMm, 0],
        [0, scene.board.widthMm, 0],
      ] as const) {
        const [x, y] = projectPoint(scene.camera, corner);
        expect(x > 0 && y > 0 && x < scene.camera.widthPx && y < scene.camera.heightPx).toBe(true);
      }
    }
  });

  it('is bent by its lens as the truth says: a line of the board is dark where it is projected', () => {
    const { scene } = drawRangedScene(1024, {
      boards: SHIPPED_BOARDS,
      widthPx: 1000,
      heightPx: 750,
      fish: false,
    });
    const { raster } = renderScene({
      ...scene,
      card: null,
      wet: null,
      wear: 1,
      light: { ...scene.light, shade: null },
    });
    const luma = (x: number, y: number): number => {
      const i = (Math.round(y) * raster.widthPx + Math.round(x)) * 4;
      return raster.data[i] + raster.data[i + 1] + raster.data[i + 2];
    };
    const unit = scene.board.unit === 'in' ? 25.4 : 50;
    let darker = 0;
    const places = 12;
    for (let i = 1; i <= places; i++) {
      const x = unit * i * (scene.board.unit === 'in' ? 2 : 1);
      const y = scene.board.widthMm / 2;
      const on = luma(...projectPoint(scene.camera, [x, y, 0]));
      const beside = luma(...projectPoint(scene.camera, [x + 6, y, 0]));
      if (scene.board.id === 'slate-75cm' ? on > beside : on < beside) darker++;
    }
    expect(darker).toBe(places);
  }, 300_000);
});
