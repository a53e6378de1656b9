import { useEffect, useRef } from 'react';
import type { GateStep } from '@lauta/core/planning';
import { useCareChoices } from '../../care/careChoices.ts';
import { giveHint } from '../../care/giveHint.ts';
import { useRoutine } from '../../device/preparedness.ts';
import { GATE_WORDS } from '@lauta/words/readiness';

/** Before the lift: each step by one tap, or seen by itself, in the person's own order. It blocks nothing. */
export function ReadyGate({
  done,
  seen,
  toggle,
}: {
  done: ReadonlySet<GateStep>;
  /** Steps that Lauta sees to be done. */
  seen: ReadonlySet<GateStep>;
  toggle: (step: GateStep) => void;
}) {
  const { routine } = useRoutine();
  const { hints } = useCareChoices();
  const isDone = (step: GateStep): boolean => done.has(step) || seen.has(step);
  const next = routine.find((step) => !isDone(step)) ?? null;
  const told = useRef<GateStep | null>(null);
  useEffect(() => {
    if (told.current === next) return;
    told.current = next;
    giveHint(hints, { beeps: 0, words: next ? GATE_WORDS[next] : 'Ready for the lift' });
  }, [next, hints]);
  return (
    <fieldset>
      <legend className="text-quiet">
        {next ? `Ready? Next: ${GATE_WORDS[next]}` : 'Ready for the lift'}
      </legend>
      <div className="grid grid-cols-4 gap-2">
        {routine.map((step) => (
          <button
            key={step}
            type="button"
            aria-pressed={isDone(step)}
            className={`btn h-16 px-1 text-sm leading-tight ${isDone(step) ? 'btn-primary' : step === next ? 'border-4' : ''}`}
            onClick={() => toggle(step)}
          >
            {GATE_WORDS[step]}
          </button>
        ))}
      </div>
    </fieldset>
  );
}
