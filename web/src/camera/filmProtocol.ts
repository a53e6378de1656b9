import type { Identifier } from '@lauta/core/identifier';
import type { MeasuringBoard } from '@lauta/vision';

/** The scenes that the simulated camera shows: one fish on one board, and a person who holds one. */
export const FILM_SHOTS = ['board', 'gap', 'open', 'good', 'person', 'person-hand'] as const;
export type FilmShot = (typeof FILM_SHOTS)[number];

export interface FilmWish {
  seed: number;
  board: MeasuringBoard;
  look: string;
  lengthMm: number;
  identifier: Identifier | null;
}

export interface FilmCalls {
  shoot: {
    params: FilmWish & { shot: FilmShot };
    result: { picture: ImageBitmap; focal35Mm: number | null };
  };
}
