import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import type { CatchMark } from '@lauta/contract';
import type { Handling } from '@lauta/core/care';
import type { BenchNotes, BoardMarks } from '@lauta/core/photo';
import { sendCommand } from '../../door/door.ts';
import { ApiProblem } from '../../door/http.ts';
import { uploadPhotograph } from '../../door/uploadPhotograph.ts';
import { useInEvent } from '../../frame/inEvent.ts';
import type { OpenedPhoto } from '../photo/benchProtocol.ts';
import { lastClockOffset } from '../prepare/preparedness.ts';
import type { CaptureTime } from './captureTime.ts';
import type { CatchDraft } from './draft.ts';

export interface Claimed {
  catchId: string;
  /** Its place in the ledger; null when it was there already. */
  seq: number | null;
  marks: CatchMark[];
  claimedSteps: number;
}

/** Sends photograph and claim, once, however often it is asked to. */
export function useClaim({
  draft,
  photo,
  entrantId,
  capture,
  code,
  marks: boardMarks,
  bench,
  handling,
  onClaimed,
}: {
  draft: CatchDraft;
  photo: OpenedPhoto;
  entrantId: string;
  capture: CaptureTime;
  code: string | null;
  marks: BoardMarks;
  bench: BenchNotes | null;
  handling: Handling | null;
  onClaimed: (claimed: Claimed) => void;
}) {
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
  const claim = async (claimedSteps: number): Promise<void> => {
    // State comes too late for a double click.
    if (isSending.current) return;
    isSending.current = true;
    const stopping = new AbortController();
    abort.current = stopping;
    setBusy(true);
    setError(null);
    const clockOffsetMs = lastClockOffset();
    const { photographId, catchId, measurementId, speciesId, boardId } = draft;
    try {
      await uploadPhotograph({
        photographId,
        eventId: event.eventId,
        photo: draft.photo,
        sha256: photo.sha256,
        onProgress: setProgress,
        signal: stopping.signal,
      });
      stopping.signal.throwIfAborted();
      const receipt = await sendCommand(
        'catch.claim',
        event.eventId,
        {
          catchId,
          entrantId,
          speciesId,
          captured: capture,
          photographs: [{ photographId, role: 'board' }],
          measurement: {
            kind: 'board',
            measurementId,
            photographId,
            boardId,
            marks: boardMarks,
            ...(bench ? { bench: { ...bench, byHand: [...bench.byHand] } } : {}),
          },
          claimedSteps,
          identifierCode: (draft.identifierCode ?? code)?.trim() || null,
          ...(clockOffsetMs === null ? {} : { clockOffsetMs }),
          ...(handling ? { handling: { ...handling, events: [...handling.events] } } : {}),
        },
        draft.commandId,
      );
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
  return { claim, stop: () => abort.current?.abort(), isBusy, progress, error };
}

/** The draft's ids were sent before, with an answer that never arrived, or from another tab. */
function isClaimedAlready(problem: unknown): boolean {
  return (
    problem instanceof ApiProblem &&
    ['catch-exists', 'idempotency-key-reused', 'photograph-taken'].includes(problem.type)
  );
}
