import { createRequire } from 'node:module';
import exifr from 'exifr';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { writeExif } from '@lauta/vision/exif-writer';
import { SHIPPED_BOARDS, boardLines, faceCornersMm, fitHomography, mapPoint, readBoard } from '@lauta/vision';
import { drawScene, projectPoint, renderScene, type SceneWish } from './index.ts';

const board = SHIPPED_BOARDS[0];
const identifier = { eventCode: 'K7Q4M', entrantNumber: 114, code: 'YT1P' };
const wish = (change: Partial<SceneWish> = {}): SceneWish => ({
  board,
  look: 'largemouth-bass',
  lengthMm: 402,
  identifier,
  widthPx: 1000,
  heightPx: 750,
  ...change,
});

describe('a rendered photograph', () => {
  const scene = drawScene(11, wish());
  const photo = renderScene(scene);

  it('comes out the same from the same seed, and another from another', () => {
    const small = wish({ widthPx: 160, heightPx: 120 });
    const first = renderScene(drawScene(3, small)).raster.data;
    expect(renderScene(drawScene(3, small)).raster.data).toEqual(first);
    expect(renderScene(drawScene(4, small)).raster.data).not.toEqual(first);
  });

  it('is read to its apparent length from its true corners and tips', () => {
    const { truth } = photo;
    const reading = readBoard(
      board,
      {
        corners: truth.corners,
        nose: truth.nosePx ?? [0, 0],
        tail: truth.tailPx ?? [0, 0],
      },
      { widthPx: 1000, heightPx: 750, focal35Mm: truth.focal35Mm },
    );
    if (!reading.ok) throw new Error(reading.code);
    expect(reading.value.apparentMm).toBeCloseTo(truth.apparentMm ?? NaN, 6);
    expect(reading.value.tiltDeg).toBeCloseTo(truth.tiltDeg, 3);
    // A tail 2 mm over the face is seen a little off its true place (x·h/(H−h), plain similar triangles).
    expect(Math.abs(reading.value.apparentMm - 402)).toBeLessThan(2.5);
  });

  it('shows the board’s lines where the true corners say they are', () => {
    const { raster, truth } = photo;
    const h = fitHomography(faceCornersMm(board), truth.corners);
    const grey = (xMm: number, yMm: number): number => {
      const [x, y] = mapPoint(h, [xMm, yMm]);
      const at = (Math.round(y) * raster.widthPx + Math.round(x)) * 4;
      return (raster.data[at] ?? 0) + (raster.data[at + 1] ?? 0) + (raster.data[at + 2] ?? 0);
    };
    // Full-width lines beyond the fish and clear of the numerals, against the bare face beside them.
    const lines = boardLines(board).filter(
      (line) => line.strokeMm === 1.8 && line.xMm > 430 && line.xMm < 740,
    );
    const seen = lines.filter((line) => grey(line.xMm, 5) < 0.75 * grey(line.xMm + 3.2, 5));
    expect(seen.length).toBeGreaterThan(0.9 * lines.length);
  });

  it('keeps the whole ruled face in the picture over many seeds and boards', () => {
    for (let seed = 0; seed < 200; seed++) {
      const drawn = drawScene(seed, wish({ board: SHIPPED_BOARDS[seed % 3], maxTiltDeg: 20 }));
      for (const [x, y] of faceCornersMm(drawn.board)) {
        const [u, v] = projectPoint(drawn.camera, [x, y, 0]);
        expect(u > 0 && v > 0 && u < 1000 && v < 750, `seed ${seed}`).toBe(true);
      }
    }
  });

  it('carries a card that a QR library reads', async () => {
    const require = createRequire(import.meta.url);
    const jsQR = require('jsqr') as (
      data: Uint8ClampedArray,
      width: number,
      height: number,
    ) => { data: string } | null;
    const sharpScene = drawScene(11, wish({ widthPx: 2400, heightPx: 1800, hand: false }));
    const { raster } = renderScene(sharpScene);
    expect(jsQR(raster.data, raster.widthPx, raster.heightPx)?.data).toBe('lauta:1:K7Q4M:114:YT1P');
  });
});

describe('what the simulated phone writes into the file', () => {
  it('is read back by an EXIF library: time, offset, position, focal length', async () => {
    const jpeg = await sharp({ create: { width: 64, height: 48, channels: 3, background: '#888' } })
      .jpeg()
      .toBuffer();
    const written = writeExif(jpeg, {
      takenLocal: '2026:05:31 09:41:07',
      offset: '+03:00',
      focal35Mm: 24,
      device: 'sim camera',
      position: { latitude: -12.5, longitude: 61.25 },
      takenUtc: { date: '2026:05:31', hour: 6, minute: 41, second: 7 },
    });
    const tags = (await exifr.parse(Buffer.from(written), { reviveValues: false })) as Record<
      string,
      unknown
    >;
    expect(tags).toMatchObject({
      DateTimeOriginal: '2026:05:31 09:41:07',
      OffsetTimeOriginal: '+03:00',
      FocalLengthIn35mmFormat: 24,
    });
    expect(tags['latitude']).toBeCloseTo(-12.5, 6);
    expect(tags['longitude']).toBeCloseTo(61.25, 6);
    expect((await sharp(written).metadata()).width).toBe(64);
  });
});
