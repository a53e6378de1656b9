import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { CommandBody, CommandKind } from '@lauta/contract';
import { useOnce } from '../ui/useOnce.ts';
import { outbox, useOutbox } from './outbox.ts';
import type { EventId } from '@lauta/core/ids';

/**
 * A write of a page: once at a time, kept on this device before it is sent. Where the server does not answer in time it
 * waits here and goes by itself; what the server refuses is kept no longer, and told.
 */
export function useCommand() {
  const client = useQueryClient();
  const { run, isBusy, error } = useOnce();
  const { entries } = useOutbox();
  const [waitingId, setWaitingId] = useState<string | null>(null);
  const send = <K extends CommandKind>(
    kind: K,
    eventId: EventId,
    body: CommandBody<K>,
    /** Done when the server has it, or when it waits on this device. */
    then: (outcome: 'taken' | 'waiting') => unknown = () => undefined,
  ): Promise<void> =>
    run(async () => {
      setWaitingId(null);
      const commandId = uuidv7();
      try {
        const answer = await outbox.submit(kind, eventId, body, { commandId });
        if (answer === 'waiting') setWaitingId(commandId);
        await then(answer === 'waiting' ? 'waiting' : 'taken');
      } finally {
        // What another has written meanwhile is why it was refused.
        await client.invalidateQueries({ queryKey: ['event', eventId] });
      }
    });
  return {
    send,
    isBusy,
    error,
    /** The last one sent from here is kept on this device and has not arrived yet. */
    isWaiting: entries.some(({ command, refused }) => command.commandId === waitingId && refused === null),
  };
}
