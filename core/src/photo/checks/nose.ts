import { cameraPlaceMm } from '../lens.ts';
import { NOSE_HEIGHT_SHARE, NOSE_HEIGHT_SIGMA_SHARE, type HeadView } from './headView.ts';
import type { PlateView } from './plateView.ts';
import { findingOf, type Finding } from '../findings.ts';
import type { SeenCatch } from './seenCatch.ts';

/** Where the nose is seen against the stop. */
export interface NoseSeen {
  /** How far the nose lies from the stop by its own colours, mm; under 0 it seems to lie beyond: higher than thought. */
  gapMm: number;
  /** The same if all that is darker than the plate is nose, not shadow. */
  leastGapMm: number;
  sigmaMm: number;
}

/** How high above the plate's foot something must be seen to stand before it, mm. */
const LEAST_ON_PLATE_MM = 1.5;

/**
 * The nose's distance from the stop. From above, a nose that touches hides the plate up to its own height; one that
 * does not hides less of it, or none. Its own height is known from the fish's length only to about a fifth.
 */
export function seeNose(seen: SeenCatch, head: HeadView): NoseSeen | null {
  const lengthMm = seen.farMm;
  const [cameraX, , cameraZ] = cameraPlaceMm(seen.pose);
  // A camera over the stop or behind it does not see the plate.
  if (cameraX < 60) return null;
  const lean = cameraX / (cameraZ - head.noseHeightMm);
  const gapAt = (highMm: number): number => (head.noseHeightMm - highMm) * lean;
  const faceMm = firstOnFace(seen, head.axisMm, 0.09 * lengthMm + 6);
  const gapOnFace = (faceMm + head.noseHeightMm * (cameraX / cameraZ)) / (1 + head.noseHeightMm / cameraZ);
  const gapFor = (mask: Uint8Array | undefined): number => {
    const highMm = head.plate && mask ? highestFrom(head.plate, mask, head.axisMm, 0.08 * lengthMm + 6) : 0;
    return highMm >= LEAST_ON_PLATE_MM ? gapAt(highMm) : gapOnFace;
  };
  return {
    gapMm: gapFor(head.plate?.other),
    leastGapMm: gapFor(head.plate?.differs),
    sigmaMm: Math.hypot(NOSE_HEIGHT_SIGMA_SHARE * lengthMm * lean, 0.7),
  };
}

/** Where the fish begins on the face, mm, in the rows about its axis. */
function firstOnFace({ fish }: SeenCatch, axisMm: number, reachMm: number): number {
  const { view, coverage } = fish;
  const { columns, cellsPerMm } = view;
  const from = Math.max(0, Math.floor((0 - view.fromXMm) * cellsPerMm));
  const top = Math.max(0, Math.floor((axisMm - reachMm - view.fromYMm) * cellsPerMm));
  const bottom = Math.min(view.rows - 1, Math.ceil((axisMm + reachMm - view.fromYMm) * cellsPerMm));
  for (let column = from; column < fish.piece.toColumn; column++) {
    let run = 0;
    for (let row = top; row <= bottom; row++) {
      const covered = [0, 1, 2].every((off) => (coverage.odds[row * columns + column + off] as number) > 0.5);
      run = covered ? run + 1 : 0;
      if (run >= 3) return view.fromXMm + column / cellsPerMm;
    }
  }
  return 0;
}

/** How high what stands on the plate's foot about the nose reaches, mm. */
function highestFrom(plate: PlateView, mask: Uint8Array, noseYMm: number, reachMm: number): number {
  const { columns, rows, cellsPerMm, fromYMm } = plate;
  const left = Math.max(0, Math.floor((noseYMm - reachMm - fromYMm) * cellsPerMm));
  const right = Math.min(columns - 1, Math.ceil((noseYMm + reachMm - fromYMm) * cellsPerMm));
  const joined = new Uint8Array(columns * rows);
  const stack: number[] = [];
  for (let row = 0; row < 3; row++)
    for (let column = left; column <= right; column++)
      if (mask[row * columns + column]) stack.push(row * columns + column);
  const byRow = new Array<number>(rows).fill(0);
  while (stack.length > 0) {
    const at = stack.pop() as number;
    if (joined[at]) continue;
    joined[at] = 1;
    const column = at % columns;
    const row = (at - column) / columns;
    byRow[row] = (byRow[row] as number) + 1;
    if (column > left && mask[at - 1]) stack.push(at - 1);
    if (column < right && mask[at + 1]) stack.push(at + 1);
    if (row > 0 && mask[at - columns]) stack.push(at - columns);
    if (row + 1 < rows && mask[at + columns]) stack.push(at + columns);
  }
  for (let row = rows - 1; row >= 0; row--) if ((byRow[row] as number) >= 2) return (row + 1) / cellsPerMm;
  return 0;
}

/** Fewer mm than this are not told from a nose that touches. */
const LEAST_GAP_MM = 4.5;

export function noseFinding(seen: SeenCatch, nose: NoseSeen | null, axisMm: number): Finding {
  const check = 'nose-gap';
  if (!nose) return findingOf(check, 'clear', 0.3, 'From over the stop the nose’s place cannot be told.');
  const { gapMm, leastGapMm, sigmaMm } = nose;
  const place = seen.toPhoto(Math.max(0, gapMm), axisMm, NOSE_HEIGHT_SHARE * seen.farMm);
  const isApart = gapMm > Math.max(LEAST_GAP_MM, 2.6 * sigmaMm);
  const isApartAtLeast = leastGapMm > Math.max(0.6 * LEAST_GAP_MM, 1.5 * sigmaMm);
  const measure = { value: Math.max(0, gapMm), unit: 'mm' } as const;
  if (isApart && isApartAtLeast)
    return findingOf(
      check,
      'fault',
      0.9,
      `The nose lies about ${gapMm.toFixed(0)} mm from the stop.`,
      place,
      measure,
    );
  if (isApart || gapMm > Math.max(LEAST_GAP_MM, 1.7 * sigmaMm))
    return findingOf(
      check,
      'look',
      0.5,
      'The nose may not touch the stop: it is dark there.',
      place,
      measure,
    );
  return findingOf(
    check,
    'clear',
    gapMm < 2 * sigmaMm ? 0.9 : 0.6,
    'The nose touches the stop.',
    null,
    measure,
  );
}
