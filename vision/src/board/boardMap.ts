import { faceCornersMm, type MeasuringBoard } from './board.ts';
import { cameraPose, type CameraPose } from '../camera/camera.ts';
import { fitHomography, invertHomography, mapPoint } from '../camera/homography.ts';
import { distortPx, undistortPx } from '../camera/lens.ts';
import type { Point, Quad } from '../geometry/point.ts';

/** The lens of a photograph, as far as it bends the board: focal length and one radial term (OpenCV's k1). */
export interface BoardLens {
  focalPx: number;
  k1: number;
}

/** Both ways between px of a photograph and mm of the ruled face. */
export interface BoardMap {
  toBoard(px: Point): Point;
  toPhoto(mm: Point): Point;
  pose(focalPx: number): CameraPose;
}

/**
 * The map that four corners fix: a homography, after the lens's distortion has been taken out.
 * @param lens null for a lens without distortion
 * @throws RangeError for corners that fix no plane
 */
export function boardMap(
  board: MeasuringBoard,
  corners: Quad,
  lens: BoardLens | null,
  { widthPx, heightPx }: { widthPx: number; heightPx: number },
): BoardMap {
  const centrePx: Point = [(widthPx - 1) / 2, (heightPx - 1) / 2];
  const straight = (px: Point): Point => {
    if (!lens) return px;
    const [u, v] = undistortPx({ ...lens, centrePx }, px[0], px[1]);
    return [centrePx[0] + lens.focalPx * u, centrePx[1] + lens.focalPx * v];
  };
  const bent = (px: Point): Point => {
    if (!lens) return px;
    return distortPx(
      { ...lens, centrePx },
      (px[0] - centrePx[0]) / lens.focalPx,
      (px[1] - centrePx[1]) / lens.focalPx,
    );
  };
  const toStraight = fitHomography(faceCornersMm(board), corners.map(straight));
  const toFace = invertHomography(toStraight);
  return {
    toBoard: (px) => mapPoint(toFace, straight(px)),
    toPhoto: (mm) => bent(mapPoint(toStraight, mm)),
    pose: (focalPx) => cameraPose(toStraight, focalPx, centrePx),
  };
}
