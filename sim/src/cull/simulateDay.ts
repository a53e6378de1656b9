/**
 * A day of keepers with five places in the well, culled in three ways on the same fish and the same readings: by the
 * raw reading, by the trade's rule of thumb with the beam, and by the adviser. What it costs is known, because the
 * fish are drawn.
 */
import {
  adviseCull,
  posteriorOf,
  thumbRule,
  type AboardFish,
  type Comparison,
  type WeighedFish,
} from '@lauta/core/cull';
import type { BagLimit } from '@lauta/core/rules';

import { standardWeightsG } from '@lauta/core/weight';
import { rollDice, seedFor, type Dice } from '../camera/dice.ts';
import { SCALE_KINDS, type ScaleCheck, type ScaleQuality, type ScaleRecord } from '@lauta/core/scale';
import { BEAM, buildScale, hangOnBeam } from '../scale/index.ts';
import type { FishId } from '@lauta/core/ids';

export const CULL_METHODS = ['raw', 'rule', 'adviser'] as const;
export type CullMethod = (typeof CULL_METHODS)[number];

export interface CullTally {
  culls: number;
  /** Releases while a lighter fish stayed. */
  wrongCulls: number;
  /** What the bag at the end weighs less than the best five of the day, g. */
  lostG: number;
  /** Times that a fish was taken out of the well. */
  liftings: number;
  hangingSeconds: number;
  /** Fish hung on the beam. */
  hangings: number;
}

export interface DayOutcome {
  tallies: Record<CullMethod, CullTally>;
  /** Of each of the adviser's releases: how sure it was, and whether it was right. */
  odds: { probability: number; isRight: boolean }[];
}

const LIMIT = 5;
const BAG: readonly BagLimit[] = [{ kind: 'bag', speciesId: null, most: LIMIT, holds: () => true }];
const CHECK_WEIGHT_G = 1000;
/** A fish hangs on a beam until it settles. Our assumption. */
const HANGING_SECONDS = 8;
const DAY_MS = 8 * 3_600_000;

interface DrawnFish {
  fishId: FishId;
  trueG: number;
  readG: number;
  atMs: number;
}

interface DrawnDay {
  fish: DrawnFish[];
  record: ScaleRecord;
}

/** Keepers of a day: lengths about 15 in, weights about the standard weight of their kind, as in a middling water. */
function drawDay(quality: ScaleQuality, dice: Dice): DrawnDay {
  const kind = SCALE_KINDS[quality];
  const scale = buildScale(kind, dice);
  const check = (trueG: number): ScaleCheck => ({ atMs: 0, trueG, readG: scale.show(trueG, 0) });
  const checks = [check(0), check(CHECK_WEIGHT_G), check(CHECK_WEIGHT_G)];
  const repeated = 1200;
  const repeats = [[0, 1, 2].map(() => scale.show(repeated, 0))];
  const moments = Array.from({ length: dice.whole(7, 16) }, () => dice.between(0.05, 0.98) * DAY_MS);
  const fish = moments
    .sort((a, b) => a - b)
    .map((atMs, i): DrawnFish => {
      const lengthMm = Math.max(305, 375 * Math.exp(0.11 * dice.normal()));
      const [standardG = 800] = standardWeightsG('largemouth bass', lengthMm);
      const trueG = standardG * Math.max(0.7, 0.95 + 0.09 * dice.normal());
      return { fishId: String(i + 1), trueG, readG: scale.show(trueG, atMs), atMs };
    });
  return { fish, record: { kind, checks, repeats } };
}

/** @param draws of the adviser's posterior; absent: as on the water */
export function simulateDay(quality: ScaleQuality, seed: number, draws?: number): DayOutcome {
  const day = drawDay(quality, rollDice(seedFor(seed, `day ${quality}`)));
  const odds: DayOutcome['odds'] = [];
  const tallies = Object.fromEntries(
    CULL_METHODS.map((method) => {
      // Each way meets the same beam, whatever the others asked of it.
      const beam = rollDice(seedFor(seed, `beam ${method}`));
      return [method, playDay(day, method, beam, odds, draws)];
    }),
  ) as Record<CullMethod, CullTally>;
  return { tallies, odds };
}

function playDay(
  { fish, record }: DrawnDay,
  method: CullMethod,
  dice: Dice,
  odds: DayOutcome['odds'],
  draws: number | undefined,
): CullTally {
  const tally: CullTally = { culls: 0, wrongCulls: 0, lostG: 0, liftings: 0, hangingSeconds: 0, hangings: 0 };
  let well: DrawnFish[] = [];
  const comparisons: Comparison[] = [];
  const gone: DrawnFish[] = [];
  for (const newcomer of fish) {
    const aboard = [...well, newcomer];
    if (aboard.length <= LIMIT) {
      well = aboard;
      continue;
    }
    const compare = (leftId: FishId, rightId: FishId): Comparison => {
      const [left, right] = [leftId, rightId].map((id) => aboard.find(({ fishId }) => fishId === id));
      if (!left || !right) throw new RangeError(`fish: expected both aboard, got ${leftId} and ${rightId}`);
      tally.hangings += 2;
      tally.hangingSeconds += 2 * HANGING_SECONDS;
      tally.liftings += [left, right].filter((one) => one !== newcomer).length;
      return { leftId, rightId, outcome: hangOnBeam(BEAM, left.trueG, right.trueG, dice) };
    };
    const releasedId =
      method === 'raw'
        ? lightestRead(aboard).fishId
        : method === 'rule'
          ? byThumb(aboard, compare)
          : byAdvice({ aboard, gone }, record, comparisons, compare, odds, draws);
    const released = aboard.find(({ fishId }) => fishId === releasedId);
    well = aboard.filter((one) => one !== released);
    if (released) gone.push(released);
    tally.culls += 1;
    if (released !== newcomer) tally.liftings += 1;
    if (released && well.some(({ trueG }) => trueG < released.trueG)) tally.wrongCulls += 1;
  }
  const best = fish
    .map(({ trueG }) => trueG)
    .sort((a, b) => b - a)
    .slice(0, LIMIT);
  tally.lostG = sum(best) - sum(well.map(({ trueG }) => trueG));
  return tally;
}

const sum = (values: readonly number[]): number => values.reduce((total, one) => total + one, 0);

const lightestRead = (fish: readonly DrawnFish[]): DrawnFish =>
  fish.reduce((least, one) => (one.readG < least.readG ? one : least));

function byThumb(aboard: readonly DrawnFish[], compare: (left: string, right: string) => Comparison): string {
  const rule = thumbRule(aboard);
  if (rule?.kind !== 'beam') return rule?.fishId ?? '';
  const { outcome, leftId, rightId } = compare(rule.leftId, rule.rightId);
  return outcome === 'left' ? rightId : leftId;
}

const hangingsOf = (fish: readonly DrawnFish[], comparisons: readonly Comparison[]): number[] =>
  fish.map(
    ({ fishId }) => comparisons.filter((one) => one.leftId === fishId || one.rightId === fishId).length,
  );

function byAdvice(
  { aboard, gone }: { aboard: readonly DrawnFish[]; gone: readonly DrawnFish[] },
  record: ScaleRecord,
  comparisons: Comparison[],
  compare: (left: string, right: string) => Comparison,
  odds: DayOutcome['odds'],
  draws: number | undefined,
): string {
  const weighed = ({ fishId, readG, atMs }: DrawnFish): WeighedFish => ({
    fishId,
    readings: [{ scaleId: 'scale', readG, atMs }],
    guess: { meanG: 900, sigmaG: 600 },
  });
  const fish = aboard.map(weighed);
  const limited = aboard.map(({ fishId }): AboardFish => ({
    fishId,
    speciesId: 'bass',
    lengthMm: null,
    mustStay: false,
  }));
  for (;;) {
    const posterior = posteriorOf(fish, new Map([['scale', record]]), comparisons, {
      beam: BEAM,
      gone: gone.map(weighed),
      ...(draws === undefined ? {} : { draws }),
    });
    const advice = adviseCull(posterior, limited, BAG, aboard.map(() => 0), { beam: BEAM, made: comparisons, hangings: hangingsOf(aboard, comparisons) }); // prettier-ignore
    if (advice.kind === 'beam') {
      comparisons.push(compare(advice.beam.leftId, advice.beam.rightId));
      continue;
    }
    if (advice.kind !== 'release') throw new Error(`advice: expected a release, got ${advice.kind}`);
    const { fishId } = advice;
    const least = Math.min(...aboard.map(({ trueG }) => trueG));
    odds.push({
      probability: advice.odds.find((one) => one.fishId === fishId)?.probability ?? 0,
      isRight: aboard.find((one) => one.fishId === fishId)?.trueG === least,
    });
    return fishId;
  }
}
