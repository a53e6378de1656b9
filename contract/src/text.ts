import { z } from 'zod';

/** Letters that turn the direction of what follows (Unicode Standard Annex 9), and controls. */
const HIDDEN = /[\p{Cs}\p{Cc}\p{Bidi_Control}\p{Zl}\p{Zp}]/u;
const HIDDEN_IN_PROSE = /[^\P{Cc}\n\r\t]|[\p{Bidi_Control}\p{Cs}]/u;
const VISIBLE = /[\p{L}\p{N}\p{P}\p{S}]/u;

/** One line that a person reads as it was written: a name, a title. Whole letters, something to see, nothing hidden. */
export const line = (max: number) =>
  z
    .string()
    .trim()
    .min(1)
    .max(max)
    .refine((text) => !HIDDEN.test(text), 'letters that cannot be shown')
    .refine((text) => VISIBLE.test(text), 'nothing to be seen');

/** A few sentences; they may be none. */
export const prose = (max: number) =>
  z
    .string()
    .trim()
    .max(max)
    .refine((text) => !HIDDEN_IN_PROSE.test(text), 'letters that cannot be shown');
