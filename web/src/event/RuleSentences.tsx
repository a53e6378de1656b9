import {
  keptRules,
  type FishPenalty,
  type RuleSheet,
  type SpeciesRule,
  type TieBreak,
  type WeighInRules,
} from '@lauta/core/rules';
import { formatSteps, unitOf, type StepId } from '@lauta/core/units';
import { useBoards } from '../queries/boards.ts';
import { INFRACTION_WORDS, STEP_WORDS } from '@lauta/words/catch';
import type { EventId } from '@lauta/core/ids';

const TIES: Record<TieBreak, string> = {
  'biggest-fish': 'the biggest fish',
  'next-biggest': 'the next biggest',
  'earliest-completion': 'the earlier capture of the fish that completed the score',
  'more-alive': 'more fish alive at the scale',
};

/** The sheet in plain sentences. */
export function RuleSentences({ sheet: written, eventId }: { sheet: RuleSheet; eventId: EventId }) {
  const sheet = keptRules(written);
  const boards = useBoards(eventId);
  const { measure } = sheet;
  const deductions = sheet.penalties.filter((rule) => rule.penalty.kind === 'deduction');
  const disqualifying = sheet.penalties.filter((rule) => rule.penalty.kind === 'disqualification');
  return (
    <ul className="ruled border-base-300 mt-1 border-y [&>li]:py-2">
      <li>
        {measure.kind === 'length' ? 'Length' : 'Weight'} counts, in {STEP_WORDS[measure.step]}, rounded{' '}
        {measure.rounding === 'down' ? 'down to the step reached' : 'to the nearest step'}.
      </li>
      <li>
        The best {sheet.bagLimit} fish count
        {sheet.bagPeriod === 'day' ? ' each day, and the days are added up' : ' over the whole event'}.
      </li>
      <li>
        {sheet.species.map((species, i) => (
          <span key={species.id}>
            {i > 0 && '; '}
            <b>{species.name}</b>{' '}
            {!species.counts
              ? 'does not count'
              : species.minimumSteps === null
                ? `counts at any ${measure.kind}`
                : `counts from ${formatSteps(species.minimumSteps, measure.step)}`}
            {keptWords(species)}
          </span>
        ))}
        .
      </li>
      {sheet.airSeconds !== undefined && <li>No lift out of the water longer than {sheet.airSeconds} s.</li>}
      {sheet.personPicture && <li>A picture of the person with the fish goes with each claim.</li>}
      {sheet.boards.length > 0 && <li>Approved boards: {sheet.boards.map(boards.nameOf).join('; ')}.</li>}
      {sheet.weighIn && <WeighInSentences rules={sheet.weighIn} step={measure.step} />}
      {deductions.length > 0 && (
        <li>
          Deducted:{' '}
          {deductions
            .map(
              ({ infraction, penalty }) =>
                `${INFRACTION_WORDS[infraction]} ${penalty.kind === 'deduction' ? formatSteps(penalty.steps, measure.step) : ''}`,
            )
            .join('; ')}
          .
        </li>
      )}
      {disqualifying.length > 0 && (
        <li>
          The fish does not count with:{' '}
          {disqualifying.map((rule) => INFRACTION_WORDS[rule.infraction]).join('; ')}.
        </li>
      )}
      <li>
        {sheet.tieBreaks.length === 0
          ? 'Equal totals share the rank.'
          : `Equal totals are set apart by ${sheet.tieBreaks.map((tie) => TIES[tie]).join(', then ')}.`}
      </li>
    </ul>
  );
}

/** Limits of a kind beside the bag's own. */
function keptWords({ limit, minimumLength, slot }: SpeciesRule): string {
  const parts = [
    minimumLength
      ? `kept from ${formatSteps(minimumLength.steps, minimumLength.step)} ${unitOf(minimumLength.step)}`
      : null,
    limit === undefined ? null : `at most ${limit}`,
    slot
      ? `at most ${slot.allowed} from ${formatSteps(slot.fromSteps, slot.step)} to under ${formatSteps(slot.underSteps, slot.step)} ${unitOf(slot.step)}`
      : null,
  ].filter((one) => one !== null);
  return parts.length === 0 ? '' : `, ${parts.join(', ')}`;
}

function fishPenaltyWords(penalty: FishPenalty, step: StepId): string {
  if (penalty.kind === 'disqualification') return 'the bag does not count';
  const less = penalty.steps === 0 ? '' : `${formatSteps(penalty.steps, step)} ${unitOf(step)} off`;
  if (penalty.kind === 'deduction') return less === '' ? 'weighed as any other' : less;
  return less === '' ? 'not weighed' : `not weighed, ${less}`;
}

function WeighInSentences({ rules, step }: { rules: WeighInRules; step: StepId }) {
  const { late, overLimit } = rules;
  return (
    <>
      <li>
        At the scale: each dead fish {fishPenaltyWords(rules.deadFish, step)}; each short one{' '}
        {fishPenaltyWords(rules.shortFish, step)}; each over the limit{' '}
        {fishPenaltyWords(overLimit.penalty, step)}, the {overLimit.takenOut} taken out. A dead fish may{' '}
        {rules.deadMayBeCulled ? '' : 'not '}be culled.
      </li>
      <li>
        Late{late.graceMinutes > 0 ? ` by more than ${late.graceMinutes} min` : ''}:{' '}
        {formatSteps(late.stepsPerMinute, step)} {unitOf(step)} off for each minute begun
        {late.refusedAfterMinutes === null
          ? ''
          : `; after ${late.refusedAfterMinutes} min nothing is weighed`}
        .
      </li>
      {rules.twoPeople && <li>One enters a weight and another confirms it.</li>}
    </>
  );
}
