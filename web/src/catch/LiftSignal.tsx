import { liftFinding, type Handling } from '@lauta/core/care';
import { Signal } from '../ui/Signal.tsx';

/** The longest lift against what the rule sheet allows; nothing where it sets no limit. */
export function LiftSignal({
  limitSeconds,
  handling,
}: {
  limitSeconds: number | undefined;
  handling: Handling | null;
}) {
  const found = liftFinding(limitSeconds, handling);
  if (!found) return null;
  const { tone, longestSeconds, isOpen, isMended } = found;
  const allowed = `${found.limitSeconds} s allowed`;
  const words =
    handling === null
      ? `no clock was tapped: how long it was out is not known; ${allowed}`
      : longestSeconds === null && !isOpen
        ? `never out of the water; ${allowed}`
        : `longest lift ${longestSeconds === null ? 'not ended' : `${longestSeconds} s`}; ${allowed}`;
  const doubt = isOpen ? ', one was never ended' : isMended ? ', a time was mended by hand' : '';
  return (
    <Signal tone={tone}>
      {words}
      {doubt}
    </Signal>
  );
}
