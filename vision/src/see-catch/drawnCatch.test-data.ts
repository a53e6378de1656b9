import { findBoard, type MeasuringBoard } from '../board/board.ts';
import { patternOf } from '../find-board/pattern.ts';
import { smoothTones, tonesOf } from '../find-board/tones.ts';
import {
  drawBoardPicture,
  flatFish,
  poseOf,
  type BoardPicture,
  type BoardView,
} from '../board/drawnBoard.test-data.ts';
import { locateFish, type SeenFish } from '../find-fish/locateFish.ts';
import { outlineOf } from '../find-fish/outline.ts';
import { cameraPlaceMm, projectBoardPoint } from '../camera/lens.ts';
import type { Point } from '../geometry/point.ts';
import type { SeenCatch } from './seenCatch.ts';

export type Rgb = readonly [number, number, number];
export const GREEN: Rgb = [88, 104, 52];
export const SKIN: Rgb = [206, 156, 126];

const SIZE = { widthPx: 1200, heightPx: 900 };

/** What a test wants of a drawn fish. All of it is drawn flat, where its projection from its height would fall. */
export interface CatchWish {
  lengthMm: number;
  boardId?: string;
  view?: Partial<BoardView>;
  /** How far the nose lies from the stop, and how high over the board, mm. */
  noseGapMm?: number;
  noseHeightMm?: number;
  colour?: Rgb;
  /** What lies on fish and board, and reaches beyond it. */
  things?: readonly { outlineMm: readonly Point[]; colour: Rgb }[];
}

/** A rectangle across the board, mm. */
export function block(x0: number, x1: number, y0: number, y1: number): Point[] {
  return [[x0, y0], [x1, y0], [x1, y1], [x0, y1]]; // prettier-ignore
}

/** Where a place of a given height is seen on the face's plane: along the ray, by similar triangles. */
export function seenAt({ pose }: Pick<BoardPicture, 'pose'>, xMm: number, yMm: number, zMm: number): Point {
  const [cameraX, cameraY, cameraZ] = cameraPlaceMm(pose);
  const far = cameraZ / (cameraZ - zMm);
  return [cameraX + (xMm - cameraX) * far, cameraY + (yMm - cameraY) * far];
}

/** Draws a catch and finds its fish with the pose that it was drawn with. */
export function seeDrawn(wish: CatchWish): SeenCatch {
  const board = findBoard(wish.boardId ?? 'birch-30in') as MeasuringBoard;
  const view: BoardView = { seed: Math.round(wish.lengthMm), ...SIZE, ...wish.view };
  const pose = poseOf(board, view);
  const axisMm = board.widthMm / 2;
  const [noseMm] = seenAt({ pose }, wish.noseGapMm ?? 0, axisMm, wish.noseHeightMm ?? 0.045 * wish.lengthMm);
  const stretch = (wish.lengthMm - noseMm) / wish.lengthMm;
  const outlineMm = flatFish(wish.lengthMm, axisMm).map(([x, y]): Point => [noseMm + x * stretch, y]);
  const picture = drawBoardPicture(board, {
    ...view,
    things: [{ outlineMm, colour: wish.colour ?? GREEN }, ...(wish.things ?? [])],
  });
  return see(picture);
}

export function see({ board, raster: photo, pose }: BoardPicture): SeenCatch {
  const pattern = patternOf(board);
  const smooth = smoothTones(tonesOf(photo));
  const face = locateFish(photo, smooth, pose, pattern);
  if (!face.piece) throw new Error('drawn catch: expected a fish');
  const fish = face as SeenFish;
  return {
    photo,
    smooth,
    pose,
    pattern,
    fish,
    outline: outlineOf(fish.view, fish.labels, fish.piece, pattern.widthMm),
    farMm: fish.tip?.xMm ?? fish.view.fromXMm + (fish.piece.toColumn + 1) / fish.view.cellsPerMm,
    toPhoto: (xMm, yMm, zMm) => projectBoardPoint(pose, xMm, yMm, zMm),
  };
}
