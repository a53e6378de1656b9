import type { FishScore } from '@lauta/core/scoring';
import { formatSteps, type LengthStepId } from '@lauta/core/units';
import { NOT_COUNTING_WORDS } from '@lauta/words/catch';

/** The length that would be accepted, and what it would score with the infractions picked. */
export function ScorePreview({
  steps,
  step,
  preview,
  onSteps,
}: {
  steps: number;
  step: LengthStepId;
  preview: FishScore;
  onSteps: (steps: number) => void;
}) {
  return (
    <div
      className="border-base-content flex items-center justify-between gap-2 border-y py-2"
      aria-live="polite"
    >
      <div className="flex items-center gap-1">
        <button
          type="button"
          aria-label="One step shorter"
          className="btn btn-square size-9"
          onClick={() => onSteps(Math.max(0, steps - 1))}
        >
          −
        </button>
        <span className="num min-w-14 text-center text-xl">{formatSteps(steps, step)}</span>
        <button
          type="button"
          aria-label="One step longer"
          className="btn btn-square size-9"
          onClick={() => onSteps(steps + 1)}
        >
          +
        </button>
      </div>
      <p className="text-right leading-tight">
        <span className="text-quiet text-sm">would score</span>{' '}
        <b className="num text-2xl">{preview.notCounting ? '0' : formatSteps(preview.scoreSteps, step)}</b>
        {preview.notCounting && (
          <span className="text-error block text-sm">{NOT_COUNTING_WORDS[preview.notCounting]}</span>
        )}
      </p>
    </div>
  );
}
