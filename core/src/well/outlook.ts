import {
  adviseCull,
  posteriorOf,
  thumbRule,
  type AboardFish,
  type Beam,
  type CullAdvice,
  type MassGuess,
  type Posterior,
  type ThumbRule,
  type WeighedFish,
} from '../cull/index.ts';
import {
  bagLimits,
  findSpecies,
  isLengthSheet,
  isWeightSheet,
  stepsReached,
  type LengthSheet,
  type RuleSheet,
  type WeightSheet,
} from '../rules/index.ts';
import { G_PER_OUNCE, G_PER_POUND, gFromSteps, stepsFromG, unitSystemOf } from '../units/index.ts';
import { weightRange } from '../weight/index.ts';
import { mustStay } from './wellTroubles.ts';
import type { LiveWell, WellFish } from './liveWell.ts';
import type { FishId } from '../ids.ts';

/** What a fish aboard is held to weigh. */
export interface FishOutlook {
  fishId: FishId;
  massG: number;
  sigmaG: number;
  /** By readings; a fish that was never weighed is guessed by its length. */
  isGuess: boolean;
}

export interface WeightOutlook {
  kind: 'weight';
  fish: FishOutlook[];
  totalG: number;
  /** Of the total, with the scale's own error common to all fish. */
  totalSigmaG: number;
  /** The fish whose release would cost least; null with none aboard. */
  smallestId: FishId | null;
  /** What the next fish must weigh to help: null while the bag has room. */
  nextMustBeatG: number | null;
  advice: CullAdvice;
  thumb: ThumbRule | null;
  contradictions: Posterior['contradictions'];
}

export interface LengthOutlook {
  kind: 'length';
  fish: { fishId: FishId; steps: number | null }[];
  totalSteps: number;
  smallestId: FishId | null;
  nextMustBeatSteps: number | null;
  /** The fish to let go; null while all fit or a length is missing. */
  releaseId: string | null;
}

export type WellOutlook = WeightOutlook | LengthOutlook;

/** A fish nobody measured: as wide as fish of the trade are. Our own assumption. */
const UNKNOWN_FISH: MassGuess = { meanG: 1000, sigmaG: 700 };
/** Share of the standard weight by which fish of one length differ: relative weights of 75 to 115 within two. Our own assumption. */
const CONDITION_SIGMA = 0.12;

export function guessOf(sheet: RuleSheet, { speciesId, lengthMm }: WellFish): MassGuess {
  const name = findSpecies(sheet, speciesId)?.name ?? '';
  const range = lengthMm === null ? null : weightRange(name, lengthMm);
  return range ? { meanG: range.usualG, sigmaG: CONDITION_SIGMA * range.usualG } : UNKNOWN_FISH;
}

/** Total, smallest, what the next must beat, and what to let go. Pure and the same on every device. */
export function wellOutlook(sheet: RuleSheet, well: LiveWell, beam?: Beam): WellOutlook {
  if (isLengthSheet(sheet)) return lengthOutlook(sheet, well);
  if (isWeightSheet(sheet)) return weightOutlook(sheet, well, beam);
  throw new RangeError('measure: expected length or weight');
}

/** The fish aboard as the posterior takes them: by readings, and by length where nobody weighed them. */
function weighedFish(
  sheet: WeightSheet,
  fish: readonly WellFish[],
  scales: LiveWell['scales'],
): WeighedFish[] {
  return fish.map((one) => ({
    fishId: one.fishId,
    readings: one.readings.filter(({ scaleId }) => scales.has(scaleId)),
    guess: one.readings.length > 0 ? WEIGHED : guessOf(sheet, one),
  }));
}

function weightOutlook(sheet: WeightSheet, well: LiveWell, beam?: Beam): WeightOutlook {
  const { fish, gone, comparisons, scales } = well;
  if (fish.length === 0) return NOTHING_ABOARD;
  const posterior = posteriorOf(weighedFish(sheet, fish, scales), scales, comparisons, {
    gone: weighedFish(sheet, gone, scales),
    ...(beam ? { beam } : {}),
  });
  const limits = bagLimits(sheet);
  const aboard = fish.map(({ fishId, speciesId, lengthMm }): AboardFish => ({
    fishId,
    speciesId,
    lengthMm,
    mustStay: mustStay(sheet, well, fishId),
  }));
  const deductions = fish.map(({ condition }) => (condition === 'dead' ? deadDeductionG(sheet) : 0));
  const advice = adviseCull(posterior, aboard, limits, deductions, {
    made: comparisons,
    hangings: fish.map(
      ({ fishId }) => comparisons.filter((one) => one.leftId === fishId || one.rightId === fishId).length,
    ),
    ...(beam ? { beam } : {}),
  });
  const sums = posterior.drawsG.map((draw) => draw.reduce((sum, one) => sum + one, 0));
  const mean = posterior.meanG.reduce((sum, one) => sum + one, 0);
  const spread = sums.reduce((sum, one, d) => sum + (posterior.shares[d] ?? 0) * (one - mean) ** 2, 0);
  const free = fish.map((_, i) => i).filter((i) => !aboard[i]?.mustStay);
  const least = free.reduce<number | null>(
    (found, i) => (found === null || massAt(posterior, i) < massAt(posterior, found) ? i : found),
    null,
  );
  return {
    kind: 'weight',
    fish: fish.map(({ fishId, readings }, i) => ({
      fishId,
      massG: massAt(posterior, i),
      sigmaG: posterior.sigmaG[i] ?? 0,
      isGuess: readings.length === 0,
    })),
    totalG: mean,
    totalSigmaG: Math.sqrt(spread),
    smallestId: least === null ? null : (fish[least]?.fishId ?? null),
    nextMustBeatG: fish.length < sheet.bagLimit || least === null ? null : massAt(posterior, least),
    advice,
    thumb: thumbRule(
      free.map((i) => ({
        fishId: fish[i]?.fishId ?? '',
        readG: fish[i]?.readings.at(-1)?.readG ?? null,
      })),
    ),
    contradictions: posterior.contradictions,
  };
}

const massAt = ({ meanG }: Posterior, i: number): number => meanG[i] ?? 0;

/** Of a fish that was weighed its length adds nothing. */
const WEIGHED: MassGuess = { meanG: 1000, sigmaG: 20_000 };

const NOTHING_ABOARD: WeightOutlook = {
  kind: 'weight',
  fish: [],
  totalG: 0,
  totalSigmaG: 0,
  smallestId: null,
  nextMustBeatG: null,
  advice: { kind: 'keep-all' },
  thumb: null,
  contradictions: [],
};

function deadDeductionG({ measure, weighIn }: WeightSheet): number {
  const penalty = weighIn?.deadFish;
  return penalty && penalty.kind !== 'disqualification' ? gFromSteps(penalty.steps, measure.step) : 0;
}

function lengthOutlook(sheet: LengthSheet, { fish }: LiveWell): LengthOutlook {
  const measured = fish.map(({ fishId, lengthMm }) => ({
    fishId,
    steps: lengthMm === null ? null : stepsReached(sheet.measure, lengthMm),
  }));
  const known = measured.flatMap(({ fishId, steps }) => (steps === null ? [] : [{ fishId, steps }]));
  // Of two that are as long the one that came in later goes: it was handled least.
  const smallest = known.reduce<(typeof known)[number] | null>(
    (found, one) => (found === null || one.steps <= found.steps ? one : found),
    null,
  );
  const isFull = fish.length >= sheet.bagLimit;
  return {
    kind: 'length',
    fish: measured,
    totalSteps: known.reduce((sum, { steps }) => sum + steps, 0),
    smallestId: smallest?.fishId ?? null,
    nextMustBeatSteps: isFull ? (smallest?.steps ?? null) : null,
    releaseId:
      fish.length > sheet.bagLimit && known.length === fish.length ? (smallest?.fishId ?? null) : null,
  };
}

/** What the next fish must weigh for the total to gain so much. */
export interface Gain {
  name: 'ounce' | 'pound' | 'hundred-grams' | 'kilogram';
  gainG: number;
  needsG: number;
}

/** The strategy line: what it takes to gain a little and a lot; anything counts while the bag has room. */
export function gains({ measure }: WeightSheet, { nextMustBeatG }: WeightOutlook): Gain[] {
  const base = nextMustBeatG ?? 0;
  const wanted =
    unitSystemOf(measure.step) === 'metric'
      ? ([
          ['hundred-grams', 100],
          ['kilogram', 1000],
        ] as const)
      : ([
          ['ounce', G_PER_OUNCE],
          ['pound', G_PER_POUND],
        ] as const);
  return wanted.map(([name, gainG]) => ({ name, gainG, needsG: base + gainG }));
}

/** What a fish's slot holds, and what it would gain with a fish as heavy as the best aboard. */
export interface SlotWorth {
  fishId: FishId;
  /** Of the total, 0 to 1. */
  share: number;
  upToBestG: number;
}

/** What each slot is worth, the least first. */
export function slotWorths({ fish, totalG }: WeightOutlook): SlotWorth[] {
  const best = Math.max(0, ...fish.map(({ massG }) => massG));
  return fish
    .toSorted((a, b) => a.massG - b.massG)
    .map(({ fishId, massG }) => ({
      fishId,
      share: totalG > 0 ? massG / totalG : 0,
      upToBestG: best - massG,
    }));
}

/**
 * A well's total from its readings alone, without the beam and without draws: what is shown to everybody, and cheap enough
 * for all boats at once. Fish that were not weighed are guessed, as on the boat's own screen.
 */
export function waterTotalG(sheet: WeightSheet, well: LiveWell): number {
  const { fish, scales } = well;
  if (fish.length === 0) return 0;
  // Two mirrored draws of a normal have exactly its mean.
  const { meanG } = posteriorOf(weighedFish(sheet, fish, scales), scales, [], { draws: 2 });
  return meanG.reduce((sum, one) => sum + one, 0);
}

/** A bag's total to the nearest of the event's steps: an estimate until the scale at the weigh-in has spoken. */
export function totalSteps({ measure }: WeightSheet, { totalG }: WeightOutlook): number {
  return stepsFromG(Math.max(0, totalG), measure.step, 'nearest');
}
