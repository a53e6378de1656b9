import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { Handling } from '@lauta/core/care';
import { useInEvent } from '../../event/inEvent.ts';
import { useOnce } from '../../ui/useOnce.ts';
import { outbox } from '../../outbox/outbox.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { lastClockOffset } from '../../device/preparedness.ts';
import type { CatchId, EntrantId } from '@lauta/core/ids';

/** Keeps what this phone timed; the other phone claims the fish, and the server puts both together. */
export function TimeSender({
  catchId,
  entrantId,
  number,
  handling,
  onKept,
}: {
  catchId: CatchId;
  entrantId: EntrantId;
  number: number;
  handling: Handling;
  onKept: () => void;
}) {
  const { event } = useInEvent();
  const [commandId] = useState(() => uuidv7());
  const { run, isBusy, error } = useOnce();
  const keep = async (): Promise<void> => {
    const body = {
      catchId,
      entrantId,
      handling: { ...handling, events: [...handling.events] },
      clockOffsetMs: lastClockOffset(),
    };
    await outbox.keep('catch.time', event.eventId, body, { commandId });
    onKept();
  };
  return (
    <div className="grid gap-2">
      <ProblemNote error={error} />
      <button
        type="button"
        className="btn btn-primary main-action"
        disabled={isBusy}
        onClick={() => void run(keep)}
      >
        Keep the time of fish {number}
      </button>
    </div>
  );
}
