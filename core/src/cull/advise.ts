/**
 * Which fish to let go, and whether to hang two of them first. The loss of a release is what the best legal bag loses
 * by it; a comparison is worth its hangings when it saves more of that than they cost (the expected value of sample
 * information: Raiffa & Schlaifer 1961, Applied Statistical Decision Theory).
 */
import { G_PER_POUND } from '../units/index.ts';
import type { BagLimit } from '../rules/index.ts';
import { isLegal, limitTable, releaseLosses, type AboardFish } from './bestBag.ts';
import {
  BEAM_OUTCOMES,
  USUAL_BEAM,
  outcomeProbabilities,
  type Beam,
  type Comparison,
  type Posterior,
} from './posterior.ts';
import type { FishId } from '../ids.ts';

export interface ReleaseOdds {
  fishId: FishId;
  /** That letting this one go is the best that can be done. */
  probability: number;
  /** What letting it go now costs, on average, g. */
  expectedLossG: number;
}

/** Two fish whose comparison is worth the hanging. */
export interface BeamAdvice {
  leftId: FishId;
  rightId: FishId;
  /** What it saves on average, g. */
  savesG: number;
  /** How sure the release is after it, on average. */
  probabilityAfter: number;
}

export type CullAdvice =
  /** All fish fit: nothing has to go. */
  | { kind: 'keep-all' }
  | { kind: 'release'; fishId: FishId; odds: ReleaseOdds[]; beam: null }
  | { kind: 'beam'; fishId: FishId; odds: ReleaseOdds[]; beam: BeamAdvice }
  /** Only fish that must stay are left to choose from: the rules leave no release. */
  | { kind: 'none-may-go' };

export interface CullOptions {
  beam: Beam;
  /**
   * What one fish's first hanging is held to be worth, as a share of the doubt (standard deviation) between the two that
   * hang: more spares the fish, less spares the weight. The second costs twice as much, and so on. A price in grams would
   * spare fish on a fine scale and hang them over and over on a coarse one.
   */
  hangingShare: number;
  /** How often each fish has hung already. */
  hangings: readonly number[];
  /** Comparisons made already since the fish came aboard: they are not asked for again. */
  made: readonly Comparison[];
}

/** Our own choice; `npm run bench-cull` shows what it comes to. */
export const HANGING_SHARE = 0.01;
/** Pairs are sought among so many of the likeliest. */
const CANDIDATES = 4;
/** A comparison is not asked for when the release is as sure as this. */
const SURE = 0.985;

/**
 * @param fish in the order of the posterior's
 * @param deductionG what a fish's weight is worth less, g: dead ones
 */
export function adviseCull(
  posterior: Posterior,
  fish: readonly AboardFish[],
  limits: readonly BagLimit[],
  deductionG: readonly number[],
  { beam = USUAL_BEAM, hangingShare = HANGING_SHARE, hangings = [], made = [] }: Partial<CullOptions> = {},
): CullAdvice {
  if (isLegal(fish, limits)) return { kind: 'keep-all' };
  const may = fish.flatMap((one, i) => (one.mustStay ? [] : [i]));
  if (may.length === 0) return { kind: 'none-may-go' };
  const worth = (weights: readonly number[]): number[] => weights.map((one, i) => one - (deductionG[i] ?? 0));
  const table = limitTable(fish, limits);
  const atMean = releaseLosses(fish, table, worth(posterior.meanG), may);
  // Of the others nobody would think: they are heavier by more than all doubt.
  const open = may.filter(
    (i, k) => (atMean[k] ?? 0) <= DOUBT * (posterior.sigmaG[i] ?? 0) + DOUBT * Math.max(...posterior.sigmaG),
  );
  const losses = posterior.drawsG.map((draw) => releaseLosses(fish, table, worth(draw), open));
  const byPlace = open.map((i, k) => ({ i, k, ...oddsOf(posterior, losses, k) }));
  const odds = fish.map((one, i): ReleaseOdds => {
    const known = byPlace.find((place) => place.i === i);
    if (known)
      return { fishId: one.fishId, probability: known.probability, expectedLossG: known.expectedLossG };
    return { fishId: one.fishId, probability: 0, expectedLossG: atMean[may.indexOf(i)] ?? Infinity };
  });
  const order = byPlace.sort((a, b) => a.expectedLossG - b.expectedLossG || a.i - b.i);
  const [first] = order;
  if (!first) return { kind: 'none-may-go' };
  const chosen = { fishId: fish[first.i]?.fishId ?? '', odds };
  if (first.probability >= SURE) return { kind: 'release', ...chosen, beam: null };
  const options = { beam, hangingShare, hangings, made };
  const pair = bestPair(posterior, losses, order, options, first.expectedLossG);
  return pair ? { kind: 'beam', ...chosen, beam: pair } : { kind: 'release', ...chosen, beam: null };
}

/** Deviations beyond which a fish is out of the question. */
const DOUBT = 5;
/** Losses under this are rounding. */
const NOTHING_G = 1e-9;

function oddsOf(
  { shares }: Posterior,
  losses: readonly (readonly number[])[],
  k: number,
): { probability: number; expectedLossG: number } {
  let probability = 0;
  let expectedLossG = 0;
  losses.forEach((draw, d) => {
    const loss = draw[k] ?? 0;
    const share = shares[d] ?? 0;
    expectedLossG += share * loss;
    if (loss <= NOTHING_G) probability += share;
  });
  return { probability, expectedLossG };
}

/** A fish that is open to release: its place among all, and among the columns of the losses. */
interface Open {
  i: number;
  k: number;
}

function bestPair(
  posterior: Posterior,
  losses: readonly (readonly number[])[],
  order: readonly Open[],
  { beam, hangingShare, hangings, made }: CullOptions,
  nowG: number,
): BeamAdvice | null {
  const candidates = order.slice(0, CANDIDATES);
  let found: BeamAdvice | null = null;
  let worthG = 0;
  for (const [place, left] of candidates.entries()) {
    for (const right of candidates.slice(place + 1)) {
      const leftId = posterior.fishIds[left.i] ?? '';
      const rightId = posterior.fishIds[right.i] ?? '';
      if (made.some((one) => isPair(one, leftId, rightId))) continue;
      const after = lossAfter(posterior, losses, candidates, { left: left.i, right: right.i }, beam);
      const savesG = nowG - after.lossG;
      const doubtG = Math.hypot(posterior.sigmaG[left.i] ?? 0, posterior.sigmaG[right.i] ?? 0);
      const costG = hangingShare * doubtG * (2 + (hangings[left.i] ?? 0) + (hangings[right.i] ?? 0));
      if (savesG - costG <= worthG) continue;
      worthG = savesG - costG;
      found = { leftId, rightId, savesG, probabilityAfter: after.probability };
    }
  }
  return found;
}

/** Loss of the best release after a comparison, and how probably it is right, over the comparison's outcomes. */
function lossAfter(
  { drawsG, shares }: Posterior,
  losses: readonly (readonly number[])[],
  candidates: readonly Open[],
  pair: { left: number; right: number },
  beam: Beam,
): { lossG: number; probability: number } {
  const count = candidates.length;
  // For each outcome and candidate: the loss so far, and the share of draws in which its release is right. Plain
  // loops, because this is most of the advice's time.
  const loss = new Float64Array(BEAM_OUTCOMES.length * count);
  const right = new Float64Array(BEAM_OUTCOMES.length * count);
  for (let d = 0; d < drawsG.length; d++) {
    const draw = drawsG[d] ?? [];
    const own = losses[d] ?? [];
    const probabilities = outcomeProbabilities((draw[pair.left] ?? 0) - (draw[pair.right] ?? 0), beam);
    for (let o = 0; o < BEAM_OUTCOMES.length; o++) {
      const share = (shares[d] ?? 0) * (probabilities[o] ?? 0);
      if (share < 1e-12) continue;
      for (let c = 0; c < count; c++) {
        const one = own[candidates[c]?.k ?? 0] ?? 0;
        const place = o * count + c;
        loss[place] = (loss[place] ?? 0) + share * one;
        if (one <= NOTHING_G) right[place] = (right[place] ?? 0) + share;
      }
    }
  }
  const sums = BEAM_OUTCOMES.map((_, o) =>
    candidates.map((_, c) => ({ loss: loss[o * count + c] ?? 0, right: right[o * count + c] ?? 0 })),
  );
  const best = sums.map((places) => places.reduce((a, b) => (b.loss < a.loss ? b : a)));
  return {
    lossG: best.reduce((sum, { loss }) => sum + loss, 0),
    probability: best.reduce((sum, { right }) => sum + right, 0),
  };
}

const isPair = (one: Comparison, a: string, b: string): boolean =>
  (one.leftId === a && one.rightId === b) || (one.leftId === b && one.rightId === a);

/** The trade's rule of thumb: from a quarter pound up the scale decides, under it the beam. Common practice, no source. */
export const RULE_GAP_G = G_PER_POUND / 4;

export type ThumbRule =
  | { kind: 'scale'; fishId: FishId; gapG: number }
  | { kind: 'beam'; leftId: FishId; rightId: FishId; gapG: number };

/** What the rule of thumb makes of the two lightest readings of those that may go; null with fewer than two. */
export function thumbRule(fish: readonly { fishId: FishId; readG: number | null }[]): ThumbRule | null {
  const read = fish.flatMap(({ fishId, readG }) => (readG === null ? [] : [{ fishId, readG }]));
  const [lightest, next] = read.sort((a, b) => a.readG - b.readG);
  if (!lightest || !next) return null;
  const gapG = next.readG - lightest.readG;
  return gapG >= RULE_GAP_G
    ? { kind: 'scale', fishId: lightest.fishId, gapG }
    : { kind: 'beam', leftId: lightest.fishId, rightId: next.fishId, gapG };
}
