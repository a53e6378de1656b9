import { movedStep } from '@lauta/core/planning';
import { useRoutine } from '../../device/preparedness.ts';
import { GATE_WORDS } from '@lauta/words/readiness';

/** Each person's own order before a lift; Lauta walks through it the same way every time. */
export function Routine() {
  const { routine, setRoutine } = useRoutine();
  return (
    <section aria-labelledby="routine">
      <h2 id="routine">Your order before each lift</h2>
      <ol className="ruled border-base-300 border-y">
        {routine.map((step, i) => (
          <li key={step} className="flex min-h-16 items-center gap-3">
            <b className="num w-6">{i + 1}</b>
            <span className="grow">{GATE_WORDS[step]}</span>
            {([-1, 1] as const).map((by) => (
              <button
                key={by}
                type="button"
                className="btn btn-square size-16 text-xl"
                aria-label={`Move “${GATE_WORDS[step]}” ${by < 0 ? 'up' : 'down'}`}
                disabled={by < 0 ? i === 0 : i === routine.length - 1}
                onClick={() => setRoutine(movedStep(routine, step, by))}
              >
                {by < 0 ? '↑' : '↓'}
              </button>
            ))}
          </li>
        ))}
      </ol>
    </section>
  );
}
