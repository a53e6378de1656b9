import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import { prepareZXingModule, writeBarcode } from 'zxing-wasm/writer';
import { openCodeReader } from '../codes/codeReader.ts';
import type { Raster } from '../image/raster.ts';
import { withWiderInk } from './inOneLight.ts';
import { sharpened } from './sharpen.ts';

const wasmOf = (name: string): ArrayBuffer =>
  new Uint8Array(readFileSync(fileURLToPath(import.meta.resolve(name)))).buffer;

/** A grey picture. */
function picture(size: number, valueAt: (x: number, y: number) => number): Raster {
  const data = new Uint8ClampedArray(size * size * 4).fill(255);
  for (let i = 0; i < size * size; i++)
    data[4 * i] = data[4 * i + 1] = data[4 * i + 2] = valueAt(i % size, Math.floor(i / size));
  return { widthPx: size, heightPx: size, data };
}

function green({ data, widthPx }: Raster, x: number, y: number): number {
  return data[4 * (y * widthPx + x) + 1];
}

describe('a sharpened picture', () => {
  it('of one grey stays as it is, up to its border', () => {
    const flat = sharpened(picture(40, () => 120), 8, { aboutMm: 0.5, by: 4 }); // prettier-ignore
    expect(new Set(flat.data)).toEqual(new Set([120, 255]));
  });

  it('has steeper edges, and is what it was beyond the reach of two means', () => {
    const edge = picture(60, (x) => (x < 30 ? 100 : 120));
    const sharp = sharpened(edge, 8, { aboutMm: 0.5, by: 2 });
    // Two means over 9 cells: of the cell beside the edge 45 of the 81 ways stay on its side, so 36/81 of the step is missing.
    expect(Math.abs(green(sharp, 30, 30) - (120 + 2 * 20 * (36 / 81)))).toBeLessThan(1);
    expect(Math.abs(green(sharp, 29, 30) - (100 - 2 * 20 * (36 / 81)))).toBeLessThan(1);
    expect([green(sharp, 39, 30), green(sharp, 20, 30)]).toEqual([120, 100]);
  });

  // The standard's symbol as another implementation writes it, seen by a camera at some 1.9 px a module.
  it('shows codes (ISO/IEC 18004) that were too small to be read before', async () => {
    const [plain, sharp] = await readShares(210, [
      (code) => code,
      (code) => sharpened(code, CELLS_PER_MM, { aboutMm: 0.5, by: 4 }),
    ]);
    expect(plain).toBeLessThan(0.4);
    expect(sharp).toBeGreaterThan(0.7);
  });

  it('with wider ink shows codes whose white runs over their ink in the sun', async () => {
    const [plain, sharp, wide] = await readShares(360, [
      (code) => code,
      (code) => sharpened(code, CELLS_PER_MM, { aboutMm: 0.5, by: 4 }),
      (code) => withWiderInk(sharpened(code, CELLS_PER_MM, { aboutMm: 0.5, by: 6 }), CELLS_PER_MM, 0.25),
    ]);
    expect(plain).toBeLessThan(0.4);
    expect(sharp).toBeLessThan(0.4);
    expect(wide).toBeGreaterThan(0.7);
  });
});

/** The share of ten turned codes that is read, drawn in each way. */
async function readShares(white: number, ways: readonly ((code: Raster) => Raster)[]): Promise<number[]> {
  prepareZXingModule({ overrides: { wasmBinary: wasmOf('zxing-wasm/writer/zxing_writer.wasm') } });
  const { symbol } = await writeBarcode(TEXT, { format: 'QRCode', options: 'ecLevel=Q' });
  const read = openCodeReader(wasmOf('zxing-wasm/reader/zxing_reader.wasm'));
  const counts = ways.map(() => 0);
  for (let turn = 0; turn < 10; turn++) {
    const drawn = enlarged(smallCode(symbol, 0.2 + 0.13 * turn, white));
    for (const [i, way] of ways.entries())
      if ((await read(way(drawn)))[0]?.text === TEXT) counts[i] = counts[i] + 0.1;
  }
  return counts;
}

const TEXT = 'lauta:1:K7Q4M:930:YT1P';
const CELLS_PER_MM = 8;
const PX_PER_MM = 1.75;
const SIDE_MM = 60;
const MODULE_MM = 40 / 37;
/** A lens spreads light over so many px to all sides, and a px gathers what falls on it. */
const BLUR_PX = 1.3;
const RAYS = 5;

/** A code as a camera sees it from far away; more than 255 is white that it cannot tell. */
function smallCode(
  { width, data }: { width: number; data: Uint8ClampedArray },
  turn: number,
  white: number,
): Raster {
  const isDark = (u: number, v: number): boolean => u >= 0 && v >= 0 && u < width && v < width && data[Math.floor(v) * width + Math.floor(u)] < 128; // prettier-ignore
  const size = Math.round(SIDE_MM * PX_PER_MM);
  return picture(size, (x, y) => {
    let light = 0;
    for (let i = -RAYS; i <= RAYS; i++) {
      for (let j = -RAYS; j <= RAYS; j++) {
        const right = (x + 0.5 + (i * BLUR_PX) / RAYS - size / 2) / PX_PER_MM / MODULE_MM;
        const down = (y + 0.5 + (j * BLUR_PX) / RAYS - size / 2) / PX_PER_MM / MODULE_MM;
        const u = right * Math.cos(turn) + down * Math.sin(turn) + width / 2;
        const v = down * Math.cos(turn) - right * Math.sin(turn) + width / 2;
        light += isDark(u, v) ? 60 : white;
      }
    }
    return light / (2 * RAYS + 1) ** 2;
  });
}

/** The same in the scale in which the decoder is asked, linear between px. */
function enlarged(small: Raster): Raster {
  const by = CELLS_PER_MM / PX_PER_MM;
  const at = (x: number, y: number): number => {
    const inside = (value: number): number => Math.min(small.widthPx - 1, Math.max(0, value));
    return green(small, inside(x), inside(y));
  };
  return picture(SIDE_MM * CELLS_PER_MM, (column, row) => {
    const [x, y] = [(column + 0.5) / by - 0.5, (row + 0.5) / by - 0.5];
    const [x0, y0] = [Math.floor(x), Math.floor(y)];
    const [fx, fy] = [x - x0, y - y0];
    return (at(x0, y0) * (1 - fx) + at(x0 + 1, y0) * fx) * (1 - fy) + (at(x0, y0 + 1) * (1 - fx) + at(x0 + 1, y0 + 1) * fx) * fy; // prettier-ignore
  });
}
