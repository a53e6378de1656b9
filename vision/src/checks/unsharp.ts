import type { Tones } from '../find-board/tones.ts';
import { findingOf, type Finding } from '../findings/findings.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import type { Check } from './check.ts';

/** The lines beside the tail. */
export const unsharpLines: Check<'fish'> = {
  ids: ['unsharp'],
  live: null,
  judge: ({ seen }) => [unsharpFinding(seen)],
};

/** The picture as a whole. */
export const blurred: Check<'picture'> = {
  ids: ['unsharp'],
  live: null,
  judge: ({ edges }) => [blurFinding(edgeSharpness(edges))],
};

const NEAR_TAIL_MM = 45;

/** Whether the lines next to the tail can be read where nothing lies on them. */
export function unsharpFinding({ fish, pattern, farMm, toPhoto }: SeenCatch): Finding {
  const { evidence, isCovered } = fish;
  let seen = 0;
  let looked = 0;
  pattern.lines.forEach((line, index) => {
    if (line.xMm <= farMm + 2 || line.xMm >= farMm + NEAR_TAIL_MM) return;
    for (let row = 0; row < evidence.rows; row++) {
      const value = evidence.seen[index * evidence.rows + row];
      if (value < 0 || isCovered(line.xMm, (row + 0.5) * evidence.rowMm)) continue;
      looked++;
      if (value > 0.4) seen++;
    }
  });
  // At the board's very end there is nothing left to look at.
  const share = looked < 12 ? 1 : seen / looked;
  const clarity = evidence.clearShare;
  const tone = share < 0.45 || clarity < 0.12 ? 'fault' : share < 0.7 || clarity < 0.2 ? 'look' : 'clear';
  return findingOf(
    'unsharp',
    tone,
    tone === 'look' ? 0.55 : 0.85,
    tone === 'clear' ? { code: 'lines-read' } : { code: 'lines-read-in-part', share },
    toPhoto(farMm + 10, pattern.widthMm / 2),
    { value: share, unit: 'share' },
  );
}

/** Steps between px this far apart are compared: a sharp edge has all of its step within the nearer ones. */
const NEAR_PX = 2;
const FAR_PX = 8;
/** Every so many px are enough to know the strongest edges. */
const ROW_STRIDE = 11;
const COLUMN_STRIDE = 7;
const BLURRED = 0.38;
const DOUBTFUL = 0.44;

/** How sharp a picture's strongest edges are: their step over 2 px as a share of that over 8 px. */
export function edgeSharpness({ widthPx, heightPx, data }: Tones): number {
  const count = Math.ceil(Math.max(0, heightPx - 2 * FAR_PX) / ROW_STRIDE) * Math.ceil(Math.max(0, widthPx - 2 * FAR_PX) / COLUMN_STRIDE); // prettier-ignore
  const near = new Float64Array(count);
  const far = new Float64Array(count);
  let seen = 0;
  for (let row = FAR_PX; row < heightPx - FAR_PX; row += ROW_STRIDE) {
    for (let column = FAR_PX; column < widthPx - FAR_PX; column += COLUMN_STRIDE) {
      const at = row * widthPx + column;
      near[seen] = Math.abs(data[at + NEAR_PX / 2] - data[at - NEAR_PX / 2]);
      far[seen++] = Math.abs(data[at + FAR_PX / 2] - data[at - FAR_PX / 2]);
    }
  }
  const top = (values: Float64Array): number => values.sort()[Math.floor(0.985 * values.length)];
  return top(near) / Math.max(1e-6, top(far));
}

/** What blur alone says. */
export function blurFinding(sharpness: number): Finding {
  const measure = { value: sharpness, unit: 'share' } as const;
  if (sharpness < BLURRED) return findingOf('unsharp', 'fault', 0.7, { code: 'all-blurred' }, null, measure);
  if (sharpness < DOUBTFUL)
    return findingOf('unsharp', 'look', 0.5, { code: 'may-be-blurred' }, null, measure);
  return findingOf('unsharp', 'clear', 0.5, { code: 'edges-sharp' }, null, measure);
}
