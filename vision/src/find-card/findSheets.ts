import { label } from '../find-fish/pieces.ts';
import { SummedArea } from '../image/summedArea.ts';
import { GLARE, type CardView } from './cardView.ts';
import { columnMiddle, rowMiddle } from '../grid/planeGrid.ts';

/** A white sheet that stands out from what it lies on: a card, whatever is on it. Board coordinates, mm. */
export interface Sheet {
  xMm: number;
  yMm: number;
  longMm: number;
  shortMm: number;
  /** Share of its rectangle that is white. */
  whiteShare: number;
  /** Share of its white that is brighter than the picture can tell. */
  glareShare: number;
  /** It goes on beyond the picture's edge. */
  isCut: boolean;
  /** Seen by its brightness alone: what the picture's edge leaves of a card is mostly code and letters. */
  isSliver: boolean;
}

const MOST_CHROMA = 0.17;
/** White is this much brighter than the surroundings' mean within so many mm. */
const BRIGHTER = 1.22;
const AROUND_MM = 90;
/** It changes by less than this share from cell to cell. */
const SMOOTH = 0.09;
/** A card's part at the picture's edge is so much brighter, smooth or not, and as long as one of a card's sides. */
const SLIVER_BRIGHTER = 1.4;
const SLIVER_AREA_MM2 = [240, 3600] as const;
const SLIVER_LONG_MM = [46, 98] as const;
const SLIVER_SHORT_MM = [6, 54] as const;
const AREA_MM2 = [420, 6500] as const;
const LONG_MM = [34, 104] as const;
const SHORT_MM = [18, 68] as const;

/** White sheets of a card's size, the most card-like first. */
export function findSheets(view: CardView, isBare: (xMm: number, yMm: number) => boolean): Sheet[] {
  const { columns, rows, cellsPerMm, luma, chroma } = view;
  const around = new SummedArea(columns, rows, (cell) => (view.inPhoto[cell] ? luma[cell] : NaN));
  const reach = Math.round((AROUND_MM * cellsPerMm) / 2);
  const smooth = new Uint8Array(columns * rows);
  const bright = new Uint8Array(columns * rows);
  for (let row = 1; row + 1 < rows; row++) {
    for (let column = 1; column + 1 < columns; column++) {
      const i = row * columns + column;
      const here = luma[i];
      if (!view.inPhoto[i] || chroma[i] > MOST_CHROMA) continue;
      const mean = around.meanAround(column, row, reach);
      if (here < BRIGHTER * mean) continue;
      if (here >= SLIVER_BRIGHTER * mean) bright[i] = 1;
      const step = Math.max(
        Math.abs(here - luma[i + 1]),
        Math.abs(here - luma[i + columns]),
        Math.abs(here - luma[i - 1]),
        Math.abs(here - luma[i - columns]),
      );
      if (step < SMOOTH * here) smooth[i] = 1;
    }
  }
  const whole = sheetsOf(view, smooth).filter(({ longMm, shortMm, areaMm2, isCut }) => {
    const slack = isCut ? 0.5 : 1;
    return (
      isWithin(areaMm2, AREA_MM2) &&
      isWithin(longMm, [LONG_MM[0] * slack, LONG_MM[1]]) &&
      isWithin(shortMm, [SHORT_MM[0] * slack, SHORT_MM[1]])
    );
  });
  const slivers = sheetsOf(view, bright)
    .filter(
      ({ longMm, shortMm, areaMm2, isCut }) =>
        isCut &&
        isWithin(areaMm2, SLIVER_AREA_MM2) &&
        isWithin(longMm, SLIVER_LONG_MM) &&
        isWithin(shortMm, SLIVER_SHORT_MM),
    )
    .map((sheet) => ({ ...sheet, isSliver: true }));
  return [...whole, ...slivers]
    .filter(({ xMm, yMm, whiteShare }) => whiteShare > LEAST_WHITE && !isBare(xMm, yMm))
    .sort((a, b) => b.whiteShare * b.longMm - a.whiteShare * a.longMm);
}

const LEAST_WHITE = 0.38;

export function isWithin(value: number, [least, most]: readonly [number, number]): boolean {
  return value >= least && value <= most;
}

/** Every connected piece of a mask as a sheet, whatever its size. */
function sheetsOf(view: CardView, mask: Uint8Array): (Sheet & { areaMm2: number })[] {
  const { columns, rows, cellsPerMm, luma } = view;
  const { labels, pieces } = label(mask, columns, rows);
  const least = Math.min(AREA_MM2[0], SLIVER_AREA_MM2[0]) * cellsPerMm ** 2;
  return pieces
    .filter(({ area }) => area >= least && area <= AREA_MM2[1] * cellsPerMm ** 2)
    .map((piece) => {
      const places: (readonly [number, number])[] = [];
      let glare = 0;
      let isCut = false;
      for (let row = piece.fromRow; row <= piece.toRow; row++) {
        for (let column = piece.fromColumn; column <= piece.toColumn; column++) {
          const i = row * columns + column;
          if (labels[i] !== piece.label) continue;
          places.push([column, row]);
          if (luma[i] > GLARE) glare++;
          isCut ||= column < 3 || row < 3 || column >= columns - 3 || row >= rows - 3 || !view.inPhoto[i + 2] || !view.inPhoto[i - 2] || !view.inPhoto[i + 2 * columns] || !view.inPhoto[i - 2 * columns]; // prettier-ignore
        }
      }
      const box = leastRectangle(places);
      const [longMm, shortMm] = [box.long / cellsPerMm, box.short / cellsPerMm];
      const areaMm2 = piece.area / cellsPerMm ** 2;
      return {
        xMm: columnMiddle(view, box.centre[0]),
        yMm: rowMiddle(view, box.centre[1]),
        longMm,
        shortMm,
        areaMm2,
        whiteShare: areaMm2 / (longMm * shortMm),
        glareShare: glare / piece.area,
        isCut,
        isSliver: false,
      };
    });
}

/** The rectangle of least area about cells, among turns of 5°. */
interface Rectangle {
  long: number;
  short: number;
  centre: readonly [number, number];
}

function leastRectangle(places: readonly (readonly [number, number])[]): Rectangle {
  let best: Rectangle & { area: number } = { area: Infinity, long: 0, short: 0, centre: [0, 0] };
  for (let turnDeg = 0; turnDeg < 90; turnDeg += 5) {
    const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
    let [u0, u1, v0, v1] = [Infinity, -Infinity, Infinity, -Infinity];
    for (const [x, y] of places) {
      const u = x * c + y * s;
      const v = y * c - x * s;
      if (u < u0) u0 = u;
      if (u > u1) u1 = u;
      if (v < v0) v0 = v;
      if (v > v1) v1 = v;
    }
    const [a, b] = [u1 - u0 + 1, v1 - v0 + 1];
    if (a * b >= best.area) continue;
    const [u, v] = [(u0 + u1) / 2, (v0 + v1) / 2];
    best = {
      area: a * b,
      long: Math.max(a, b),
      short: Math.min(a, b),
      centre: [u * c - v * s, u * s + v * c],
    };
  }
  return best;
}
