import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { Handling } from '@lauta/core/care';
import { useInEvent } from '../../frame/inEvent.ts';
import { outbox } from '../../outbox/outbox.ts';
import { ProblemNote } from '../../problem/ProblemNote.tsx';
import { lastClockOffset } from '../prepare/preparedness.ts';

/** Keeps what this phone timed; the other phone claims the fish, and the server puts both together. */
export function TimeSender({
  catchId,
  entrantId,
  number,
  handling,
  onKept,
}: {
  catchId: string;
  entrantId: string;
  number: number;
  handling: Handling;
  onKept: () => void;
}) {
  const { event } = useInEvent();
  const [commandId] = useState(() => uuidv7());
  const [isBusy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const keep = async (): Promise<void> => {
    if (isBusy) return;
    setBusy(true);
    setError(null);
    try {
      await outbox.keep(
        'catch.time',
        event.eventId,
        {
          catchId,
          entrantId,
          handling: { ...handling, events: [...handling.events] },
          clockOffsetMs: lastClockOffset(),
        },
        { commandId },
      );
      onKept();
    } catch (problem) {
      setError(problem);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="grid gap-2">
      <ProblemNote error={error} />
      <button
        type="button"
        className="btn btn-primary main-action"
        disabled={isBusy}
        onClick={() => void keep()}
      >
        Keep the time of fish {number}
      </button>
    </div>
  );
}
