import { z } from 'zod';
import type { MeasuringBoard } from '@lauta/vision';

const share = z.number().min(0).max(1);
const colour = z.string().regex(/^#[0-9a-f]{6}$/i, 'a colour as #rrggbb');
const plate = z.object({
  heightMm: z.number().min(0).max(300),
  thicknessMm: z.number().min(0).max(100),
  colour,
});

/** A board profile as a file brings it: enough to draw a board, to find it and to read a length off it. */
export const boardSchema = z
  .object({
    id: z.string().regex(/^[a-z0-9][a-z0-9-]{0,39}$/),
    name: z.string().trim().min(1).max(80),
    unit: z.enum(['in', 'cm']),
    scaleLength: z.number().min(2).max(250),
    widthMm: z.number().min(30).max(600),
    face: colour,
    ink: colour,
    lines: z
      .array(
        z.object({
          every: z.number().min(0.05).max(50),
          spans: z
            .array(
              z
                .tuple([share, share])
                .readonly()
                .refine(([from, to]) => to > from, 'a span runs from 0 to 1'),
            )
            .min(1)
            .max(8)
            .readonly(),
          strokeMm: z.number().min(0.2).max(12),
        }),
      )
      .min(1)
      .max(8)
      .readonly(),
    numerals: z.object({
      every: z.number().min(0.1).max(100),
      heightMm: z.number().min(2).max(80),
      centresAt: z.array(share).min(1).max(6).readonly(),
    }),
    stop: plate.extend({ band: colour.nullable() }),
    wall: plate.nullable(),
  })
  .refine(
    ({ scaleLength, lines }) => lines.every(({ every }) => scaleLength / every <= 4000),
    'too many lines',
  );
export const boardFitsCore = (board: z.infer<typeof boardSchema>): MeasuringBoard => board;
