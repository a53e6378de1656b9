import { useQueryClient } from '@tanstack/react-query';
import { useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import type { CatchView, DecisionInput } from '@lauta/contract';
import type { LengthSheet } from '@lauta/core/rules';
import { outbox, useOutbox } from '../../outbox/outbox.ts';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { useJustDecided } from './justDecided.tsx';
import { standingDecision } from './preview.ts';
import { useQueue } from '../../queries/queue.ts';
import type { VerdictId } from '@lauta/core/ids';

/** Catches that were decided on this device and of which the server has not heard yet. */
export function useDecidedHere(): ReadonlySet<string> {
  const { entries } = useOutbox();
  return useMemo(
    () =>
      new Set(
        entries.flatMap(({ command, refused }) =>
          command.kind === 'catch.judge' && refused === null ? [command.body.catchId] : [],
        ),
      ),
    [entries],
  );
}

/** The way through the queue: the next one that waits, and back. */
export function useRound(caught: CatchView) {
  const { event } = useInEvent();
  const queue = useQueue(event.eventId, false, 1);
  const navigate = useNavigate();
  const { undo } = useJustDecided();
  const decidedHere = useDecidedHere();
  const waiting = (queue.data?.items ?? []).filter(
    (one) => one.catchId === caught.catchId || !decidedHere.has(one.catchId),
  );
  const others = waiting.filter((one) => one.catchId !== caught.catchId);
  const at = waiting.findIndex((one) => one.catchId === caught.catchId);
  const following = others[at === -1 || at >= others.length ? 0 : at];
  return {
    followingId: following?.catchId ?? null,
    next: () => void navigate(eventPath(event.eventId, 'judge', ...(following ? [following.catchId] : []))),
    undoLast: () => void undo(),
  };
}

/**
 * Sends a decision, once, and goes on to the next catch.
 * @param seenVerdictId the verdict that the judge has seen; the server refuses when there is a newer one
 */
export function useDecide(caught: CatchView, sheet: LengthSheet, seenVerdictId: VerdictId | null) {
  const client = useQueryClient();
  const { setJustDecided } = useJustDecided();
  const { next } = useRound(caught);
  const [isBusy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const isSending = useRef(false);
  const decide = async (decision: DecisionInput): Promise<void> => {
    if (isSending.current) return;
    isSending.current = true;
    setBusy(true);
    setError(null);
    const verdictId = uuidv7();
    const { catchId, eventId } = caught;
    try {
      await outbox.submit('catch.judge', eventId, {
        catchId,
        verdictId,
        replaces: seenVerdictId,
        decision,
      });
      setJustDecided({
        catchId,
        eventId,
        verdictId,
        entrant: caught.entrant.name,
        decision,
        former: standingDecision(caught),
        step: sheet.measure.step,
      });
      next();
      await client.invalidateQueries({ queryKey: ['event', eventId] });
    } catch (problem) {
      setError(problem);
      await client.invalidateQueries({ queryKey: ['event', eventId, 'catch', catchId] });
    } finally {
      isSending.current = false;
      setBusy(false);
    }
  };
  return { decide, isBusy, error };
}
