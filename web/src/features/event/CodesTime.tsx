import { useState } from 'react';
import type { DayView } from '@lauta/contract';
import { resolveWallTime, wallTimeOf } from '@lauta/core/schedule';
import { dayWords } from '@lauta/words/clock';
import { useInEvent } from '../../event/inEvent.ts';
import { CommandNote } from '../../outbox/CommandNote.tsx';
import { useCommand } from '../../outbox/useCommand.ts';

/** From when on entrants see the codes of a day, and the cards to print. */
export function CodesTime({ day }: { day: DayView }) {
  const { event } = useInEvent();
  const command = useCommand();
  const [typed, setTyped] = useState(() =>
    day.codesFrom === null ? '' : wallTimeOf(Date.parse(day.codesFrom), event.zone).local.slice(0, 16),
  );
  const [said, setSaid] = useState<string | null>(null);
  const save = async (local: string): Promise<void> => {
    setSaid(null);
    const resolved = local === '' ? null : resolveWallTime(`${local}:00`, event.zone);
    if (resolved && !resolved.ok) return setSaid('That time does not exist on this day.');
    const from = resolved ? new Date(resolved.instantMs).toISOString() : null;
    await command.send('codes.reveal', event.eventId, { dayId: day.dayId, from }, (outcome) => {
      setTyped(local);
      if (outcome === 'taken') setSaid(from === null ? 'Shown from the start.' : 'Kept.');
    });
  };
  return (
    <li className="grid gap-2 py-2">
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(submit) => {
          submit.preventDefault();
          void save(typed);
        }}
      >
        <label className="grid gap-1">
          <span>
            <b>Day {day.seq}</b>, {dayWords(day.date)}: entrants see their codes from
          </span>
          <input
            type="datetime-local"
            className="input num h-12"
            value={typed}
            onChange={({ currentTarget }) => setTyped(currentTarget.value)}
          />
        </label>
        <button type="submit" className="btn h-12" disabled={typed === ''}>
          Keep
        </button>
        <button type="button" className="btn h-12" onClick={() => void save('')}>
          From the start
        </button>
        <a
          className="linklike inline-flex min-h-12 items-center"
          href={`/api/events/${event.eventId}/days/${day.dayId}/identifiers.pdf`}
          target="_blank"
          rel="noreferrer"
        >
          Cards to print
        </a>
      </form>
      {said && <p role="status">{said}</p>}
      <CommandNote command={command} />
    </li>
  );
}
