import { viewFace, type FaceView } from '../find-fish/faceView.ts';
import { label, opened, type Piece } from '../find-fish/pieces.ts';
import { axisAtStop } from '../find-fish/outline.ts';
import { cameraPlaceMm } from '../camera/lens.ts';
import { viewPlate, type PlateView } from './plateView.ts';
import type { SeenCatch } from './seenCatch.ts';
import { columnAt, columnMiddle, rowAt, rowMiddle } from '../grid/planeGrid.ts';

/** Height of a closed mouth over the face, as a share of the fish's length, and how much it varies (from memory). */
export const NOSE_HEIGHT_SHARE = 0.045;
export const NOSE_HEIGHT_SIGMA_SHARE = 0.009;

const CELLS_PER_MM = 3;
/** Cells a mm of the plate's view beside it. */
const PLATE_CELLS = 2;
/** The mask of what lies on the face begins so far from the stop, mm: nearer to it the colours alone tell. */
const MASK_FROM_MM = 5;

/** The head drawn in the plane at the height of its nose: there a nose that touches lies at x = 0. */
export interface HeadView {
  view: FaceView;
  /** 1 where something is seen that is neither board nor plate. */
  other: Uint8Array;
  /** The largest piece of it: the head. */
  fish: Uint8Array;
  plate: PlateView | null;
  axisMm: number;
  noseHeightMm: number;
}

export function viewHead(
  { photo, pose, pattern, fish, outline, farMm: lengthMm }: SeenCatch,
  cellsPerMm = CELLS_PER_MM,
): HeadView {
  const axisMm = axisAtStop(outline);
  const noseHeightMm = NOSE_HEIGHT_SHARE * lengthMm;
  const reachMm = 0.15 * lengthMm + 10;
  const view = viewFace(
    photo,
    pose,
    {
      fromXMm: -14,
      toXMm: 0.25 * lengthMm,
      fromYMm: axisMm - reachMm,
      toYMm: axisMm + reachMm,
      cellsPerMm,
    },
    1,
    noseHeightMm,
  );
  const plate = viewPlate(photo, pose, pattern, axisMm, (cellsPerMm * PLATE_CELLS) / CELLS_PER_MM);
  const [cameraX, cameraY, cameraZ] = cameraPlaceMm(pose);
  const mask = new Uint8Array(view.columns * view.rows);
  const face = fish.view;
  for (let row = 0; row < view.rows; row++) {
    const yMm = rowMiddle(view, row);
    for (let column = 0; column < view.columns; column++) {
      const xMm = columnMiddle(view, column);
      const i = row * view.columns + column;
      if (!view.inPhoto[i]) continue;
      // The ray goes on beyond the nose's plane to the face, or to the plate that stands in its way.
      const down = cameraZ / (cameraZ - noseHeightMm);
      const faceX = cameraX + (xMm - cameraX) * down;
      const faceY = cameraY + (yMm - cameraY) * down;
      if (faceX >= 0) {
        const fc = columnAt(face, faceX);
        const fr = rowAt(face, faceY);
        if (fc < 0 || fr < 0 || fc >= face.columns || fr >= face.rows) continue;
        const at = fr * face.columns + fc;
        const label = fish.labels[at];
        mask[i] =
          faceX >= MASK_FROM_MM ? (label === fish.piece.label ? 1 : 0) : fish.coverage.odds[at] > 0.5 ? 1 : 0;
        continue;
      }
      if (!plate) continue;
      const along = cameraX / (cameraX - xMm);
      const plateY = cameraY + (yMm - cameraY) * along;
      const plateZ = cameraZ + (noseHeightMm - cameraZ) * along;
      const pc = Math.floor((plateY - plate.fromYMm) * plate.cellsPerMm);
      const pr = Math.floor(plateZ * plate.cellsPerMm);
      if (pc < 0 || pr < 0 || pc >= plate.columns || pr >= plate.rows) continue;
      mask[i] = plate.other[pr * plate.columns + pc];
    }
  }
  return {
    view,
    other: mask,
    fish: headOf(mask.slice(), view.columns, view.rows),
    plate,
    axisMm,
    noseHeightMm,
  };
}

/** The largest piece alone: specks of shadow and grain on the plate are no head. */
function headOf(mask: Uint8Array, columns: number, rows: number): Uint8Array {
  opened(mask, columns, rows, 1);
  const { labels, pieces } = label(mask, columns, rows);
  const largest = pieces.reduce<Piece | null>(
    (best, piece) => (!best || piece.area > best.area ? piece : best),
    null,
  );
  return Uint8Array.from(labels, (value) => (largest && value === largest.label ? 1 : 0));
}
