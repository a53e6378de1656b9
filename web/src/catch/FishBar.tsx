import { formatSteps, mmFromSteps, type LengthStepId } from '@lauta/core/units';

/** A fish drawn to scale from the stop at the left; hatched while no judge has decided. */
export function FishBar({
  steps,
  step,
  scaleMm,
  isProvisional = false,
  isStruck = false,
}: {
  steps: number;
  step: LengthStepId;
  scaleMm: number;
  isProvisional?: boolean;
  isStruck?: boolean;
}) {
  const share = Math.min(1, mmFromSteps(steps, step) / scaleMm);
  return (
    <span className="flex h-7 w-full items-stretch" aria-hidden="true">
      <i className="bg-stop w-1 flex-none" />
      <span
        className={`num flex items-center overflow-hidden px-1.5 text-sm ${barClass(isProvisional, isStruck)}`}
        style={{ width: `${share * 100}%` }}
      >
        {formatSteps(steps, step)}
      </span>
    </span>
  );
}

export function barClass(isProvisional: boolean, isStruck = false): string {
  if (isStruck) return 'border-base-300 border border-dashed line-through text-quiet';
  return isProvisional ? 'hatched' : 'bg-fish';
}
