import { useMemo, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { parsePayload } from '@lauta/core/identifier';
import { clockOf } from '@lauta/core/care';
import { formatSteps } from '@lauta/core/units';
import { appNow, useNow } from '../../clock/appClock.ts';
import { sendCommand } from '../../door/door.ts';
import { Empty, Failed, Loading } from '../../frame/states.tsx';
import { Pager } from '../../frame/Pager.tsx';
import { Signal } from '../../frame/Signal.tsx';
import { eventPath, useInEvent } from '../../frame/inEvent.ts';
import { useWho } from '../../people/queries.ts';
import { ProblemNote } from '../../problem/ProblemNote.tsx';
import { useBoards, useStoredBoards } from '../boards/queries.ts';
import { CatchLines } from '../catch/CatchLines.tsx';
import { useOwnCatches } from '../catch/queries.ts';
import { MARK_WORDS } from '../catch/words.ts';
import { useIdentifiers, useRules } from '../event/queries.ts';
import { useCareChoices } from '../care/choices.ts';
import { ClaimBench } from './ClaimBench.tsx';
import { FishClock } from './FishClock.tsx';
import { NO_FISH, handlingOf, useRunningCatch } from './runningCatch.ts';
import { PhotoSource } from '../photo/PhotoSource.tsx';
import { SimulatedCamera } from '../photo/SimulatedCamera.tsx';
import { dayOfNow } from './dayOfNow.ts';
import { newDraft, useDraft } from './draft.ts';
import type { Claimed } from './useClaim.ts';
import { recallChoices, rememberChoices } from './choices.ts';

const SHORTEST_SIMULATED_MM = 300;
const SIMULATED_SPREAD_MM = 220;

export function WaterPage() {
  const { event, place } = useInEvent();
  const { eventId } = event;
  const rules = useRules(eventId);
  const stored = useStoredBoards(eventId);
  const boards = useBoards(eventId);
  const identifiers = useIdentifiers(eventId, place.entrantId);
  const who = useWho();
  const now = useNow(60_000);
  const { draft, put, change } = useDraft(eventId);
  const today = dayOfNow(event, now.getTime());
  const payload = identifiers.data?.find((one) => one.dayId === today?.dayId)?.payload ?? null;
  const card = useMemo(() => (payload === null ? null : parsePayload(payload)), [payload]);
  const [claimed, setClaimed] = useState<Claimed | null>(null);
  const [chosenSpecies, setChosenSpecies] = useState<string | null>(null);
  const { running, put: putRunning } = useRunningCatch(eventId);
  const care = useCareChoices();

  if (rules.isError) return <Failed error={rules.error} retry={() => void rules.refetch()} />;
  if (stored.isError) return <Failed error={stored.error} retry={() => void stored.refetch()} />;
  if (rules.isPending || stored.isPending || draft === undefined)
    return <Loading what="Laying the board ready" />;
  if (!place.entrantId) {
    return (
      <Empty title="The water belongs to the entrants">
        Sign in as an angler of this event to claim a catch.
      </Empty>
    );
  }
  const sheet = rules.data.at(-1)?.sheet;
  if (!sheet) {
    return (
      <Empty title="No rule sheet yet">The director publishes it; until then a fish can’t be claimed.</Empty>
    );
  }
  // The bench compares the card in the picture with this one: it waits for it.
  if (identifiers.isPending) return <Loading what="Fetching the card of the day" />;
  const choices = recallChoices(sheet);
  const board = boards.find(choices.boardId);
  const begin = (photo: Blob): void => {
    setClaimed(null);
    put(newDraft(photo, appNow(), choices));
  };
  const speciesId = draft?.speciesId ?? chosenSpecies ?? choices.speciesId;
  const clock = (compact: boolean, below: ReactNode = null) => (
    <FishClock
      running={running}
      put={putRunning}
      sheet={sheet}
      speciesId={speciesId}
      onSpecies={(chosen) => {
        rememberChoices({ speciesId: chosen });
        setChosenSpecies(chosen);
        change({ speciesId: chosen });
      }}
      compact={compact}
    >
      {below}
    </FishClock>
  );
  const isOn = running.events.length > 0;
  const { phase } = clockOf(running.events, 0);
  const isOver = phase === 'over';
  const isFighting = phase === 'fight';
  if (draft) {
    const bench = (
      <ClaimBench
        draft={draft}
        sheet={sheet}
        entrantId={place.entrantId}
        card={card}
        change={(part) => {
          change(part);
          rememberChoices(part);
        }}
        putAway={() => put(null)}
        handling={handlingOf(running, care)}
        onClaimed={(done) => {
          put(null);
          setClaimed(done);
          // A fish that is still in the net keeps its clock.
          if (isOver) putRunning(NO_FISH);
        }}
      />
    );
    // The bench has the screen to itself once the fish is gone.
    return isOn && !isOver ? (
      <div className="grid gap-4">
        {clock(true)}
        {bench}
      </div>
    ) : (
      bench
    );
  }
  const photographs = (
    <PhotoSource onPhoto={begin} isDocked={!isOn}>
      {who.data?.isDemo && board && (
        <SimulatedCamera
          zone={event.zone}
          onPhoto={begin}
          shoot={(camera, time, seed, signal, onProgress) =>
            camera.call(
              'photograph',
              {
                ...time,
                seed,
                board,
                look: choices.speciesId,
                lengthMm: SHORTEST_SIMULATED_MM + Math.random() * SIMULATED_SPREAD_MM,
                identifier: card,
              },
              signal,
              onProgress,
            )
          }
        />
      )}
    </PhotoSource>
  );
  return (
    <div className="grid gap-6">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h1>Water</h1>
        {card && (
          <p>
            <span className="text-quiet">today’s code</span> <b className="num text-2xl">{card.code}</b>
          </p>
        )}
      </div>
      {claimed && <ClaimedNote claimed={claimed} eventId={eventId} step={sheet.measure.step} />}
      {isOn ? clock(false, isFighting ? null : photographs) : clock(false)}
      {!isOn && (
        <>
          <div className="lg:order-last">
            <OwnCatches />
          </div>
          {photographs}
        </>
      )}
    </div>
  );
}

function ClaimedNote({
  claimed,
  eventId,
  step,
}: {
  claimed: Claimed;
  eventId: string;
  step: Parameters<typeof formatSteps>[1];
}) {
  const [isWithdrawn, setWithdrawn] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const { seq, marks, catchId, claimedSteps } = claimed;
  const turn = async (): Promise<void> => {
    setError(null);
    try {
      await sendCommand(isWithdrawn ? 'catch.restore' : 'catch.withdraw', eventId, { catchId });
      setWithdrawn(!isWithdrawn);
    } catch (problem) {
      setError(problem);
    }
  };
  return (
    <section role="status" className="border-success border-l-4 pl-4">
      <Signal tone={isWithdrawn ? 'look' : 'clear'}>{isWithdrawn ? 'withdrawn' : 'claimed'}</Signal>
      <p className="text-lg">
        <b className="num text-2xl">{formatSteps(claimedSteps, step)}</b>{' '}
        {isWithdrawn
          ? 'is taken back.'
          : seq === null
            ? 'was claimed already, perhaps in another tab.'
            : `is with the judges, entry ${seq} of the ledger.`}
      </p>
      {marks.map((mark) => (
        <p key={mark} className="text-warning font-semibold">
          Marked for the judge: {MARK_WORDS[mark]}.
        </p>
      ))}
      <p className="mt-1 flex gap-6">
        <Link
          className="linklike inline-flex min-h-11 items-center"
          to={eventPath(eventId, 'catches', catchId)}
        >
          See it
        </Link>
        <button type="button" className="linklike min-h-11" onClick={() => void turn()}>
          {isWithdrawn ? 'Claim it after all' : 'Undo'}
        </button>
      </p>
      <ProblemNote error={error} />
    </section>
  );
}

function OwnCatches() {
  const { event } = useInEvent();
  const [page, setPage] = useState(1);
  const rules = useRules(event.eventId);
  const catches = useOwnCatches(event.eventId, page);
  const sheet = rules.data?.at(-1)?.sheet;
  return (
    <section aria-labelledby="own-catches">
      <div className="mb-2 flex items-baseline justify-between">
        <h2 id="own-catches">Your catches</h2>
        <a className="linklike" href={`/api/events/${event.eventId}/own-catches.csv`} download>
          CSV
        </a>
      </div>
      {catches.isError && <Failed error={catches.error} retry={() => void catches.refetch()} />}
      {catches.isPending && <Loading what="Fetching your catches" />}
      {catches.data && sheet && catches.data.items.length === 0 && (
        <Empty title="None yet">Photograph your first fish on the board, nose on the stop.</Empty>
      )}
      {catches.data && sheet && catches.data.items.length > 0 && (
        <>
          <CatchLines
            event={event}
            sheet={sheet}
            items={catches.data.items}
            to={(catchId) => eventPath(event.eventId, 'catches', catchId)}
          />
          <Pager {...catches.data} onPage={setPage} />
        </>
      )}
    </section>
  );
}
