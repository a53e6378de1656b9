import type { Reason } from '@lauta/core/evidence';
import { compareFlanks, standsApart, type FlankMatch } from './compare.ts';
import type { FlankDescriptor } from './describe.ts';

export const SAME_ANSWERS = ['same', 'look', 'different'] as const;
export type SameAnswer = (typeof SAME_ANSWERS)[number];

/** Why two fish are called the same or not; shares of 0 to 1. */
export interface LikenessReasons {
  'lengths-apart': unknown;
  'too-little-free': unknown;
  'same-photo': { alike: number };
  same: { alike: number; agreeing: number };
  alike: { alike: number };
  'not-alike': { alike: number };
}

/** Whether two photographs show one and the same fish. */
export interface Likeness {
  /** 0 to 1: how likely it is the same fish, by simulated pairs (docs/measured.md). */
  score: number;
  /** The logarithm of the odds behind the score, by which fish are ranked: near 1 scores are equal. */
  logOdds: number;
  answer: SameAnswer;
  reason: Reason<LikenessReasons>;
  match: FlankMatch | null;
  /** The two are so alike, cell by cell and in length, that one photograph was used twice. */
  isSamePhoto: boolean;
}

/** A fish as it is kept for comparison. */
export interface KnownFlank {
  lengthMm: number;
  sigmaMm: number;
  flank: FlankDescriptor;
}

/**
 * The strength of what two flanks have in common, as the logarithm of odds: blocks that are alike, and blocks that agree
 * on one even shift, beyond what they would be by chance, times the root of the share that both show, less what the
 * lengths are apart. The weights: docs/measured.md.
 */
const ALIKE_WEIGHT = 19.9;
const AGREEING_WEIGHT = 41.7;
const BY_CHANCE = 14.1;
/** What the square of the lengths' distance in standard uncertainties counts. */
const LENGTH_WEIGHT = 0.6;
/** Odds of even chances beforehand. */
const MIDDLE = 2.7;
/** Less apart than this nobody is called the same: two fish with bars may be alike in any place. */
const LEAST_APART = 0.1;
/** Beforehand the chances are even; among many fish of about one length more is asked for. */
const SAME_FROM = 0.98;
const LOOK_FROM = 0.2;
/** Lengths of one fish differ by jaw, tail and place by about this share beside what the readings' own doubt explains. */
const LENGTH_SHARE = 0.006;
/** Lengths farther apart than this share are not compared. */
const LENGTH_SPAN = 0.08;
/** More than so many standard uncertainties apart they are two fish. */
const MOST_SIGMAS = 3.5;

/** How far two lengths are apart, in standard uncertainties of their difference. */
function sigmasApart(a: KnownFlank, b: KnownFlank): number {
  const doubtMm = Math.hypot(a.sigmaMm, b.sigmaMm, LENGTH_SHARE * Math.max(a.lengthMm, b.lengthMm));
  return Math.abs(a.lengthMm - b.lengthMm) / doubtMm;
}

/** Whether the lengths allow that it is one fish: within 8 %, and within what the readings' doubt explains. */
export function isSimilarLength(a: KnownFlank, b: KnownFlank): boolean {
  return Math.abs(b.lengthMm / a.lengthMm - 1) <= LENGTH_SPAN && sigmasApart(a, b) <= MOST_SIGMAS;
}

/** Compares two fish by length and flank. */
export function likenessOf(a: KnownFlank, b: KnownFlank): Likeness {
  if (!isSimilarLength(a, b))
    return {
      score: 0,
      logOdds: -Infinity,
      answer: 'different',
      reason: { code: 'lengths-apart' },
      match: null,
      isSamePhoto: false,
    };
  const match = compareFlanks(a.flank, b.flank);
  if (!match)
    return {
      score: 0.2,
      logOdds: Math.log(0.25),
      answer: 'look',
      reason: { code: 'too-little-free' },
      match,
      isSamePhoto: false,
    };
  const logOdds = strengthOf(match) - LENGTH_WEIGHT * sigmasApart(a, b) ** 2 - MIDDLE;
  const score = 1 / (1 + Math.exp(-logOdds));
  const isSame = score >= SAME_FROM && standsApart(a.flank, b.flank) >= LEAST_APART;
  const answer = isSame ? 'same' : score >= LOOK_FROM ? 'look' : 'different';
  const isSamePhoto =
    match.alike > SAME_PHOTO_ALIKE && Math.abs(a.lengthMm - b.lengthMm) < SAME_PHOTO_MM && answer === 'same';
  const { alike, agreeing } = match;
  const reason: Likeness['reason'] = isSamePhoto
    ? { code: 'same-photo', alike }
    : answer === 'same'
      ? { code: 'same', alike, agreeing }
      : { code: answer === 'look' ? 'alike' : 'not-alike', alike };
  return { score, logOdds, answer, reason, match, isSamePhoto };
}

/** One photograph stored anew gives the same pattern and length to within this. */
const SAME_PHOTO_ALIKE = 0.91;
const SAME_PHOTO_MM = 0.6;

function strengthOf({ alike, agreeing, shared }: FlankMatch): number {
  return (ALIKE_WEIGHT * alike + AGREEING_WEIGHT * agreeing - BY_CHANCE) * Math.sqrt(shared);
}
