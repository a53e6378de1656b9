import { Signal } from '../../ui/Signal.tsx';
import type { WaterSession } from './useWaterSession.ts';

/** What one should know before the next lift: frames that can be had back, a lift without a photograph, a claim made. */
export function LiftNotes({ session }: { session: WaterSession }) {
  const { frames, isOver, isTimer, lifts, phase, running } = session;
  const isUnphotographed =
    (phase === 'net' || isOver) && lifts > 0 && frames.all?.length === 0 && !running.isClaimed && !isTimer;
  return (
    <>
      {frames.thrown > 0 && (
        <p role="status">
          {frames.thrown} frames were thrown away.{' '}
          <button type="button" className="linklike min-h-16 lg:min-h-11" onClick={frames.haveBack}>
            Undo
          </button>
        </p>
      )}
      {isUnphotographed && (
        <p role="status">
          <Signal tone="look">no photograph of the lift</Signal>{' '}
          {phase === 'net'
            ? 'Lift again once it has rested, or let it go.'
            : 'Choose one that was taken elsewhere, or put it away.'}
        </p>
      )}
      {running.isClaimed && !isOver && (
        <p role="status">This fish is claimed. Its clock runs until you let it go.</p>
      )}
    </>
  );
}
