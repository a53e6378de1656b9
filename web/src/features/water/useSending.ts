import { useRef, useState } from 'react';
import type { Announcement, CommandBody } from '@lauta/contract';
import { custody } from '../../custody/custody.ts';
import { useInEvent } from '../../event/inEvent.ts';
import { outbox } from '../../outbox/outbox.ts';
import type { OutboxFile } from '../../outbox/outboxStore.ts';
import type { CatchId, CommandId } from '@lauta/core/ids';

export interface Claimed {
  catchId: CatchId;
  /** What the outbox knows it by. */
  commandId: CommandId;
  claimedSteps: number;
}

/** What is claimed: its photographs go first, then the claim itself. */
export interface Sending {
  commandId: CommandId;
  claim: CommandBody<'catch.claim'>;
  files: () => Promise<OutboxFile[]>;
}

/** What goes ahead of a claim's megabytes, so that it and its time are known before them. */
export function announcementOf(
  { catchId, entrantId, speciesId, captured, claimedSteps, identifierCode }: CommandBody<'catch.claim'>,
  files: readonly OutboxFile[],
): Announcement {
  return {
    catchId,
    entrantId,
    speciesId,
    capturedAt: captured.at,
    claimedSteps,
    identifierCode,
    photographs: files.map(({ fileId, sha256, blob }) => ({
      photographId: fileId,
      sha256,
      byteLength: blob.size,
    })),
  };
}

/** Puts photographs and claim into the outbox, once, however often it is asked to: from there they go by themselves. */
export function useSending(onClaimed: (claimed: Claimed) => void) {
  const { event } = useInEvent();
  const [isBusy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const isSending = useRef(false);
  const send = async ({ commandId, claim, files }: Sending): Promise<void> => {
    // State comes too late for a double click.
    if (isSending.current) return;
    isSending.current = true;
    setBusy(true);
    setError(null);
    const { catchId, claimedSteps } = claim;
    try {
      const kept = await files();
      await outbox.keep('catch.claim', event.eventId, claim, {
        commandId,
        files: kept,
        announcement: announcementOf(claim, kept),
      });
      void custody.tell();
      onClaimed({ catchId, commandId, claimedSteps });
    } catch (problem) {
      setError(problem);
    } finally {
      isSending.current = false;
      setBusy(false);
    }
  };
  return { send, isBusy, error };
}
