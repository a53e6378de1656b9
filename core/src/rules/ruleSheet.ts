import { stepsFromMm, type LengthStepId, type Rounding } from '../units/index.ts';
import type { Infraction } from './infractions.ts';

/** What scores. Weight joins as a further member. */
export type Measure = { kind: 'length'; step: LengthStepId; rounding: Rounding };

export interface SpeciesRule {
  id: string;
  name: string;
  /** Whole steps of the measure; null where the event sets none. */
  minimumSteps: number | null;
  counts: boolean;
}

export type Penalty = { kind: 'deduction'; steps: number } | { kind: 'disqualification' };

export interface PenaltyRule {
  infraction: Infraction;
  penalty: Penalty;
}

export const TIE_BREAKS = ['biggest-fish', 'next-biggest', 'earliest-completion'] as const;
export type TieBreak = (typeof TIE_BREAKS)[number];

/** All rules of an event as data. A published sheet never changes; a new version takes its place for later catches. */
export interface RuleSheet {
  schemaVersion: 1;
  title: string;
  measure: Measure;
  bagLimit: number;
  /** Whether the best fish are chosen over the whole event, or day by day and added up. */
  bagPeriod: 'event' | 'day';
  species: SpeciesRule[];
  /** Ids of the board profiles that the event approves. */
  boards: string[];
  penalties: PenaltyRule[];
  /** The longest time out of the water in one lift, s; where it is absent each person's school holds. */
  airSeconds?: number | undefined;
  /** Wants a picture of the person with each fish; where it is absent none is asked for. */
  personPicture?: boolean | undefined;
  /** Applied in this order; entrants still equal after the last share the rank. */
  tieBreaks: TieBreak[];
}

export const RULE_SHEET_VERSION = 1;

/** The one rounding function: whole steps that a measured length reaches under this sheet. */
export function stepsReached(measure: Measure, lengthMm: number): number {
  return stepsFromMm(lengthMm, measure.step, measure.rounding);
}

export function findSpecies(sheet: RuleSheet, speciesId: string): SpeciesRule | null {
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
