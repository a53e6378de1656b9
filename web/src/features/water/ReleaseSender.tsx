import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { Handling } from '@lauta/core/care';
import { useInEvent } from '../../event/inEvent.ts';
import { useOnce } from '../../ui/useOnce.ts';
import { outbox } from '../../outbox/outbox.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import type { CatchId } from '@lauta/core/ids';

/** Sends what happened to a fish after it was claimed: its release, and the signs that were seen. */
export function ReleaseSender({
  catchId,
  handling,
  onSent,
}: {
  catchId: CatchId;
  handling: Handling;
  onSent: () => void;
}) {
  const { event } = useInEvent();
  const [commandId] = useState(() => uuidv7());
  const { run, isBusy, error } = useOnce();
  const send = async (): Promise<void> => {
    const told = { ...handling, events: [...handling.events] };
    await outbox.keep('catch.handle', event.eventId, { catchId, handling: told }, { commandId });
    onSent();
  };
  return (
    <div className="grid gap-2">
      <ProblemNote error={error} />
      <button
        type="button"
        className="btn btn-primary main-action"
        disabled={isBusy}
        onClick={() => void run(send)}
      >
        {isBusy ? 'Sending …' : 'Send how it left'}
      </button>
    </div>
  );
}
