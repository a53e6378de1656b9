import type { Likeness, LikenessReasons } from '@lauta/vision/same-fish';
import { sentenceOf, type Sentences } from './sentence.ts';

const percent = (share: number): string => `${Math.round(100 * share)} %`;

const SENTENCES: Sentences<LikenessReasons> = {
  'lengths-apart': 'The lengths are too far apart.',
  'too-little-free': 'The lengths agree; too little of both flanks is free to compare.',
  'same-photo': ({ alike }) =>
    `The lengths are equal and the patterns are ${percent(alike)} alike: one photograph, cropped or saved again.`,
  same: ({ alike, agreeing }) =>
    `The lengths agree, the patterns are ${percent(alike)} alike, and ${percent(agreeing)} of their places agree.`,
  alike: ({ alike }) => `The lengths agree and the patterns are ${percent(alike)} alike.`,
  'not-alike': ({ alike }) => `The patterns are only ${percent(alike)} alike.`,
};

/** Why two fish are called the same, or not. */
export function likenessReason({ reason }: Pick<Likeness, 'reason'>): string {
  return sentenceOf(SENTENCES, reason);
}
