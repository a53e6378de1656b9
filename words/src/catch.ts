import type { DecisionInput } from '@lauta/contract';
import type { CatchMark, CatchState } from '@lauta/core/catch';
import type { FileCheck } from '@lauta/core/file-evidence';
import type { Infraction, Penalty, RuleSheet } from '@lauta/core/rules';
import type { NotCounting } from '@lauta/core/scoring';
import { formatSteps, type StepId } from '@lauta/core/units';
import type { Tone } from './tone.ts';
import type { SpeciesId } from '@lauta/core/ids';

export const INFRACTION_WORDS: Record<Infraction, string> = {
  'nose-gap': 'nose off the stop',
  'mouth-open': 'mouth open',
  'head-cropped': 'stop or nose out of the frame',
  'tail-cropped': 'tail out of the frame',
  'tail-curled': 'tail not flat',
  'tail-held': 'tail held or hidden',
  'identifier-missing': 'no card',
  'identifier-cropped': 'card cut off',
  'identifier-wrong': 'wrong code on the card',
  'identifier-glare': 'glare on the card',
  'identifier-over-reading': 'card over the reading',
  'facing-right': 'head at the right',
  'dorsal-near': 'back towards the angler',
  'eye-covered': 'eye covered',
  'hand-in-gills': 'hand in the gills',
  'grip-in-photo': 'grip in the picture',
  'contact-hidden': 'nose contact hidden',
  'cord-in-gills': 'cord through the gills',
  'more-fish': 'more than one fish or board',
  'screen-photo': 'photograph of a screen or print',
  'steep-camera': 'camera not above the fish',
  unsharp: 'lines unreadable',
  'craft-missing': 'craft not in the picture',
  'wrong-board': 'board not approved',
};

export const FILE_CHECK_WORDS: Record<FileCheck, string> = {
  'time-missing': 'no time in the file',
  'time-outside': 'the file’s time is outside of the hours',
  'place-missing': 'no position in the file',
  'place-outside': 'not on the event’s waters',
  'clock-off': 'the file’s clock is off',
  resaved: 'the file may have been stored again',
  'same-photo': 'the same photograph as another catch’s',
  'same-fish': 'the same fish as another catch’s',
  'too-far-too-soon': 'too far from the capture before it',
};

export const MARK_WORDS: Record<CatchMark, string> = {
  'before-lines-in': 'caught before lines-in',
  'after-lines-out': 'caught after lines-out',
  'no-session': 'the event has no session',
  'species-not-listed': 'species not in the rule sheet',
  'board-not-approved': 'board not approved',
  'by-tape': 'measured with a tape in the water',
  'taken-outside': 'photographed with another camera than the page’s own',
  'no-person-picture': 'no picture with the person, which the rules want',
  'captured-after-heard': 'dated after the server heard of it',
  'far-over-reading': 'claimed far over its reading',
};

export const STATE_WORDS: Record<CatchState, { word: string; tone: Tone }> = {
  undecided: { word: 'awaits a judge', tone: 'look' },
  answered: { word: 'answered, awaits a judge', tone: 'look' },
  'sent-back': { word: 'sent back to you', tone: 'look' },
  accepted: { word: 'accepted', tone: 'clear' },
  refused: { word: 'refused', tone: 'fault' },
  withdrawn: { word: 'withdrawn', tone: 'fault' },
};

export const NOT_COUNTING_WORDS: Record<NotCounting, string> = {
  withdrawn: 'withdrawn by the angler',
  refused: 'refused by a judge',
  'outside-session': 'caught outside of the hours',
  'needs-judge': 'counts once a judge has accepted it',
  'species-unknown': 'species not in the rule sheet',
  'species-not-counting': 'this species does not count',
  'under-minimum': 'under the minimum length',
  disqualified: 'disqualified',
};

export function penaltyWords(penalty: Penalty, step: StepId): string {
  return penalty.kind === 'disqualification' ? 'no score' : formatSteps(-penalty.steps, step);
}

export function speciesName(sheet: RuleSheet, speciesId: SpeciesId): string {
  return sheet.species.find((one) => one.id === speciesId)?.name ?? speciesId;
}

/** `in`, `cm` or `mm`, with the size of the step where it is not plain. */
export const STEP_WORDS: Record<StepId, string> = {
  'eighth-inch': 'inches, by the eighth',
  'quarter-inch': 'inches, by the quarter',
  'half-inch': 'inches, by the half',
  millimetre: 'millimetres',
  'half-centimetre': 'centimetres, by the half',
  centimetre: 'centimetres',
  ounce: 'pounds and ounces',
  'hundredth-pound': 'pounds, by the hundredth',
  'ten-gram': 'kilograms, by ten grams',
  gram: 'kilograms, by the gram',
};

export function decisionWords(
  decision: DecisionInput,
  step: StepId,
): { word: string; tone: Tone; says: string } {
  switch (decision.kind) {
    case 'accepted':
      return { word: `accepted at ${formatSteps(decision.steps, step)}`, tone: 'clear', says: decision.note };
    case 'refused':
      return { word: 'refused', tone: 'fault', says: decision.reason };
    case 'sent-back':
      return { word: 'sent back', tone: 'look', says: decision.request };
    case 'reopened':
      return { word: 'taken back', tone: 'look', says: '' };
  }
}
