import { stepsFromMm, type LengthStepId, type MassStepId, type Rounding } from '../units/index.ts';
import type { Infraction } from './infractions.ts';
import type { SpeciesId } from '../ids.ts';

export interface LengthMeasure {
  kind: 'length';
  step: LengthStepId;
  rounding: Rounding;
}

export interface WeightMeasure {
  kind: 'weight';
  step: MassStepId;
  rounding: Rounding;
}

/** What scores. */
export type Measure = LengthMeasure | WeightMeasure;

/** A protected slot: of fish from one length to just under another only so many may be kept. */
export interface Slot {
  step: LengthStepId;
  fromSteps: number;
  underSteps: number;
  allowed: number;
}

export interface SpeciesRule {
  id: string;
  name: string;
  /** Whole steps of the measure; null where the event sets none. */
  minimumSteps: number | null;
  counts: boolean;
  /** The most of this kind in a bag; where it is absent only the bag's own limit holds. */
  limit?: number | undefined;
  /** The length at which a fish may be kept where weight counts; a shorter one is short. */
  minimumLength?: { step: LengthStepId; steps: number } | undefined;
  slot?: Slot | undefined;
}

export type Penalty = { kind: 'deduction'; steps: number } | { kind: 'disqualification' };

export interface PenaltyRule {
  infraction: Infraction;
  penalty: Penalty;
}

/** What a fish that should not be in a bag costs, each one; where it is not counted, its weight goes too. */
export type FishPenalty =
  | { kind: 'deduction'; steps: number }
  | { kind: 'not-counted'; steps: number }
  | { kind: 'disqualification' };

/** The rules of the scale, where weight counts. */
export interface WeighInRules {
  deadFish: FishPenalty;
  shortFish: FishPenalty;
  /** Each fish over the bag’s limit, and which of the fish leave the bag for it. */
  overLimit: { penalty: FishPenalty; takenOut: 'largest' | 'smallest' };
  late: {
    /** Minutes after the session's end in which nothing is deducted. */
    graceMinutes: number;
    /** For each minute begun after that. */
    stepsPerMinute: number;
    /** From here on nothing is weighed; null weighs however late. */
    refusedAfterMinutes: number | null;
  };
  /** Whether a fish that died may be culled. */
  deadMayBeCulled: boolean;
  /** Whether one person enters a weight and another confirms it. */
  twoPeople: boolean;
}

export const TIE_BREAKS = ['biggest-fish', 'next-biggest', 'earliest-completion', 'more-alive'] as const;
export type TieBreak = (typeof TIE_BREAKS)[number];

/** All rules of an event as data. A published sheet never changes; a new version takes its place for later catches. */
export interface RuleSheet<M extends Measure = Measure> {
  schemaVersion: 1;
  title: string;
  measure: M;
  bagLimit: number;
  /** Whether the best fish are chosen over the whole event, or day by day and added up. */
  bagPeriod: 'event' | 'day';
  species: SpeciesRule[];
  /** Ids of the board profiles that the event approves; none where weight counts. */
  boards: string[];
  penalties: PenaltyRule[];
  /** The longest time out of the water in one lift, s; where it is absent each person's school holds. */
  airSeconds?: number | undefined;
  /** Wants a picture of the person with each fish; where it is absent none is asked for. */
  personPicture?: boolean | undefined;
  /** Where weight counts. */
  weighIn?: WeighInRules | undefined;
  /** Applied in this order; entrants still equal after the last share the rank. */
  tieBreaks: TieBreak[];
}

export const RULE_SHEET_VERSION = 1;

export type LengthSheet = RuleSheet<LengthMeasure>;
export type WeightSheet = RuleSheet<WeightMeasure>;

export function isLengthSheet(sheet: RuleSheet): sheet is LengthSheet {
  return sheet.measure.kind === 'length';
}

export function isWeightSheet(sheet: RuleSheet): sheet is WeightSheet {
  return sheet.measure.kind === 'weight';
}

/** The one rounding function: whole steps that a measured length reaches under this sheet. */
export function stepsReached(measure: LengthMeasure, lengthMm: number): number {
  return stepsFromMm(lengthMm, measure.step, measure.rounding);
}

export function findSpecies(sheet: RuleSheet, speciesId: SpeciesId): SpeciesRule | null {
  return sheet.species.find((species) => species.id === speciesId) ?? null;
}

export interface PenaltySum {
  deductionSteps: number;
  disqualifiedBy: Infraction[];
  /** Confirmed infractions for which the sheet names no penalty: noted, no effect on the score. */
  noted: Infraction[];
}

/** What the sheet makes of confirmed infractions. One named twice counts once. */
export function applyPenalties(sheet: RuleSheet, infractions: readonly Infraction[]): PenaltySum {
  const sum: PenaltySum = { deductionSteps: 0, disqualifiedBy: [], noted: [] };
  for (const infraction of new Set(infractions)) {
    const rule = sheet.penalties.find((candidate) => candidate.infraction === infraction);
    if (!rule) sum.noted.push(infraction);
    else if (rule.penalty.kind === 'deduction') sum.deductionSteps += rule.penalty.steps;
    else sum.disqualifiedBy.push(infraction);
  }
  return sum;
}
