import { CLOCK_SLACK_MS } from '../file-evidence/index.ts';
import { findSpecies, stepsReached, type RuleSheet } from '../rules/index.ts';
import type { CatchMark } from './catchState.ts';
import type { BoardId, SpeciesId } from '../ids.ts';

/** When a catch was made, as against the event's sessions. */
export type CapturedWhen = 'in-session' | 'before-lines-in' | 'after-lines-out' | 'no-session';

export interface ClaimFacts {
  /** In force when the fish was caught. */
  sheet: RuleSheet;
  when: CapturedWhen;
  speciesId: SpeciesId;
  claimedSteps: number | null;
  /** What it was measured with; null figures where it is not read yet. */
  reading:
    | { kind: 'board'; boardId: BoardId; apparentMm: number | null; sigmaMm: number | null }
    | { kind: 'tape'; apparentMm: number | null; sigmaMm: number | null };
  /** A photograph that was not taken by the page's own camera. */
  isFromOutside: boolean;
  hasPersonPicture: boolean;
  capturedAtMs: number;
  /** When the server first heard of the catch; null as long as it has not. */
  heardAtMs: number | null;
}

/**
 * What a claim is marked with, always in this order. Nothing of it drops the claim: a judge looks, or it does not count.
 * The page tells before the claim what the server writes down after it, as far as it can know.
 */
export function claimMarks(facts: ClaimFacts): CatchMark[] {
  const { sheet, reading, when } = facts;
  const marks: CatchMark[] = [];
  if (when !== 'in-session') marks.push(when);
  if (!findSpecies(sheet, facts.speciesId)) marks.push('species-not-listed');
  if (reading.kind === 'tape') marks.push('by-tape');
  else if (!sheet.boards.includes(reading.boardId)) marks.push('board-not-approved');
  if (facts.isFromOutside) marks.push('taken-outside');
  if (facts.heardAtMs !== null && facts.capturedAtMs > facts.heardAtMs + CLOCK_SLACK_MS)
    marks.push('captured-after-heard');
  if (isFarOver(facts)) marks.push('far-over-reading');
  if (sheet.personPicture && !facts.hasPersonPicture) marks.push('no-person-picture');
  return marks;
}

/** So much, and so many standard uncertainties, no slip of a thumb explains. */
const FAR_MM = 25.4;
const FAR_SIGMAS = 5;

function isFarOver({ sheet: { measure }, claimedSteps, reading }: ClaimFacts): boolean {
  const { apparentMm, sigmaMm } = reading;
  if (measure.kind !== 'length' || claimedSteps === null || apparentMm === null || sigmaMm === null)
    return false;
  return claimedSteps > stepsReached(measure, apparentMm + Math.max(FAR_MM, FAR_SIGMAS * sigmaMm));
}

const OUT_OF_SESSION: ReadonlySet<CatchMark> = new Set(['before-lines-in', 'after-lines-out', 'no-session']);

/** Whether a catch was made while lines were in, by its marks. */
export const isInSession = (marks: readonly CatchMark[]): boolean =>
  !marks.some((mark) => OUT_OF_SESSION.has(mark));
