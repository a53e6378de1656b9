import { useQueryClient } from '@tanstack/react-query';
import { dayAndTime } from '@lauta/words/clock';
import { sendCommand } from '../../door/door.ts';
import { Signal } from '../../ui/Signal.tsx';
import { useInEvent } from '../../event/inEvent.ts';
import { useOnce } from '../../ui/useOnce.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';

/** Whether the results stand, and for the director the word that they do. */
export function Results() {
  const { event, place } = useInEvent();
  const client = useQueryClient();
  const { run, isBusy, error } = useOnce();
  const isDirector = place.may('edit-event');
  const isOfficial = Boolean(event.officialAt);
  if (!isOfficial && !isDirector) return null;
  const declare = async (): Promise<void> => {
    await sendCommand('results.declare', event.eventId, { isOfficial: !isOfficial });
    await client.invalidateQueries({ queryKey: ['event', event.eventId] });
  };
  return (
    <section aria-labelledby="results" className="grid gap-2">
      <h2 id="results">Results</h2>
      <p role="status">
        {event.officialAt ? (
          <Signal tone="clear">official since {dayAndTime(event.officialAt, event.zone)}</Signal>
        ) : (
          'Not official yet. Phones keep every frame until they are, for judges to ask for.'
        )}
      </p>
      {isDirector && !isOfficial && event.undecided > 0 && (
        <p>
          <Signal tone="look">{event.undecided} catches still await a judge</Signal>
        </p>
      )}
      <ProblemNote error={error} />
      {isDirector && (
        <button
          type="button"
          className="btn h-12 justify-self-start"
          disabled={isBusy}
          onClick={() => void run(declare)}
        >
          {isOfficial ? 'Open the results again' : 'Declare the results official'}
        </button>
      )}
    </section>
  );
}
