import type { RuleSheet } from '@lauta/core/rules';
import type { TicketStanding } from '@lauta/core/scoring';
import { formatSteps, unitOf } from '@lauta/core/units';
import { clockTime, dayWords } from '@lauta/words/clock';
import { useInEvent } from '../../event/inEvent.ts';
import { Signal } from '../../ui/Signal.tsx';
import { PENALTY_KIND_WORDS, STATE_WORDS } from '@lauta/words/weighIn';
import { TieNote } from './TieNote.tsx';

/** Where a score by weight comes from: each day's bag, what was taken off it, and how far its ticket is. */
export function WhyTickets({
  standing,
  sheet,
  names,
}: {
  standing: TicketStanding;
  sheet: RuleSheet;
  names: Record<string, string>;
}) {
  const { event, place } = useInEvent();
  const { step } = sheet.measure;
  const maySee = place.may('see-ticket', standing.entrantId);
  if (standing.tickets.length === 0) return <p className="text-quiet">No bag weighed yet.</p>;
  return (
    <div className="max-w-3xl overflow-x-auto">
      <table className="w-full text-sm">
        <caption className="sr-only">Why this score</caption>
        <thead className="text-quiet text-left">
          <tr>
            <th className="py-1 pr-3 font-normal">bag</th>
            <th className="pr-3 text-right font-normal">net</th>
            <th className="pr-3 text-right font-normal">off</th>
            <th className="pr-3 text-right font-normal">counts</th>
            <th className="pr-3 text-right font-normal">big fish</th>
            <th className="font-normal">ticket</th>
          </tr>
        </thead>
        <tbody className="ruled">
          {standing.tickets.map(({ ticketId, dayId, number, state, arrivedAtMs, score }) => {
            const day = event.days.find((one) => one.dayId === dayId);
            return (
              <tr key={ticketId}>
                <td className="py-1 pr-3">
                  {dayWords(day?.date ?? '')}, number {number}{' '}
                  <span className="text-quiet num">{clockTime(new Date(arrivedAtMs), event.zone)}</span>
                </td>
                <td className="num pr-3 text-right">
                  {score.netSteps === null ? '–' : formatSteps(score.netSteps, step)}
                </td>
                <td className="pr-3 text-right">
                  {score.penalties.map(({ kind, count, steps, disqualifies }) => (
                    <span key={kind} className="block">
                      <span className="num">{disqualifies ? 'all' : formatSteps(-steps, step)}</span>{' '}
                      {PENALTY_KIND_WORDS[kind](count)}
                    </span>
                  ))}
                </td>
                <td className="num pr-3 text-right font-bold">{formatSteps(score.totalSteps, step)}</td>
                <td className="num pr-3 text-right">
                  {score.bigFishSteps === null ? '' : formatSteps(score.bigFishSteps, step)}
                </td>
                <td>
                  <Signal tone={state === 'signed' ? 'clear' : 'look'}>{STATE_WORDS[state]}</Signal>
                  {maySee && (
                    <a
                      className="linklike ml-3"
                      href={`/api/events/${event.eventId}/tickets/${ticketId}/ticket.pdf`}
                      target="_blank"
                      rel="noreferrer"
                    >
                      PDF
                    </a>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
        <tfoot>
          <tr className="border-base-content border-t">
            <th scope="row" colSpan={3} className="py-1 text-left">
              total, {unitOf(step)}
            </th>
            <td className="num pr-3 text-right font-bold">{formatSteps(standing.score.steps, step)}</td>
            <td colSpan={2}>
              {standing.provisionalSteps > 0 && (
                <Signal tone="look">of it {formatSteps(standing.provisionalSteps, step)} not signed</Signal>
              )}
            </td>
          </tr>
        </tfoot>
      </table>
      <TieNote standing={standing} names={names} />
    </div>
  );
}
