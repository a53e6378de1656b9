import { Signal } from '../ui/Signal.tsx';
import type { ReceiverState, ReceiverTrouble } from './receiver.ts';
import type { ReceiverChoice } from './usePosition.ts';

const TROUBLE_WORDS: Record<ReceiverTrouble | 'none', { what: string; then: string }> = {
  refused: {
    what: 'no position: the browser was told not to give it',
    then: 'Allow it in the browser’s settings for this page. Catches are taken all the same; the judge sees that the place is missing.',
  },
  absent: {
    what: 'no position: this device has no receiver',
    then: 'Catches are taken all the same; the judge sees that the place is missing.',
  },
  searching: { what: 'looking for the position', then: 'Under the open sky it takes a minute at most.' },
  none: {
    what: 'no position: you have switched it off',
    then: 'The judge sees that the place is missing. Settings switch it on.',
  },
};

/** Says when there is no position to sign with; nothing where there is one. */
export function PositionNote({ choice, state }: { choice: ReceiverChoice; state: ReceiverState | null }) {
  const trouble = choice === 'none' ? 'none' : state?.kind;
  if (!trouble || trouble === 'fix') return null;
  const { what, then } = TROUBLE_WORDS[trouble];
  return (
    <p role="status">
      <Signal tone="look">{what}</Signal> {then}
    </p>
  );
}
