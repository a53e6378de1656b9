import { MM_PER_INCH } from '@lauta/core/units';
import birch from '../../data/boards/birch-30in.json' with { type: 'json' };
import sand from '../../data/boards/sand-26in.json' with { type: 'json' };
import slate from '../../data/boards/slate-75cm.json' with { type: 'json' };
import type { Quad } from '../geometry/point.ts';

/** A family of lines: one across the face at every multiple of `every`, drawn over `spans` (fractions of the width). */
export interface LineFamily {
  every: number;
  spans: readonly (readonly [number, number])[];
  strokeMm: number;
}

/** One kind of measuring board: enough to draw it, to find it in a photograph and to read a length off it. */
export interface MeasuringBoard {
  id: string;
  name: string;
  unit: 'in' | 'cm';
  /** Where the ruled face ends, in `unit`; it starts at 0, the stop's face. */
  scaleLength: number;
  widthMm: number;
  face: string;
  ink: string;
  /** Where two families meet, the first one listed wins. */
  lines: readonly LineFamily[];
  numerals: { every: number; heightMm: number; centresAt: readonly number[] };
  stop: { heightMm: number; thicknessMm: number; colour: string; band: string | null };
  wall: { heightMm: number; thicknessMm: number; colour: string } | null;
}

export const SHIPPED_BOARDS = [birch, sand, slate] as unknown as readonly MeasuringBoard[];

/** @throws RangeError where no board of that id ships with the application */
export function shippedBoard(id: string): MeasuringBoard {
  const board = findBoard(id);
  if (!board) throw new RangeError(`board: unknown ${id}`);
  return board;
}

export function findBoard(id: string): MeasuringBoard | null {
  return SHIPPED_BOARDS.find((board) => board.id === id) ?? null;
}

export function mmPerUnit(board: MeasuringBoard): number {
  return board.unit === 'in' ? MM_PER_INCH : 10;
}

export function faceLengthMm(board: MeasuringBoard): number {
  return board.scaleLength * mmPerUnit(board);
}

/** The ruled face's corners in board coordinates, mm. */
export function faceCornersMm(board: MeasuringBoard): Quad {
  const lengthMm = faceLengthMm(board);
  return [
    [0, 0],
    [lengthMm, 0],
    [lengthMm, board.widthMm],
    [0, board.widthMm],
  ];
}

export interface BoardLine {
  xMm: number;
  strokeMm: number;
  spans: readonly (readonly [number, number])[];
}

/** Every line of the face, each once, from the stop to the end. */
export function boardLines(board: MeasuringBoard): BoardLine[] {
  const unitMm = mmPerUnit(board);
  const seen = new Map<number, BoardLine>();
  for (const family of board.lines) {
    const last = Math.round(board.scaleLength / family.every);
    for (let i = 0; i <= last; i++) {
      const key = Math.round(i * family.every * 1e6);
      if (seen.has(key)) continue;
      seen.set(key, { xMm: i * family.every * unitMm, strokeMm: family.strokeMm, spans: family.spans });
    }
  }
  return [...seen.values()].sort((a, b) => a.xMm - b.xMm);
}

export interface BoardNumeral {
  text: string;
  /** Right edge of the numeral, 1.5 mm to the left of its line. */
  rightMm: number;
  centreYMm: number;
  heightMm: number;
}

export function boardNumerals(board: MeasuringBoard): BoardNumeral[] {
  const { every, heightMm, centresAt } = board.numerals;
  const numerals: BoardNumeral[] = [];
  for (let value = every; value <= board.scaleLength; value += every) {
    for (const at of centresAt) {
      numerals.push({
        text: String(value),
        rightMm: value * mmPerUnit(board) - 1.5,
        centreYMm: at * board.widthMm,
        heightMm,
      });
    }
  }
  return numerals;
}
