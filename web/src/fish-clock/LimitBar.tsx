import type { ClockState } from '@lauta/core/care';

const COLOUR: Record<ClockState, string> = { good: 'bg-success', soon: 'bg-warning', over: 'bg-error' };
const MOST_TICKS = 30;

/** A running time on a ruled edge whose end is the limit; beyond it the bar stays full. */
export function LimitBar({
  seconds,
  limitSeconds,
  state,
}: {
  seconds: number;
  limitSeconds: number;
  state: ClockState;
}) {
  const ticks = Math.min(MOST_TICKS, Math.max(1, Math.round(limitSeconds)));
  return (
    <div aria-hidden="true" className="border-base-content relative mt-2 h-7 border-b-2">
      <div
        className={`absolute bottom-0 left-0 h-4 ${COLOUR[state]}`}
        style={{ width: `${100 * Math.min(1, limitSeconds > 0 ? seconds / limitSeconds : 1)}%` }}
      />
      {Array.from({ length: ticks + 1 }, (_, i) => (
        <i
          key={i}
          className={`bg-base-content absolute bottom-0 w-[1.5px] ${i === ticks ? 'h-7 -translate-x-full' : i % 5 === 0 ? 'h-5' : 'h-2.5'}`}
          style={{ left: `${(100 * i) / ticks}%` }}
        />
      ))}
    </div>
  );
}
