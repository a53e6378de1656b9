import { applyPenalties, findSpecies, type Infraction, type RuleSheet } from '../rules/index.ts';
import type { CatchId, DayId, EntrantId, SpeciesId } from '../ids.ts';

/** What a judge decided, as far as the score needs it. */
export type Decision =
  | { kind: 'accepted'; steps: number; infractions: readonly Infraction[] }
  | { kind: 'refused' }
  | { kind: 'sent-back' };

/** One catch as the scoring sees it: a reading in whole steps and what was decided, never pixels. */
export interface ScoringCatch {
  catchId: CatchId;
  entrantId: EntrantId;
  speciesId: SpeciesId;
  /** The rule sheet's version that was in force at the capture. */
  ruleVersion: number;
  /** The event's day that the capture falls on; the bag is made up day by day where the sheet says so. */
  dayId: DayId;
  claimedSteps: number;
  capturedAtMs: number;
  inSession: boolean;
  withdrawn: boolean;
  /** Claimed so that nobody believes it unseen: it counts once a judge has accepted it. */
  needsJudge?: boolean;
  decision: Decision | null;
}

export type NotCounting =
  | 'withdrawn'
  | 'refused'
  | 'outside-session'
  | 'needs-judge'
  | 'species-unknown'
  | 'species-not-counting'
  | 'under-minimum'
  | 'disqualified';

export interface FishScore {
  catchId: CatchId;
  dayId: DayId;
  speciesId: SpeciesId;
  capturedAtMs: number;
  /** `official` once a judge accepted it, `provisional` while undecided or sent back. */
  standing: 'official' | 'provisional';
  /** The length that scores before deductions. */
  grossSteps: number;
  deductionSteps: number;
  infractions: readonly Infraction[];
  /** Never under zero. */
  scoreSteps: number;
  notCounting: NotCounting | null;
}

/**
 * What one catch is worth under a rule sheet.
 * The minimum is compared with the length before deductions; a catch at exactly the minimum counts.
 * A capture outside of lines-in and lines-out counts only if a judge accepted it all the same.
 */
export function scoreFish(sheet: RuleSheet, caught: ScoringCatch): FishScore {
  const { decision } = caught;
  const accepted = decision?.kind === 'accepted';
  const grossSteps = accepted ? decision.steps : caught.claimedSteps;
  const infractions = accepted ? decision.infractions : [];
  const penalties = applyPenalties(sheet, infractions);
  return {
    catchId: caught.catchId,
    dayId: caught.dayId,
    speciesId: caught.speciesId,
    capturedAtMs: caught.capturedAtMs,
    standing: accepted ? 'official' : 'provisional',
    grossSteps,
    deductionSteps: penalties.deductionSteps,
    infractions,
    scoreSteps: Math.max(0, grossSteps - penalties.deductionSteps),
    notCounting: whyNotCounting(sheet, caught, grossSteps, penalties.disqualifiedBy.length > 0),
  };
}

function whyNotCounting(
  sheet: RuleSheet,
  caught: ScoringCatch,
  grossSteps: number,
  disqualified: boolean,
): NotCounting | null {
  if (caught.withdrawn) return 'withdrawn';
  if (caught.decision?.kind === 'refused') return 'refused';
  if (disqualified) return 'disqualified';
  if (!caught.inSession && caught.decision?.kind !== 'accepted') return 'outside-session';
  if (caught.needsJudge && caught.decision?.kind !== 'accepted') return 'needs-judge';
  const species = findSpecies(sheet, caught.speciesId);
  if (!species) return 'species-unknown';
  if (!species.counts) return 'species-not-counting';
  if (species.minimumSteps !== null && grossSteps < species.minimumSteps) return 'under-minimum';
  return null;
}
