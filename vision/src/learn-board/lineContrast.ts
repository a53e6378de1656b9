import { toneAt, type Tones } from '../find-board/tones.ts';
import { projectBoardPoint, type LensPose } from '../camera/lens.ts';

/** What an unknown board's print is looked for in. */
export interface PrintedFace {
  smooth: Tones;
  pose: LensPose;
  widthMm: number;
  inkDarker: boolean;
}

/** How a line's places are looked at, mm. */
export interface LineSight {
  /** How far beside the line its ground is looked at: not as far as the next line. */
  flankMm: number;
  /** The line may lie this far beside the place. */
  slackMm: number;
  /** Both sides must be bare; otherwise the clearer one counts, for a numeral may stand on the other. */
  bothSides?: boolean;
}

/**
 * How much darker (or lighter, by the ink) a place is than its neighbours along the board, in log brightness; about 0
 * where no line is, null outside of the picture.
 */
export function lineContrast(
  face: PrintedFace,
  xMm: number,
  yMm: number,
  { flankMm, slackMm, bothSides = false }: LineSight,
): number | null {
  const sign = face.inkDarker ? 1 : -1;
  const at = (x: number): number | null => {
    const [px, py] = projectBoardPoint(face.pose, x, yMm);
    const { widthPx, heightPx } = face.smooth;
    if (px < 1 || py < 1 || px > widthPx - 2 || py > heightPx - 2) return null;
    return sign * toneAt(face.smooth, px, py);
  };
  let best: number | null = null;
  for (let off = -slackMm; off <= slackMm + 1e-9; off += 0.25) {
    const middle = at(xMm + off);
    const before = at(xMm + off - flankMm);
    const after = at(xMm + off + flankMm);
    if (middle === null || before === null || after === null) continue;
    best = Math.max(
      best ?? -Infinity,
      (bothSides ? Math.min(before, after) : Math.max(before, after)) - middle,
    );
  }
  return best;
}

/** The value under which `share` of the values lie; 0 for none. */
export function quantile(values: readonly number[], share: number): number {
  if (values.length === 0) return 0;
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
}

/** Contrast across the face of all given places along it, one value a band; members that leave the picture are left out. */
export function bandsOf(
  face: PrintedFace,
  placesMm: readonly number[],
  { bandMm, share, ...sight }: LineSight & { bandMm: number; share: number },
): number[] {
  const count = Math.max(1, Math.round(face.widthMm / bandMm));
  return Array.from({ length: count }, (_, band) => {
    const yMm = ((band + 0.5) * face.widthMm) / count;
    const seen: number[] = [];
    for (const xMm of placesMm) {
      const value = lineContrast(face, xMm, yMm, sight);
      if (value !== null) seen.push(value);
    }
    return quantile(seen, share);
  });
}
