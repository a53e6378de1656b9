import { seededDice } from '@lauta/core/dice';
import { boardLines, boardNumerals, faceLengthMm, type MeasuringBoard } from './board.ts';
import { boardPointOf, cameraPlaceMm, projectBoardPoint, turnedBy, type LensPose } from '../camera/lens.ts';
import { crossingsAt, glyphOf, textWidthMm } from './lettering.ts';
import type { Point } from '../geometry/point.ts';
import type { Raster } from '../image/raster.ts';

/** How a drawn board is looked at. */
export interface BoardView {
  seed: number;
  widthPx?: number;
  heightPx?: number;
  rollDeg?: number;
  tiltDeg?: number;
  /** Direction of the tilt: 0 along the board. */
  towardsDeg?: number;
  fieldDeg?: number;
  k1?: number;
  fillShare?: number;
  withNumerals?: boolean;
  /** Grey cloth from and to along the board. */
  coveredMm?: readonly [number, number];
  /** Flat things on the face, board mm, the later ones on top. */
  things?: readonly { outlineMm: readonly Point[]; colour: readonly [number, number, number] }[];
  /** Share of the light that is left at a place: shadows. */
  lightAt?: (xMm: number, yMm: number) => number;
}

export interface BoardPicture {
  board: MeasuringBoard;
  raster: Raster;
  pose: LensPose;
  focal35Mm: number;
}

const CELLS_PER_MM = 4;
/** Brightness of what lies around the board, 0-255. */
const GROUND = 105;
const THING_CELLS_PER_MM = 8;

/** Draws a board as print alone, evenly lit on grey noise: for tests of the search with a known pose. */
export function drawBoardPicture(board: MeasuringBoard, view: BoardView): BoardPicture {
  const widthPx = view.widthPx ?? 1600;
  const heightPx = view.heightPx ?? 1200;
  const pose = poseOf(board, view);
  const { focalPx } = pose;
  const print = printOf(board, view.withNumerals ?? true);
  const dice = seededDice(view.seed);
  const data = new Uint8ClampedArray(widthPx * heightPx * 4);
  const face = rgbOf(board.face);
  const ink = rgbOf(board.ink);
  const lengthMm = faceLengthMm(board);
  const things = (view.things ?? []).map((thing) => ({ ...thing, isInside: insideOf(thing.outlineMm) }));
  const place = new Float64Array(2);
  const findPlace = boardPlaces(pose, place);
  const [faceRed, faceGreen, faceBlue] = face;
  const [inkRed, inkGreen, inkBlue] = [ink[0] - faceRed, ink[1] - faceGreen, ink[2] - faceBlue];
  for (let row = 0; row < heightPx; row++) {
    for (let column = 0; column < widthPx; column++) {
      let red = 0;
      let green = 0;
      let blue = 0;
      for (let ray = 0; ray < 4; ray++) {
        findPlace(column + ((ray & 1) - 0.5) / 2, row + ((ray >> 1) - 0.5) / 2);
        const x = place[0];
        const y = place[1];
        const covered = view.coveredMm && x > view.coveredMm[0] && x < view.coveredMm[1];
        let top = things.length - 1;
        while (top >= 0 && !things[top]?.isInside(x, y)) top--;
        // An index of −1 would be looked up by its name.
        const thing = top < 0 ? undefined : things[top];
        const light = view.lightAt ? view.lightAt(x, y) / 4 : 0.25;
        if (thing) {
          red += light * thing.colour[0];
          green += light * thing.colour[1];
          blue += light * thing.colour[2];
        } else if (covered || x < 0 || y < 0 || x >= lengthMm || y >= board.widthMm) {
          red += light * GROUND;
          green += light * GROUND;
          blue += light * GROUND;
        } else {
          const inked = print.at(x, y);
          red += light * (faceRed + inkRed * inked);
          green += light * (faceGreen + inkGreen * inked);
          blue += light * (faceBlue + inkBlue * inked);
        }
      }
      const noise = 6 * (dice() + dice() - 1);
      const at = (row * widthPx + column) * 4;
      data[at] = red + noise;
      data[at + 1] = green + noise;
      data[at + 2] = blue + noise;
      data[at + 3] = 255;
    }
  }
  const focal35Mm = Math.round((focalPx / Math.hypot(widthPx, heightPx)) * Math.hypot(36, 24));
  return { board, raster: { widthPx, heightPx, data }, pose, focal35Mm };
}

/** `boardPointOf` for millions of px: what it finds it puts into `place`. */
function boardPlaces(pose: LensPose, place: Float64Array): (px: number, py: number) => void {
  const r = pose.rotation;
  const [cameraX, cameraY, cameraZ] = cameraPlaceMm(pose);
  const { focalPx, k1, centrePx } = pose;
  return (px, py) => {
    if (k1 !== 0) {
      place.set(boardPointOf(pose, px, py));
      return;
    }
    const u = (px - centrePx[0]) / focalPx;
    const v = (py - centrePx[1]) / focalPx;
    const reach = cameraZ / (r[2] * u + r[5] * v + r[8]);
    place[0] = cameraX + reach * (r[0] * u + r[3] * v + r[6]);
    place[1] = cameraY + reach * (r[1] * u + r[4] * v + r[7]);
  };
}

/** The camera that looks at a drawn board. */
export function poseOf(board: MeasuringBoard, view: BoardView): LensPose {
  const widthPx = view.widthPx ?? 1600;
  const heightPx = view.heightPx ?? 1200;
  const focalPx = widthPx / 2 / Math.tan(((view.fieldDeg ?? 75) * Math.PI) / 360);
  const rad = (degrees: number): number => (degrees * Math.PI) / 180;
  const towards = rad(view.towardsDeg ?? 45);
  const tilt = rad(view.tiltDeg ?? 4);
  const rotation = turnedBy(
    turnedBy([1, 0, 0, 0, 1, 0, 0, 0, 1], [tilt * Math.sin(towards), -tilt * Math.cos(towards), 0]),
    [0, 0, rad(view.rollDeg ?? 2)],
  );
  const lengthMm = faceLengthMm(board);
  const middle = [lengthMm / 2, board.widthMm / 2] as const;
  const centrePx = [(widthPx - 1) / 2, (heightPx - 1) / 2] as const;
  const at = (rangeMm: number): LensPose => ({
    rotation,
    zeroMm: [
      -(rotation[0] * middle[0] + rotation[1] * middle[1]),
      -(rotation[3] * middle[0] + rotation[4] * middle[1]),
      rangeMm - (rotation[6] * middle[0] + rotation[7] * middle[1]),
    ],
    focalPx,
    k1: view.k1 ?? 0,
    centrePx,
  });
  let rangeMm = (focalPx * lengthMm) / ((view.fillShare ?? 0.85) * widthPx);
  const corners = [[0, 0], [lengthMm, 0], [lengthMm, board.widthMm], [0, board.widthMm]] as const; // prettier-ignore
  const inside = (pose: LensPose): boolean =>
    corners.every(([x, y]) => {
      const [px, py] = projectBoardPoint(pose, x, y);
      return px > 12 && py > 12 && px < widthPx - 12 && py < heightPx - 12;
    });
  while (!inside(at(rangeMm))) rangeMm *= 1.02;
  return at(rangeMm);
}

/** Share of ink by place, mm. */
function printOf(board: MeasuringBoard, withNumerals: boolean): { at(x: number, y: number): number } {
  const columns = Math.ceil(faceLengthMm(board) * CELLS_PER_MM) + 1;
  const rows = Math.ceil(board.widthMm * CELLS_PER_MM);
  const ink = new Uint8Array(columns * rows);
  const fill = (x0: number, x1: number, row: number): void => {
    for (
      let column = Math.max(0, Math.round(x0 * CELLS_PER_MM));
      column < Math.min(columns, Math.round(x1 * CELLS_PER_MM));
      column++
    )
      ink[row * columns + column] = 1;
  };
  const [lines, numerals] = [boardLines(board), boardNumerals(board)];
  for (let row = 0; row < rows; row++) {
    const y = (row + 0.5) / CELLS_PER_MM;
    for (const { xMm, strokeMm, spans } of lines) {
      if (spans.some(([from = 0, to = 1]) => y >= from * board.widthMm && y <= to * board.widthMm))
        fill(xMm - strokeMm / 2, xMm + strokeMm / 2, row);
    }
    if (!withNumerals) continue;
    for (const { text, rightMm, centreYMm, heightMm } of numerals) {
      const base = centreYMm + heightMm / 2;
      if (y > base || y < base - heightMm) continue;
      let pen = rightMm - textWidthMm(text, heightMm);
      for (const letter of text) {
        const glyph = glyphOf(letter);
        const crossings = crossingsAt(glyph.contours, (base - y) / heightMm);
        for (let i = 0; i + 1 < crossings.length; i += 2)
          fill(pen + crossings[i] * heightMm, pen + crossings[i + 1] * heightMm, row);
        pen += glyph.advance * heightMm;
      }
    }
  }
  return {
    at: (x, y) =>
      ink[
        Math.min(rows - 1, Math.floor(y * CELLS_PER_MM)) * columns +
          Math.min(columns - 1, Math.floor(x * CELLS_PER_MM))
      ],
  };
}

/** Whether a place lies inside of an outline (even-odd rule), looked up in cells of an eighth of a mm. */
export function insideOf(outline: readonly Point[]): (xMm: number, yMm: number) => boolean {
  const [xs, ys] = [outline.map(([x]) => x), outline.map(([, y]) => y)];
  const [fromXMm, fromYMm] = [Math.min(...xs), Math.min(...ys)];
  const columns = Math.ceil((Math.max(...xs) - fromXMm) * THING_CELLS_PER_MM);
  const rows = Math.ceil((Math.max(...ys) - fromYMm) * THING_CELLS_PER_MM);
  const cells = new Uint8Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    const crossings = crossingsAt([outline.flat()], fromYMm + (row + 0.5) / THING_CELLS_PER_MM);
    for (let i = 0; i + 1 < crossings.length; i += 2) {
      const cell = (xMm: number): number => Math.round((xMm - fromXMm) * THING_CELLS_PER_MM);
      cells.fill(1, row * columns + cell(crossings[i]), row * columns + cell(crossings[i + 1]));
    }
  }
  return (xMm, yMm) => {
    const column = Math.floor((xMm - fromXMm) * THING_CELLS_PER_MM);
    const row = Math.floor((yMm - fromYMm) * THING_CELLS_PER_MM);
    return column >= 0 && row >= 0 && column < columns && row < rows && cells[row * columns + column] === 1;
  };
}

/** A flat fish: nose at the stop, a body, a narrow root of the tail, a fork whose upper lobe reaches `lengthMm`. */
export function flatFish(lengthMm: number, axisMm: number, depthShare = 0.26): Point[] {
  const half = (depthShare * lengthMm) / 2;
  const upper: Point[] = [];
  const lower: Point[] = [];
  for (let share = 0; share <= 0.84; share += 0.02) {
    const thick = half * Math.max(0.16, Math.sin(Math.PI * Math.min(1, share / 0.86) ** 0.7));
    upper.push([share * lengthMm, axisMm - thick]);
    lower.push([share * lengthMm, axisMm + thick]);
  }
  const tail: Point[] = [
    [0.97 * lengthMm, axisMm - 0.85 * half],
    [lengthMm, axisMm - 0.6 * half],
    [lengthMm, axisMm - 0.45 * half],
    [0.93 * lengthMm, axisMm],
    [0.985 * lengthMm, axisMm + 0.55 * half],
    [0.97 * lengthMm, axisMm + 0.85 * half],
  ];
  return [...upper, ...tail, ...lower.reverse()];
}

function rgbOf(hex: string): readonly [number, number, number] {
  const value = Number.parseInt(hex.slice(1), 16);
  return [(value >> 16) & 255, (value >> 8) & 255, value & 255];
}
