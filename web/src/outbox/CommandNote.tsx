import { ProblemNote } from '../ui/ProblemNote.tsx';
import { Signal } from '../ui/Signal.tsx';
import type { useCommand } from './useCommand.ts';

/** How a write of the page stands: refused and why, or kept here until the server answers. */
export function CommandNote({ command: { error, isWaiting } }: { command: ReturnType<typeof useCommand> }) {
  return (
    <>
      {isWaiting && (
        <p role="status">
          <Signal tone="look">kept on this device</Signal> The server does not answer: it is sent by itself as
          soon as it does.
        </p>
      )}
      <ProblemNote error={error} />
    </>
  );
}
