import { findingOf, type Finding } from '../findings/findings.ts';
import type { Raster } from '../image/raster.ts';
import { medianOf } from '../image/median.ts';
import { seeBezel, type BezelSeen } from './bezel.ts';
import type { Check } from './check.ts';
import { lumaOf } from '../image/luma.ts';

export const screenPhoto: Check<'picture'> = {
  ids: ['screen-photo'],
  live: null,
  judge: ({ photo, hasOwnLines }) => [screenFinding(seeGrid(photo, hasOwnLines), seeBezel(photo))],
};

const LENGTH = 128;
/** Lines of px looked at in each direction. */
const LINES = 20;
/** Below this bin a wave may be the ground's own: planks, corrugated sheet. */
const FIRST_BIN = 10;
/** JPEG's blocks of 8 px leave waves of their own at these multiples. */
const BLOCK_BIN = LENGTH / 8;

/** A wave that goes through the whole picture. */
export interface GridSeen {
  /** Power of the strongest wave over its neighbours' in the spectrum. */
  strength: number;
  periodPx: number;
}

/**
 * Looks for the beat of a screen's own grid: a wave at one frequency everywhere in the picture, in brightness or in
 * the difference of red and blue. Power spectra of many short lines are averaged (Welch 1967), each by its own power.
 * @param isLeftOut whether a place has lines of its own (the board's)
 */
export function seeGrid(
  { widthPx, heightPx, data }: Raster,
  isLeftOut: (xPx: number, yPx: number) => boolean,
): GridSeen {
  let best: GridSeen = { strength: 0, periodPx: 0 };
  for (const isAcross of [true, false]) {
    const spectra = [new Float64Array(LENGTH / 2), new Float64Array(LENGTH / 2)];
    const values = [new Float64Array(LENGTH), new Float64Array(LENGTH)];
    const [along, across] = isAcross ? [widthPx, heightPx] : [heightPx, widthPx];
    const stride = isAcross ? 4 : 4 * widthPx;
    let count = 0;
    for (let line = 0; line < LINES; line++) {
      const place = Math.floor(((line + 0.5) * across) / LINES);
      for (let start = line % 2 ? 0 : LENGTH / 2; start + LENGTH <= along; start += LENGTH) {
        const middle = start + LENGTH / 2;
        if (isAcross ? isLeftOut(middle, place) : isLeftOut(place, middle)) continue;
        let at = isAcross ? (place * widthPx + start) * 4 : (start * widthPx + place) * 4;
        const sums = [0, 0];
        for (let i = 0; i < LENGTH; i++, at += stride) {
          const [r, g, b] = [data[at], data[at + 1], data[at + 2]];
          values[0][i] = lumaOf(r, g, b);
          values[1][i] = r - b;
          sums[0] = sums[0] + lumaOf(r, g, b);
          sums[1] = sums[1] + r - b;
        }
        count++;
        for (const channel of [0, 1] as const)
          addSpectrum(values[channel], sums[channel] / LENGTH, spectra[channel]);
      }
    }
    if (count < 40) continue;
    for (const spectrum of spectra) {
      const peak = peakOf(spectrum);
      if (peak.strength > best.strength) best = peak;
    }
  }
  return best;
}

const HALF = LENGTH / 2;
/** Bins that a peak is compared with reach down to this one. */
const LOWEST_BIN = FIRST_BIN - 7;
const HANN = Float64Array.from(
  { length: LENGTH },
  (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / LENGTH),
);
const COSINES = Float64Array.from({ length: LENGTH }, (_, i) => Math.cos((2 * Math.PI * i) / LENGTH));
const SINES = Float64Array.from({ length: LENGTH }, (_, i) => Math.sin((2 * Math.PI * i) / LENGTH));

/** A line of one colour, as about a screen, has no spectrum: what is left of it is rounding, and would count as much as any. */
const LEAST_POWER = 1;

/** Adds a line's power spectrum, by its own power. Of real values the halves of a wave are summed once. */
function addSpectrum(values: Float64Array, mean: number, into: Float64Array): void {
  const power = new Float64Array(HALF);
  const even = new Float64Array(HALF);
  const odd = new Float64Array(HALF);
  const seen = (i: number): number => (values[i] - mean) * HANN[i];
  for (let i = 1; i < HALF; i++) {
    even[i] = seen(i) + seen(LENGTH - i);
    odd[i] = seen(i) - seen(LENGTH - i);
  }
  const [first, middle] = [seen(0), seen(HALF)];
  let total = 0;
  for (let bin = LOWEST_BIN; bin < HALF; bin++) {
    let re = first + (bin % 2 === 0 ? middle : -middle);
    let im = 0;
    for (let i = 1, turn = bin; i < HALF; i++, turn = (turn + bin) & (LENGTH - 1)) {
      re += even[i] * COSINES[turn];
      im += odd[i] * SINES[turn];
    }
    power[bin] = re * re + im * im;
    if (bin >= FIRST_BIN) total += power[bin];
  }
  if (total < LEAST_POWER) return;
  for (let bin = LOWEST_BIN; bin < HALF; bin++) into[bin] = into[bin] + power[bin] / total;
}

function peakOf(spectrum: Float64Array): GridSeen {
  let best: GridSeen = { strength: 0, periodPx: 0 };
  for (let bin = FIRST_BIN; bin < LENGTH / 2 - 2; bin++) {
    if (bin % BLOCK_BIN === 0) continue;
    const side = (way: -1 | 1): number =>
      medianOf(
        [3, 4, 5, 6, 7].map((off) => spectrum[bin + way * off]).filter((value) => value !== undefined),
      );
    // Both sides' levels: a slope of the spectrum is no peak.
    const strength = spectrum[bin] / Math.max(side(-1), side(1));
    if (strength > best.strength) best = { strength, periodPx: LENGTH / bin };
  }
  return best;
}

/** Waves of about two px are also left by sharpening and by fine grain: there more is asked. */
const FINE_PX = 2.15;
const FAULT_STRENGTH = { fine: 8, other: 6 } as const;
const LOOK_STRENGTH = { fine: 6.5, other: 3.1 } as const;

/** A dark rim that ends on one line along so much of a side is a screen's frame; ground has been so along 0.44. */
const LEAST_STRAIGHT = 0.62;

/** Two signs: the screen's grid, and its frame at the picture's edge. A clear grid or both make a fault, one a look. */
export function screenFinding({ strength, periodPx }: GridSeen, bezel: BezelSeen | null): Finding {
  const check = 'screen-photo';
  const kind = periodPx < FINE_PX ? 'fine' : 'other';
  if (strength > FAULT_STRENGTH[kind])
    return findingOf(check, 'fault', 0.75, { code: 'screen-grid', periodPx });
  const hasGrid = strength > LOOK_STRENGTH[kind];
  const hasFrame = bezel !== null && bezel.straightShare > LEAST_STRAIGHT;
  if (hasGrid && hasFrame)
    return findingOf(check, 'fault', 0.75, { code: 'screen-grid-and-frame', periodPx });
  if (hasGrid) return findingOf(check, 'look', 0.5, { code: 'screen-grid', periodPx });
  return hasFrame
    ? findingOf(check, 'look', 0.5, { code: 'screen-frame', side: bezel.side })
    : findingOf(check, 'clear', 0.7, { code: 'no-screen' });
}
