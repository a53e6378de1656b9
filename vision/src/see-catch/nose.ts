import { cameraPlaceMm } from '../camera/lens.ts';
import { NOSE_HEIGHT_SIGMA_SHARE, type HeadView } from './headView.ts';
import type { PlateView } from './plateView.ts';
import { fitLine } from '../geometry/fitLine.ts';
import type { Point } from '../geometry/point.ts';
import type { SeenCatch } from './seenCatch.ts';
import { columnAt, columnStart, rowAt, rowsTo } from '../grid/planeGrid.ts';

/** Where the nose is seen against the stop. */
export interface NoseSeen {
  /** How far the nose lies from the stop by its own colours, mm; under 0 it seems to lie beyond: higher than thought. */
  gapMm: number;
  /** The same if all that is darker than the plate is nose, not shadow, and a pointed snout goes on into the dark. */
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
  const onFace = seeOnFace(seen, head.axisMm, 0.09 * lengthMm + 6);
  const gapOnFace = (faceMm: number): number =>
    (faceMm + head.noseHeightMm * (cameraX / cameraZ)) / (1 + head.noseHeightMm / cameraZ);
  const gapOnPlate = (mask: Uint8Array | undefined): number | null => {
    const highMm = head.plate && mask ? highestFrom(head.plate, mask, head.axisMm, 0.08 * lengthMm + 6) : 0;
    return highMm >= LEAST_ON_PLATE_MM ? gapAt(highMm) : null;
  };
  return {
    gapMm: gapOnPlate(head.plate?.other) ?? gapOnFace(onFace.firstMm),
    leastGapMm: Math.min(gapOnPlate(head.plate?.differs) ?? Infinity, gapOnFace(onFace.apexMm)),
    sigmaMm: Math.hypot(NOSE_HEIGHT_SIGMA_SHARE * lengthMm * lean, 0.7),
  };
}

/** A head narrows in a straight line over so much of its front, mm. */
const NARROWS_MM = 24;
/** What begins wider than this is blunt; of a pointed snout no more than so much is lost in the dark, mm. */
const POINTED_MM = 8;
const MOST_UNSEEN_MM = 8;
/** Columns of the front that are needed to tell how it narrows. */
const LEAST_COLUMNS = 6;

/** Where the fish begins on the face. */
interface OnFace {
  /** The first place that is surely covered, mm. */
  firstMm: number;
  /** Where its edges would meet: in the dark a pointed snout is seen only from where it is wide, mm. */
  apexMm: number;
}

/** Looks for the fish's front in the rows about its axis. */
function seeOnFace({ fish }: SeenCatch, axisMm: number, reachMm: number): OnFace {
  const { view, coverage } = fish;
  const { columns, cellsPerMm } = view;
  const from = Math.max(0, columnAt(view, 0));
  const top = Math.max(0, rowAt(view, axisMm - reachMm));
  const bottom = Math.min(view.rows - 1, Math.ceil(rowsTo(view, axisMm + reachMm)));
  const isCovered = (column: number, row: number): boolean =>
    [0, 1, 2].every((off) => coverage.odds[row * columns + column + off] > 0.5);
  const front: (readonly [column: number, wide: number])[] = [];
  const last = (): number => (front[0]?.[0] ?? fish.piece.toColumn) + NARROWS_MM * cellsPerMm;
  for (let column = from; column < Math.min(fish.piece.toColumn, last()); column++) {
    let [run, wide] = [0, 0];
    for (let row = top; row <= bottom; row++) {
      run = isCovered(column, row) ? run + 1 : 0;
      wide = Math.max(wide, run);
    }
    if (wide >= LEAST_WIDE_CELLS) front.push([column, wide]);
  }
  const [first] = front;
  if (!first) return { firstMm: 0, apexMm: 0 };
  const toMm = (column: number): number => columnStart(view, column);
  const firstMm = toMm(first[0]);
  const isPointed = first[1] <= POINTED_MM * cellsPerMm;
  const apexMm = isPointed ? Math.min(firstMm, Math.max(toMm(meetingColumn(front)), firstMm - MOST_UNSEEN_MM)) : firstMm; // prettier-ignore
  return { firstMm, apexMm };
}

/** Fewer covered cells across are a speck. */
const LEAST_WIDE_CELLS = 3;

/** Where the front's width comes to nothing if it narrows as it does: least squares. */
function meetingColumn(front: readonly Point[]): number {
  if (front.length < LEAST_COLUMNS) return Infinity;
  const { xMean, yMean, slope } = fitLine(front);
  return slope > 0 ? xMean - yMean / slope : -Infinity;
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
    const at = stack.pop() ?? 0;
    if (joined[at]) continue;
    joined[at] = 1;
    const column = at % columns;
    const row = (at - column) / columns;
    byRow[row] = byRow[row] + 1;
    if (column > left && mask[at - 1]) stack.push(at - 1);
    if (column < right && mask[at + 1]) stack.push(at + 1);
    if (row > 0 && mask[at - columns]) stack.push(at - columns);
    if (row + 1 < rows && mask[at + columns]) stack.push(at + columns);
  }
  for (let row = rows - 1; row >= 0; row--) if (byRow[row] >= 2) return (row + 1) / cellsPerMm;
  return 0;
}
