import type { DayView } from '@lauta/contract';
import { unitSystemOf, type StepId } from '@lauta/core/units';
import { clockTime, dayWords } from '@lauta/words/clock';
import { useInEvent } from '../../event/inEvent.ts';
import type { EntrantId } from '@lauta/core/ids';

/** The code to write on the card, as large as the screen allows; before its time, when that is. */
export function TodaysCode({
  day,
  code,
  entrantId,
  step,
}: {
  day: DayView;
  code: string | null;
  entrantId: EntrantId;
  /** What the event scores in; null before that is known. */
  step: StepId | null;
}) {
  const { event } = useInEvent();
  const sheet = `/api/events/${event.eventId}/entrants/${entrantId}/identifiers.pdf`;
  return (
    <section aria-labelledby="code">
      <h2 id="code">
        Code of day {day.seq}, {dayWords(day.date)}
      </h2>
      {code === null ? (
        <p>
          {day.codesFrom === null ? (
            'None is issued yet.'
          ) : (
            <>
              It is shown from <b className="num">{clockTime(day.codesFrom, event.zone)}</b>.
            </>
          )}
        </p>
      ) : (
        <>
          <p className="num text-7xl leading-tight font-bold tracking-widest sm:text-8xl">{code}</p>
          <p className="text-quiet">
            Write it on a matt card in letters at least{' '}
            {step !== null && unitSystemOf(step) === 'us' ? 'half an inch' : '12 mm'} tall, each in its box;
            compare it letter by letter. Or{' '}
            <a className="linklike" href={sheet} target="_blank" rel="noreferrer">
              print the card
            </a>{' '}
            in its true size.
          </p>
        </>
      )}
    </section>
  );
}
