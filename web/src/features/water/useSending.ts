import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import type { CatchMark, CommandBody, Receipt } from '@lauta/contract';
import { sendCommand } from '../../door/door.ts';
import { ApiProblem } from '../../door/http.ts';
import { useInEvent } from '../../frame/inEvent.ts';

export interface Claimed {
  catchId: string;
  /** Its place in the ledger; null when it was there already. */
  seq: number | null;
  marks: CatchMark[];
  claimedSteps: number;
}

/** What is sent: first its photographs, then the claim itself. */
export interface Sending {
  commandId: string;
  claim: CommandBody<'catch.claim'>;
  upload: (signal: AbortSignal, onProgress: (share: number) => void) => Promise<void>;
}

/** Sends photographs and claim, once, however often it is asked to. */
export function useSending(onClaimed: (claimed: Claimed) => void) {
  const { event } = useInEvent();
  const client = useQueryClient();
  const [isBusy, setBusy] = useState(false);
  const [progress, setProgress] = useState(0);
  const [error, setError] = useState<unknown>(null);
  const isSending = useRef(false);
  const abort = useRef<AbortController | null>(null);
  const isHere = useRef(true);
  useEffect(() => {
    isHere.current = true;
    return () => {
      isHere.current = false;
    };
  }, []);
  const send = async ({ commandId, claim, upload }: Sending): Promise<void> => {
    // State comes too late for a double click.
    if (isSending.current) return;
    isSending.current = true;
    const stopping = new AbortController();
    abort.current = stopping;
    setBusy(true);
    setError(null);
    const { catchId, claimedSteps } = claim;
    try {
      await upload(stopping.signal, setProgress);
      stopping.signal.throwIfAborted();
      const receipt: Receipt = await sendCommand('catch.claim', event.eventId, claim, commandId);
      const marks = (receipt.result['marks'] ?? []) as CatchMark[];
      onClaimed({ catchId, claimedSteps, seq: receipt.seq, marks });
      await client.invalidateQueries({ queryKey: ['event', event.eventId] });
    } catch (problem) {
      if (isClaimedAlready(problem)) onClaimed({ catchId, claimedSteps, seq: null, marks: [] });
      else if (isHere.current && !stopping.signal.aborted) setError(problem);
    } finally {
      isSending.current = false;
      setBusy(false);
    }
  };
  return { send, stop: () => abort.current?.abort(), isBusy, progress, error };
}

/** The draft's ids were sent before, with an answer that never arrived, or from another tab. */
function isClaimedAlready(problem: unknown): boolean {
  return (
    problem instanceof ApiProblem &&
    ['catch-exists', 'idempotency-key-reused', 'photograph-taken'].includes(problem.type)
  );
}
