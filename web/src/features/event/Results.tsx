import { dayAndTime } from '@lauta/words/clock';
import { Signal } from '../../ui/Signal.tsx';
import { useInEvent } from '../../event/inEvent.ts';
import { CommandNote } from '../../outbox/CommandNote.tsx';
import { useCommand } from '../../outbox/useCommand.ts';

/** Whether the results stand, and for the director the word that they do. */
export function Results() {
  const { event, place } = useInEvent();
  const command = useCommand();
  const isDirector = place.may('edit-event');
  const isOfficial = Boolean(event.officialAt);
  if (!isOfficial && !isDirector) return null;
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
      <CommandNote command={command} />
      {isDirector && (
        <button
          type="button"
          className="btn h-12 justify-self-start"
          disabled={command.isBusy || command.isWaiting}
          onClick={() => void command.send('results.declare', event.eventId, { isOfficial: !isOfficial })}
        >
          {isOfficial ? 'Open the results again' : 'Declare the results official'}
        </button>
      )}
    </section>
  );
}
