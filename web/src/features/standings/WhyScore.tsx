import { Link } from 'react-router';
import type { RuleSheet } from '@lauta/core/rules';
import type { CatchStanding, FishScore } from '@lauta/core/scoring';
import { formatSteps } from '@lauta/core/units';
import { dayAndTime } from '@lauta/words/clock';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { Signal } from '../../ui/Signal.tsx';
import { TieNote } from './TieNote.tsx';
import { INFRACTION_WORDS, NOT_COUNTING_WORDS, penaltyWords, speciesName } from '@lauta/words/catch';
import type { EntrantId } from '@lauta/core/ids';

/** Where a score comes from, line by line: what counts, what was culled, what does not count, and why. */
export function WhyScore({
  standing,
  sheet,
  names,
}: {
  standing: CatchStanding;
  sheet: RuleSheet;
  names: Record<string, string>;
}) {
  const { step } = sheet.measure;
  const { bag, score } = standing;
  const rows: { fish: FishScore; part: 'counts' | 'culled' | 'not' }[] = [
    ...bag.counting.map((fish) => ({ fish, part: 'counts' as const })),
    ...bag.culled.map((fish) => ({ fish, part: 'culled' as const })),
    ...bag.notCounting.map((fish) => ({ fish, part: 'not' as const })),
  ];
  if (rows.length === 0) return <p className="text-quiet">No fish claimed yet.</p>;
  return (
    <div className="max-w-3xl overflow-x-auto">
      <table className="w-full text-sm">
        <caption className="sr-only">Why this score</caption>
        <thead className="text-quiet text-left">
          <tr>
            <th className="py-1 pr-3 font-normal">fish</th>
            <th className="pr-3 text-right font-normal">{sheet.measure.kind}</th>
            <th className="pr-3 text-right font-normal">deducted</th>
            <th className="pr-3 text-right font-normal">scores</th>
            <th className="font-normal">why</th>
          </tr>
        </thead>
        <tbody className="ruled">
          {rows.map(({ fish, part }) => (
            <FishRow
              key={fish.catchId}
              fish={fish}
              part={part}
              sheet={sheet}
              entrantId={standing.entrantId}
            />
          ))}
        </tbody>
        <tfoot>
          <tr className="border-base-content border-t">
            <th scope="row" colSpan={3} className="py-1 text-left">
              total of {bag.counting.length}
            </th>
            <td className="num pr-3 text-right font-bold">{formatSteps(score.steps, step)}</td>
            <td>
              {standing.provisionalSteps > 0 && (
                <Signal tone="look">of it {formatSteps(standing.provisionalSteps, step)} undecided</Signal>
              )}
            </td>
          </tr>
        </tfoot>
      </table>
      <TieNote standing={standing} names={names} />
    </div>
  );
}

function FishRow({
  fish,
  part,
  sheet,
  entrantId,
}: {
  entrantId: EntrantId;
  fish: FishScore;
  part: 'counts' | 'culled' | 'not';
  sheet: RuleSheet;
}) {
  const { event, place } = useInEvent();
  // Who may open the evidence gets a way to it; the others see the figures.
  const evidence = place.may('see-queue') ? 'judge' : place.may('see-original', entrantId) ? 'catches' : null;
  const { step } = sheet.measure;
  const reasons = fish.infractions.map((infraction) => {
    const rule = sheet.penalties.find((one) => one.infraction === infraction);
    return `${INFRACTION_WORDS[infraction]} (${rule ? penaltyWords(rule.penalty, step) : 'noted'})`;
  });
  return (
    <tr className={part === 'counts' ? '' : 'text-quiet'}>
      <td className="py-1 pr-3">
        {evidence ? (
          <Link className="linklike" to={eventPath(event.eventId, evidence, fish.catchId)}>
            {speciesName(sheet, fish.speciesId)}
          </Link>
        ) : (
          speciesName(sheet, fish.speciesId)
        )}
        <span className="text-quiet"> {dayAndTime(new Date(fish.capturedAtMs), event.zone)}</span>
      </td>
      <td className="num pr-3 text-right">{formatSteps(fish.grossSteps, step)}</td>
      <td className="num pr-3 text-right">
        {fish.deductionSteps > 0 ? formatSteps(-fish.deductionSteps, step) : ''}
      </td>
      <td className="num pr-3 text-right">{part === 'not' ? '0' : formatSteps(fish.scoreSteps, step)}</td>
      <td>
        {part === 'counts' && (
          <Signal tone={fish.standing === 'official' ? 'clear' : 'look'}>
            {fish.standing === 'official' ? 'official' : 'undecided'}
          </Signal>
        )}
        {part === 'culled' && 'culled: better ones fill the bag'}
        {part === 'not' && fish.notCounting && NOT_COUNTING_WORDS[fish.notCounting]}
        {reasons.length > 0 && <span className="block">{reasons.join(', ')}</span>}
      </td>
    </tr>
  );
}
