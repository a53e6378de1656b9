import { useQueryClient } from '@tanstack/react-query';
import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import type { DecisionInput } from '@lauta/contract';
import type { LengthStepId } from '@lauta/core/units';
import { outbox } from '../../outbox/outbox.ts';
import { Signal } from '../../ui/Signal.tsx';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { decisionWords } from '@lauta/words/catch';
import type { CatchId, EventId, VerdictId } from '@lauta/core/ids';

interface Decided {
  catchId: CatchId;
  eventId: EventId;
  verdictId: VerdictId;
  entrant: string;
  decision: DecisionInput;
  /** What stood before it; undoing brings it back. */
  former: DecisionInput | null;
  step: LengthStepId;
}

interface Value {
  last: Decided | null;
  error: unknown;
  setJustDecided: (decided: Decided | null) => void;
  undo: () => Promise<void>;
}

const Context = createContext<Value | null>(null);

export function useJustDecided(): Value {
  const value = useContext(Context);
  if (!value) throw new Error('useJustDecided: expected a JustDecidedProvider around it');
  return value;
}

/** Remembers the last decision over the change to the next catch, so that it can be taken back. */
export function JustDecidedProvider({ children }: { children: ReactNode }) {
  const [last, setLast] = useState<Decided | null>(null);
  const [error, setError] = useState<unknown>(null);
  const client = useQueryClient();
  const navigate = useNavigate();
  const value = useMemo(
    (): Value => ({
      last,
      error,
      setJustDecided: (decided) => {
        setError(null);
        setLast(decided);
      },
      undo: async () => {
        if (!last) return;
        const { catchId, eventId, verdictId, former } = last;
        try {
          const decision = former ?? { kind: 'reopened' as const };
          await outbox.submit('catch.judge', eventId, {
            catchId,
            verdictId: uuidv7(),
            replaces: verdictId,
            decision,
          });
          setLast(null);
          setError(null);
          await client.invalidateQueries({ queryKey: ['event', eventId] });
          await navigate(`/events/${eventId}/judge/${catchId}`);
        } catch (problem) {
          setError(problem);
        }
      },
    }),
    [last, error, client, navigate],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function JustDecided() {
  const { last, undo, error } = useJustDecided();
  if (!last) return null;
  const { word, tone } = decisionWords(last.decision, last.step);
  return (
    <div
      role="status"
      className="border-base-300 flex flex-wrap items-center gap-x-4 border-y py-1 lg:col-span-2"
    >
      <span>
        <b>{last.entrant}</b> <Signal tone={tone}>{word}</Signal>
      </span>
      <button type="button" className="btn btn-sm" onClick={() => void undo()}>
        Undo <kbd className="key">Z</kbd>
      </button>
      <ProblemNote error={error} />
    </div>
  );
}
