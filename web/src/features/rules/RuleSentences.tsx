import type { RuleSheet, TieBreak } from '@lauta/core/rules';
import { formatSteps } from '@lauta/core/units';
import { useBoards } from '../boards/queries.ts';
import { INFRACTION_WORDS, STEP_WORDS } from '../catch/words.ts';

const TIES: Record<TieBreak, string> = {
  'biggest-fish': 'the biggest fish',
  'next-biggest': 'the next biggest',
  'earliest-completion': 'the earlier capture of the fish that completed the score',
};

/** The sheet in plain sentences. */
export function RuleSentences({ sheet, eventId }: { sheet: RuleSheet; eventId: string }) {
  const boards = useBoards(eventId);
  const { measure } = sheet;
  const deductions = sheet.penalties.filter((rule) => rule.penalty.kind === 'deduction');
  const disqualifying = sheet.penalties.filter((rule) => rule.penalty.kind === 'disqualification');
  return (
    <ul className="ruled border-base-300 mt-1 border-y [&>li]:py-2">
      <li>
        Length counts, in {STEP_WORDS[measure.step]}, rounded{' '}
        {measure.rounding === 'down' ? 'down to the line reached' : 'to the nearest line'}.
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
                ? 'counts at any length'
                : `counts from ${formatSteps(species.minimumSteps, measure.step)}`}
          </span>
        ))}
        .
      </li>
      {sheet.airSeconds !== undefined && <li>No lift out of the water longer than {sheet.airSeconds} s.</li>}
      {sheet.personPicture && <li>A picture of the person with the fish goes with each claim.</li>}
      <li>Approved boards: {sheet.boards.map(boards.nameOf).join('; ')}.</li>
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
