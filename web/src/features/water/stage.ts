import type { ClockPhase } from '@lauta/core/care';

/** What the page is about: readings of a tape, a photograph on the bench, or the fish's clock and the camera. */
export type WaterStage = 'tape' | 'bench' | 'clock';

export interface WaterFacts {
  phase: ClockPhase;
  isTaped: boolean;
  hasDraft: boolean;
  /** The outbox has the draft's claim already: the page was killed between the two. */
  isDraftSent: boolean;
  isReshooting: boolean;
}

export function stageOf({ phase, isTaped, hasDraft, isDraftSent, isReshooting }: WaterFacts): WaterStage {
  if (isTaped) return 'tape';
  return hasDraft && !isDraftSent && !isReshooting && phase !== 'air' ? 'bench' : 'clock';
}

/** Whether the best frame goes to the bench by itself: only with the fish back in the water, and once. */
export function isProposalDue(
  { phase, hasDraft, isReshooting }: Pick<WaterFacts, 'phase' | 'hasDraft' | 'isReshooting'>,
  { isClaimed, isBursting, isFaultless }: { isClaimed: boolean; isBursting: boolean; isFaultless: boolean },
): boolean {
  if (phase === 'air' || hasDraft || isReshooting || isClaimed) return false;
  return !isBursting || isFaultless;
}

/** Shot again after so many lifts: until the next one is over the bench stays away. */
export function isShotAgain(reshotAfter: number | null, lifts: number): boolean {
  return reshotAfter !== null && lifts <= reshotAfter;
}
