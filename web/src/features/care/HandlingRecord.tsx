import {
  SIGN_WORDS,
  VITALITY_SIGNS,
  clockOf,
  clockVerdict,
  judgeVitality,
  type Handling,
} from '@lauta/core/care';
import { Signal } from '../../frame/Signal.tsx';
import { HOOK_WORDS, SEEN_WORDS, stopwatch } from './words.ts';

/** How a fish was treated, as its record tells it. Times are the device's. */
export function HandlingRecord({ handling }: { handling: Handling }) {
  const clock = clockOf(handling.events, handling.events.at(-1)?.atMs ?? 0);
  const vitality = judgeVitality(handling.signs);
  const lines: [string, string][] = [];
  if (clock.fightMs !== null) lines.push(['fight', stopwatch(clock.fightMs)]);
  lines.push(['out of the water', clock.lifts.length === 0 ? 'never' : clock.lifts.map(({ fromMs, toMs }) => stopwatch((toMs ?? fromMs) - fromMs)).join(', ')]); // prettier-ignore
  lines.push(['from first tap to last', stopwatch(clock.totalMs)]);
  if (handling.hookPlace)
    lines.push(['hook', HOOK_WORDS[handling.hookPlace] + (handling.bleeds ? ', bleeding' : '')]); // prettier-ignore
  else if (handling.bleeds) lines.push(['wound', 'bleeding']);
  if (handling.waterCelsius !== null) lines.push(['water', `${handling.waterCelsius} °C`]);
  if (handling.airCelsius !== null) lines.push(['air', `${handling.airCelsius} °C`]);
  for (const sign of VITALITY_SIGNS) {
    const seen = handling.signs[sign];
    if (seen) lines.push([SIGN_WORDS[sign], SEEN_WORDS[seen]]);
  }
  const isOver = clock.lifts.some(
    ({ fromMs, toMs }) =>
      clockVerdict(((toMs ?? fromMs) - fromMs) / 1000, handling.airLimitSeconds) === 'over',
  );
  return (
    <section aria-labelledby="handling" className="text-sm">
      <h2 id="handling">From hook-up to release</h2>
      <dl className="ruled border-base-300 border-y">
        {lines.map(([term, value]) => (
          <div key={term} className="flex min-h-8 items-baseline justify-between gap-3 py-1">
            <dt className="text-quiet">{term}</dt>
            <dd className="num">{value}</dd>
          </div>
        ))}
      </dl>
      {clock.lifts.length > 0 && (
        <Signal tone={isOver ? 'look' : 'clear'}>
          {isOver
            ? `a lift was over ${handling.airLimitSeconds} s`
            : `no lift over ${handling.airLimitSeconds} s`}
        </Signal>
      )}
      {vitality.state === 'weak' && <Signal tone="look">it left weak</Signal>}
      {clock.isMended && <Signal tone="look">a time was mended by hand</Signal>}
    </section>
  );
}
