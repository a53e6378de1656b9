import { boardLines, faceLengthMm, mmPerUnit, type MeasuringBoard } from '../board/board.ts';

/** One line of the face, mm. */
export interface PatternLine {
  xMm: number;
  strokeMm: number;
  /** Drawn parts across the face, from and to, mm. */
  spansMm: readonly (readonly [number, number])[];
  /** Which of the pattern's kinds of line it is: same spans, same index. */
  kind: number;
}

/** What is printed on a board, as lines on a lattice. */
export interface Pattern {
  board: MeasuringBoard;
  lengthMm: number;
  widthMm: number;
  /** Distance between neighbouring places of the lattice, mm. */
  stepMm: number;
  lines: readonly PatternLine[];
  /** The spans of each kind of line. */
  kinds: readonly (readonly (readonly [number, number])[])[];
  /** Bands across the face where numerals may stand, mm. */
  numeralBandsMm: readonly (readonly [number, number])[];
  inkDarker: boolean;
  /** Log of the ratio of face to ink brightness, over 0. */
  inkContrast: number;
}

export function patternOf(board: MeasuringBoard): Pattern {
  const kinds: (readonly (readonly [number, number])[])[] = [];
  const keys = new Map<string, number>();
  const lines = boardLines(board).map(({ xMm, strokeMm, spans }): PatternLine => {
    const spansMm = spans.map(([from = 0, to = 1]) => [from * board.widthMm, to * board.widthMm] as const);
    const key = JSON.stringify(spansMm);
    let kind = keys.get(key);
    if (kind === undefined) {
      kind = kinds.length;
      kinds.push(spansMm);
      keys.set(key, kind);
    }
    return { xMm, strokeMm, spansMm, kind };
  });
  const half = board.numerals.heightMm / 2 + 1;
  const face = brightness(board.face);
  const ink = brightness(board.ink);
  return {
    board,
    lengthMm: faceLengthMm(board),
    widthMm: board.widthMm,
    stepMm: commonStep(lines),
    lines,
    kinds,
    numeralBandsMm: board.numerals.centresAt.map((at) => {
      const centre = at * board.widthMm;
      return [centre - half, centre + half] as const;
    }),
    inkDarker: ink < face,
    inkContrast: Math.abs(Math.log((face + 6) / (ink + 6))),
  };
}

/** Distance between neighbouring numerals, mm. */
export function numeralStepMm({ board }: Pattern): number {
  return board.numerals.every * mmPerUnit(board);
}

/** By which steps the lines may slip along themselves without a change to be seen, mm: a whole part of the numerals' step. */
export function slipStepMm(pattern: Pattern): number {
  const { board } = pattern;
  const coarsest = Math.max(...board.lines.map(({ every }) => every));
  const parts = board.numerals.every / coarsest;
  const isWhole = parts > 1 && Math.abs(parts - Math.round(parts)) < 1e-6;
  return numeralStepMm(pattern) / (isWhole ? Math.round(parts) : 1);
}

function commonStep(lines: readonly PatternLine[]): number {
  let step = Infinity;
  for (let i = 1; i < lines.length; i++) step = Math.min(step, lines[i].xMm - lines[i - 1].xMm);
  return step;
}

/** Red, green and blue of `#rrggbb`, 0 to 255. */
export function rgbOfHex(hex: string): [number, number, number] {
  const value = Number.parseInt(hex.slice(1), 16);
  return [(value >> 16) & 255, (value >> 8) & 255, value & 255];
}

/** Rec. 601 luma of `#rrggbb`, 0 to 255. */
function brightness(hex: string): number {
  const [red, green, blue] = rgbOfHex(hex);
  return 0.299 * red + 0.587 * green + 0.114 * blue;
}
