import { useId } from 'react';
import type { Handling } from '@lauta/core/care';
import type { StepId } from '@lauta/core/units';
import { Signal } from '../ui/Signal.tsx';
import { handlingWords } from '@lauta/words/handling';

/** How a fish was treated, as its record tells it. Times are the device's. */
export function HandlingRecord({
  handling,
  zone,
  step,
}: {
  handling: Handling;
  zone: string;
  /** What the event scores in. */
  step: StepId;
}) {
  const id = useId();
  const { lines, signals } = handlingWords(handling, zone, step);
  return (
    <section aria-labelledby={id} className="text-sm">
      <h2 id={id}>From hook-up to release</h2>
      <dl className="ruled border-base-300 border-y">
        {lines.map(({ term, value }) => (
          <div key={term} className="flex min-h-8 items-baseline justify-between gap-3 py-1">
            <dt className="text-quiet">{term}</dt>
            <dd className="num">{value}</dd>
          </div>
        ))}
      </dl>
      {signals.map(({ tone, words }) => (
        <Signal key={words} tone={tone}>
          {words}
        </Signal>
      ))}
    </section>
  );
}
