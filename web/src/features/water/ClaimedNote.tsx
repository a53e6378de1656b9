import { useState } from 'react';
import { Link } from 'react-router';
import type { CatchMark } from '@lauta/core/catch';
import { formatSteps, type StepId } from '@lauta/core/units';
import { MARK_WORDS } from '@lauta/words/catch';
import { ClipSender } from '../../clip/ClipSender.tsx';
import { eventPath } from '../../event/inEvent.ts';
import { outbox, useOutbox } from '../../outbox/outbox.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { Signal } from '../../ui/Signal.tsx';
import type { Claimed } from './useSending.ts';
import type { EventId } from '@lauta/core/ids';

/** How a claim stands: on this device, on its way, refused, or with the judges. */
type Standing = 'refused' | 'withdrawn' | 'unstored' | 'kept' | 'claimed' | 'claimed-elsewhere';

const SIGNAL_WORDS: Record<Standing, string> = {
  refused: 'not taken',
  withdrawn: 'withdrawn',
  unstored: 'this browser stores nothing more',
  kept: 'kept on this device',
  claimed: 'claimed',
  'claimed-elsewhere': 'claimed',
};

const STANDING_WORDS: Record<Exclude<Standing, 'claimed'>, string> = {
  refused: 'is safe here. What the server says of it stands below.',
  withdrawn: 'is taken back.',
  unstored: 'is held by this page alone: keep it open until it is sent.',
  kept: 'is safe here and on its way to the judges.',
  'claimed-elsewhere': 'was claimed already, perhaps in another tab.',
};

const TONE = {
  refused: 'fault',
  withdrawn: 'look',
  unstored: 'look',
  kept: 'look',
  claimed: 'clear',
  'claimed-elsewhere': 'clear',
} as const;

/** The claim just made: whether it arrived, what it was marked with, and how to take it back. */
export function ClaimedNote({
  claimed,
  eventId,
  step,
}: {
  claimed: Claimed;
  eventId: EventId;
  step: StepId;
}) {
  const [isWithdrawn, setWithdrawn] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const { catchId, commandId, claimedSteps } = claimed;
  const { entries, progress, unstored } = useOutbox();
  const receipt = outbox.receiptOf(commandId);
  const waiting = entries.find(({ command }) => command.commandId === commandId) ?? null;
  const marks = (receipt?.result['marks'] ?? []) as CatchMark[];
  const turn = async (): Promise<void> => {
    setError(null);
    try {
      // It goes the way of the claim, after it: also while that still waits here.
      await outbox.keep(isWithdrawn ? 'catch.restore' : 'catch.withdraw', eventId, { catchId });
      setWithdrawn(!isWithdrawn);
    } catch (problem) {
      setError(problem);
    }
  };
  const standing: Standing = waiting?.refused
    ? 'refused'
    : isWithdrawn
      ? 'withdrawn'
      : waiting
        ? unstored.includes(commandId)
          ? 'unstored'
          : 'kept'
        : receipt
          ? 'claimed'
          : 'claimed-elsewhere';
  return (
    <section role="status" className="border-success border-l-4 pl-4">
      <Signal tone={TONE[standing]}>{SIGNAL_WORDS[standing]}</Signal>
      <p className="text-lg">
        <b className="num text-2xl">{formatSteps(claimedSteps, step)}</b>{' '}
        {standing === 'claimed'
          ? `is with the judges, entry ${receipt?.seq ?? ''} of the ledger.`
          : STANDING_WORDS[standing]}
      </p>
      {waiting && !waiting.refused && (
        <progress
          className="progress w-full"
          value={progress[commandId] ?? 0}
          max={1}
          aria-label="Share that has arrived"
        />
      )}
      {marks.map((mark) => (
        <p key={mark} className="text-warning font-semibold">
          Marked for the judge: {MARK_WORDS[mark]}.
        </p>
      ))}
      <p className="mt-1 flex gap-6">
        {!waiting && (
          <Link
            className="linklike inline-flex min-h-16 lg:min-h-11 items-center"
            to={eventPath(eventId, 'catches', catchId)}
          >
            See it
          </Link>
        )}
        <button type="button" className="linklike min-h-16 lg:min-h-11" onClick={() => void turn()}>
          {isWithdrawn ? 'Claim it after all' : 'Undo'}
        </button>
      </p>
      <ClipSender catchId={catchId} eventId={eventId} />
      <ProblemNote error={error} />
    </section>
  );
}
