import type { Raster } from '../image/raster.ts';

/** Log brightness of a picture, one value a px: ratios of ink to face look alike in sun and in shadow. */
export interface Tones {
  widthPx: number;
  heightPx: number;
  data: Float32Array;
}

/** Keeps the noise of the darkest px down; about two steps of an 8-bit picture's noise. */
const FLOOR = 6;
const LOG = Float32Array.from({ length: 256 * 4 }, (_, i) => Math.log(i / 4 + FLOOR));
/** Pictures over this many px are halved (or more) before anything is looked for in them. */
const MOST_PX = 5.2e6;

/** By which whole number a picture is shrunk before it is searched. */
export function shrinkFactor(widthPx: number, heightPx: number): number {
  return Math.max(1, Math.ceil(Math.sqrt((widthPx * heightPx) / MOST_PX)));
}

/** Mean of factor × factor px; px that fill no whole block are left out. */
export function shrinkRaster(raster: Raster, factor: number): Raster {
  if (factor === 1) return raster;
  const widthPx = Math.floor(raster.widthPx / factor);
  const heightPx = Math.floor(raster.heightPx / factor);
  const data = new Uint8ClampedArray(widthPx * heightPx * 4);
  const source = raster.data;
  const share = 1 / (factor * factor);
  let out = 0;
  for (let row = 0; row < heightPx; row++) {
    for (let column = 0; column < widthPx; column++) {
      let red = 0;
      let green = 0;
      let blue = 0;
      for (let dy = 0; dy < factor; dy++) {
        let at = ((row * factor + dy) * raster.widthPx + column * factor) * 4;
        for (let dx = 0; dx < factor; dx++, at += 4) {
          red += source[at];
          green += source[at + 1];
          blue += source[at + 2];
        }
      }
      data[out] = red * share;
      data[out + 1] = green * share;
      data[out + 2] = blue * share;
      data[out + 3] = 255;
      out += 4;
    }
  }
  return { widthPx, heightPx, data };
}

export function tonesOf({ widthPx, heightPx, data }: Raster): Tones {
  const count = widthPx * heightPx;
  const tones = new Float32Array(count);
  for (let i = 0, at = 0; i < count; i++, at += 4) {
    // Luma of Rec. 601 in quarter steps, by whole-number arithmetic.
    const luma = (307 * data[at] + 604 * data[at + 1] + 113 * data[at + 2]) >> 8;
    tones[i] = LOG[luma];
  }
  return { widthPx, heightPx, data: tones };
}

/** Binomial smoothing (1 4 6 4 1)/16 both ways: a standard deviation of 1 px. The border is repeated. */
export function smoothTones(tones: Tones): Tones {
  const { widthPx, heightPx, data } = tones;
  const out = new Float32Array(data.length);
  // Five rows smoothed along stay at hand; what is done with is written over.
  const ring = Array.from({ length: 5 }, () => new Float32Array(widthPx));
  const rowAt = (row: number): Float32Array => ring[Math.min(heightPx - 1, Math.max(0, row)) % 5];
  for (let row = 0; row < Math.min(2, heightPx); row++) smoothAlong(data, row * widthPx, rowAt(row));
  for (let row = 0; row < heightPx; row++) {
    if (row + 2 < heightPx) smoothAlong(data, (row + 2) * widthPx, rowAt(row + 2));
    const [a, b, c, d, e] = [rowAt(row - 2), rowAt(row - 1), rowAt(row), rowAt(row + 1), rowAt(row + 2)];
    const at = row * widthPx;
    for (let column = 0; column < widthPx; column++) {
      out[at + column] = (a[column] + e[column] + 4 * (b[column] + d[column]) + 6 * c[column]) * 0.0625;
    }
  }
  return { widthPx, heightPx, data: out };
}

function smoothAlong(data: Float32Array, start: number, into: Float32Array): void {
  const end = start + into.length - 1;
  let a = data[start];
  let b = a;
  let c = a;
  let d = data[Math.min(end, start + 1)];
  for (let at = start; at <= end; at++) {
    const e = at + 2 <= end ? data[at + 2] : data[end];
    into[at - start] = (a + e + 4 * (b + d) + 6 * c) * 0.0625;
    a = b;
    b = c;
    c = d;
    d = e;
  }
}

/** Every second px of smoothed tones. */
export function halveTones({ widthPx, heightPx, data }: Tones): Tones {
  const halfWidth = widthPx >> 1;
  const halfHeight = heightPx >> 1;
  const out = new Float32Array(halfWidth * halfHeight);
  for (let row = 0; row < halfHeight; row++) {
    for (let column = 0; column < halfWidth; column++)
      out[row * halfWidth + column] = data[2 * row * widthPx + 2 * column];
  }
  return { widthPx: halfWidth, heightPx: halfHeight, data: out };
}

/** Bilinear; the border is repeated. */
export function toneAt({ widthPx, heightPx, data }: Tones, x: number, y: number): number {
  const cx = x < 0 ? 0 : x > widthPx - 1.001 ? widthPx - 1.001 : x;
  const cy = y < 0 ? 0 : y > heightPx - 1.001 ? heightPx - 1.001 : y;
  const x0 = cx | 0;
  const y0 = cy | 0;
  const fx = cx - x0;
  const fy = cy - y0;
  const at = y0 * widthPx + x0;
  const top = data[at] * (1 - fx) + data[at + 1] * fx;
  const bottom = data[at + widthPx] * (1 - fx) + data[at + widthPx + 1] * fx;
  return top * (1 - fy) + bottom * fy;
}
