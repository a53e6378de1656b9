import type { Point, Quad } from '../geometry/point.ts';
import type { Raster } from '../image/raster.ts';

/** A code that a decoder read in a picture: its text, and the symbol's corners from its own top left clockwise, px. */
export interface CodeSeen {
  text: string;
  corners: Quad;
}

/** Reads the QR codes of a small picture; ships with the application, not with the core. */
export type CodeReader = (picture: Raster) => Promise<readonly CodeSeen[]>;

/** Sizes of the identifier card (ID-1, ISO/IEC 7810) and of the code's place on it, mm. */
export const CARD_MM = { width: 85.6, height: 54 } as const;
const CODE_SQUARE_MM = 40;
const CODE_FROM_EDGE_MM = 7;
const QUIET_MODULES = 4;
/** Modules across a symbol of version 3, which holds the payloads of level Q (ISO/IEC 18004, table 7). */
const MODULES = 29;
const SYMBOL_FROM_MM = CODE_FROM_EDGE_MM + (CODE_SQUARE_MM * QUIET_MODULES) / (MODULES + 2 * QUIET_MODULES);
const SYMBOL_MM = (CODE_SQUARE_MM * MODULES) / (MODULES + 2 * QUIET_MODULES);

/** The card's corners from those of its symbol, in the same coordinates; flat and without perspective. */
export function cardAbout([topLeft, topRight, , bottomLeft]: Quad): Quad {
  const u: Point = [(topRight[0] - topLeft[0]) / SYMBOL_MM, (topRight[1] - topLeft[1]) / SYMBOL_MM];
  const v: Point = [(bottomLeft[0] - topLeft[0]) / SYMBOL_MM, (bottomLeft[1] - topLeft[1]) / SYMBOL_MM];
  const at = (x: number, y: number): Point => {
    const [a, b] = [x - SYMBOL_FROM_MM, y - SYMBOL_FROM_MM];
    return [topLeft[0] + a * u[0] + b * v[0], topLeft[1] + a * u[1] + b * v[1]];
  };
  return [at(0, 0), at(CARD_MM.width, 0), at(CARD_MM.width, CARD_MM.height), at(0, CARD_MM.height)];
}
