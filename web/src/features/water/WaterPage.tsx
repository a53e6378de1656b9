import { useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import type { CatchMark } from '@lauta/core/catch';
import { parsePayload } from '@lauta/core/identifier';
import { clockOf, tapped } from '@lauta/core/care';
import type { GateStep } from '@lauta/core/planning';
import { isLengthSheet } from '@lauta/core/rules';
import { formatSteps } from '@lauta/core/units';
import { appNow, useNow } from '../../clock/appClock.ts';
import { custody } from '../../custody/custody.ts';
import { useSigning } from '../../custody/useSigning.ts';
import { FishNumber } from './FishNumber.tsx';
import { TimeSender } from './TimeSender.tsx';
import { useMyPairing } from '../../queries/pairing.ts';
import { useFishNumber } from './useFishNumber.ts';
import { PositionNote } from '../../position/PositionNote.tsx';
import { usePosition, useReceiverChoice } from '../../position/usePosition.ts';
import { outbox, useOutbox } from '../../outbox/outbox.ts';
import { OutboxPanel } from '../../outbox/OutboxPanel.tsx';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { Pager } from '../../ui/Pager.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { useWho } from '../../session/session.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { useBoards, useStoredBoards } from '../../queries/boards.ts';
import { CatchLines } from '../../catch/CatchLines.tsx';
import { useOwnCatches } from '../../queries/catches.ts';
import { MARK_WORDS } from '@lauta/words/catch';
import { useIdentifiers, useRules } from '../../queries/event.ts';
import { useCareChoices } from '../../care/careChoices.ts';
import { ReleaseFilm } from '../../clip/ReleaseFilm.tsx';
import { ClipSender } from '../../clip/ClipSender.tsx';
import { ClaimBench } from './ClaimBench.tsx';
import { FishClock } from '../../fish-clock/FishClock.tsx';
import { RecordedVoice } from './RecordedVoice.tsx';
import { ReadyGate } from './ReadyGate.tsx';
import { TapeBench } from './TapeBench.tsx';
import { useTapeDraft } from './tapeDraft.ts';
import { ReleaseSender } from './ReleaseSender.tsx';
import { freshCatch, handlingOf } from '../../fish-clock/runningCatch.ts';
import { useRunningCatch } from '../../fish-clock/useRunningCatch.ts';
import {
  recallCameraChoices,
  rememberCameraChoices,
  type CameraChoices,
} from '../../camera/cameraChoices.ts';
import { FrameStrip } from '../../camera/FrameStrip.tsx';
import { PortraitStrip } from '../../camera/PortraitStrip.tsx';
import { useFrames, type Frame, type FrameRole } from '../../camera/frames.ts';
import type { TakenFrame } from '../../camera/takeBurst.ts';
import { useFrameAnalyses, type ReadFrame } from '../../camera/useFrameAnalyses.ts';
import { useWakeLock } from '../../camera/useWakeLock.ts';
import { CatchCamera, filmOf } from './CatchCamera.tsx';
import { PhotoSource } from '../../bench/PhotoSource.tsx';
import { SimulatedCamera } from '../../camera/SimulatedCamera.tsx';
import { RoomNote } from './RoomNote.tsx';
import { WaitingFish } from '../../fish-clock/WaitingFish.tsx';
import { dayOfNow } from '../../event/dayOfNow.ts';
import { newDraft, useDraft } from './draft.ts';
import type { Claimed } from './useSending.ts';
import { recallChoices, rememberChoices } from './choices.ts';
import { hasFailed } from '../../ui/hasFailed.ts';

const NO_FRAMES: readonly Frame[] = [];
const NO_IDS: readonly string[] = [];
const NO_BOARDS: readonly string[] = [];
const SHORTEST_SIMULATED_MM = 300;
const SIMULATED_SPREAD_MM = 220;

function WeightCounts() {
  const { event } = useInEvent();
  return (
    <Empty title="Weight counts in this event">
      Fish are kept in the well and weighed; nothing is claimed by photograph.{' '}
      <Link className="linklike" to={eventPath(event.eventId, 'well')}>
        To the well
      </Link>
    </Empty>
  );
}

export function WaterPage() {
  const { event, place } = useInEvent();
  const { eventId } = event;
  const rules = useRules(eventId);
  const stored = useStoredBoards(eventId);
  const boards = useBoards(eventId);
  const identifiers = useIdentifiers(eventId, place.entrantId);
  const who = useWho();
  const now = useNow(60_000);
  const receiver = useReceiverChoice(who.data?.isDemo ?? false);
  const position = usePosition(receiver);
  const { draft, put, change } = useDraft(eventId);
  const today = dayOfNow(event, now.getTime());
  const payload = identifiers.data?.find((one) => one.dayId === today?.dayId)?.payload ?? null;
  const card = useMemo(() => (payload === null ? null : parsePayload(payload)), [payload]);
  const [claimed, setClaimed] = useState<Claimed | null>(null);
  const [chosenSpecies, setChosenSpecies] = useState<string | null>(null);
  const {
    isKnown,
    running,
    change: changeRunning,
    begin: beginFish,
    waiting,
    changeTo,
  } = useRunningCatch(eventId);
  const pairing = useMyPairing(eventId, place.entrantId);
  const ownCatches = useOwnCatches(eventId, 1);
  const ownIds = useMemo(
    () => ownCatches.data?.items.map(({ catchId }) => catchId) ?? NO_IDS,
    [ownCatches.data],
  );
  const fishNumber = useFishNumber(pairing, ownIds);
  const isTimer = pairing?.job === 'timer';
  const care = useCareChoices();
  const { phase, lifts } = clockOf(running.events, 0);
  const isOn = running.events.length > 0;
  const isOver = phase === 'over';
  useWakeLock(isOn && !isOver);
  const current = rules.data?.at(-1)?.sheet ?? null;
  const sheet = current && isLengthSheet(current) ? current : null;
  const choices = useMemo(() => sheet && recallChoices(sheet), [sheet]);
  const board = boards.find(choices?.boardId ?? '');
  const { frames: allFrames, add: addFrame, replace: replaceFrames } = useFrames(running.catchId);
  const frames = useMemo(
    () => allFrames?.filter(({ role = 'board' }) => role === 'board') ?? null,
    [allFrames],
  );
  const clip = allFrames?.findLast(({ role }) => role === 'clip') ?? null;
  const portraits = allFrames?.filter(({ role }) => role === 'person') ?? [];
  /** Undefined until somebody chooses: then the last one goes with the claim. */
  const [portraitSet, setPortrait] = useState<string | null | undefined>(undefined);
  const portrait =
    portraits.find(({ frameId }) => frameId === portraitSet) ??
    (portraitSet === undefined ? portraits.at(-1) : undefined) ??
    null;
  const [cameraSet, setCamera] = useState<CameraChoices['opens'] | undefined>(undefined);
  // A camera that was opened for the last fish opens by itself for this one.
  const camera =
    cameraSet === undefined && isOn && !isOver ? recallCameraChoices().opens : (cameraSet ?? null);
  const tape = useTapeDraft(running.catchId);
  const [thrown, setThrown] = useState<readonly Frame[] | null>(null);
  const [shutterPlace, setShutterPlace] = useState<HTMLElement | null>(null);
  const [isCardSeen, setCardSeen] = useState(false);
  const [madeReady, setMadeReady] = useState<ReadonlySet<GateStep>>(new Set());
  const [isBursting, setBursting] = useState(false);
  /** Shot again since so many lifts; until the next one is over the bench stays away. */
  const [reshotAfter, setReshotAfter] = useState<number | null>(null);
  const isReshooting = reshotAfter !== null && lifts.length <= reshotAfter;
  const proposal = useFrameAnalyses(frames ?? NO_FRAMES, {
    board,
    others: boards.all,
    approved: sheet?.boards ?? NO_BOARDS,
    expected: card,
  });
  const sign = useSigning({
    eventId,
    entrantId: place.entrantId,
    catchId: running.catchId,
    identifierCode: card?.code ?? null,
  });
  const take = useCallback(
    ({ jpeg, takenAtMs, monotonicMs }: TakenFrame, role: FrameRole) => {
      const frameId = uuidv7();
      // Signed before it is stored: a frame that is there has its signature.
      void sign({ photo: jpeg, kind: 'frame', atMs: takenAtMs, monotonicMs, frameId }).then(() =>
        addFrame(jpeg, new Date(takenAtMs), role, frameId),
      );
    },
    [addFrame, sign],
  );
  const burst = useCallback((isTaking: boolean) => {
    setBursting(isTaking);
    if (!isTaking) void custody.tell();
  }, []);
  // Paired phones give a fish its id by its number, as long as nothing is known of it.
  const isBlank = !isOn && draft === null && tape.draft === null && allFrames?.length === 0;
  const numberedId = fishNumber.catchId;
  const latestBeginFish = useLatest(beginFish);
  useEffect(() => {
    if (numberedId && isKnown && isBlank && running.catchId !== numberedId)
      latestBeginFish.current(freshCatch(numberedId));
  }, [numberedId, isKnown, isBlank, running.catchId, latestBeginFish]);
  const isInWater = phase !== 'air';
  const propose = ({ frame, analysis }: ReadFrame): void => {
    if (!choices) return;
    setClaimed(null);
    setReshotAfter(null);
    put({
      ...newDraft(running.catchId, frame.photo, new Date(frame.takenAt), {
        ...choices,
        speciesId: draft?.speciesId ?? chosenSpecies ?? choices.speciesId,
      }),
      frameId: frame.frameId,
      isFromOutside: false,
      analysis,
      marks: analysis?.marks ?? null,
      ...(analysis?.found ? { boardId: analysis.found.boardId } : {}),
    });
  };
  // The best of the burst goes to the bench by itself, once the fish is back in the water.
  // The next fish takes this one's place a moment after the claim: until then its frames are no new proposal.
  const isJustClaimed = claimed?.catchId === running.catchId;
  const isReady =
    isInWater && !isReshooting && draft === null && choices !== null && !running.isClaimed && !isJustClaimed;
  const best = isReady && (!isBursting || proposal.isFaultless) ? proposal.best : null;
  const { entries } = useOutbox();
  // A page that was killed between the outbox and the draft comes back with both: the outbox has it.
  const isKeptAlready = draft
    ? outbox.receiptOf(draft.commandId) !== undefined ||
      entries.some(({ command }) => command.commandId === draft.commandId)
    : false;
  useEffect(() => {
    if (isKeptAlready) put(null);
  }, [isKeptAlready, put]);
  const latestPropose = useLatest(propose);
  useEffect(() => {
    if (best) latestPropose.current(best);
  }, [best, latestPropose]);

  if (hasFailed(rules)) return <Failed error={rules.error} retry={() => void rules.refetch()} />;
  if (hasFailed(stored)) return <Failed error={stored.error} retry={() => void stored.refetch()} />;
  if (rules.isPending || stored.isPending || draft === undefined || !isKnown)
    return <Loading what="Loading the board" />;
  if (!place.entrantId) {
    return (
      <Empty title="Only entrants claim catches">Sign in as an angler of this event to claim a catch.</Empty>
    );
  }
  if (current && !sheet) return <WeightCounts />;
  if (!sheet || !choices) {
    return (
      <Empty title="No rule sheet yet">The director publishes it; until then a fish can’t be claimed.</Empty>
    );
  }
  // The bench compares the card in the picture with this one: it waits for it.
  if (identifiers.isPending) return <Loading what="Fetching the card of the day" />;
  const begin = (photo: Blob): void => {
    setClaimed(null);
    setReshotAfter(null);
    const chosen = appNow();
    put(newDraft(running.catchId, photo, chosen, choices));
    void sign({
      photo,
      kind: 'file',
      atMs: chosen.getTime(),
      monotonicMs: performance.now(),
      frameId: null,
    }).then(() => custody.tell());
  };
  const startNext = (): void => {
    if (pairing) fishNumber.goOn();
    beginFish(freshCatch());
  };
  const claimedNow = (done: Claimed): void => {
    put(null);
    setClaimed(done);
    // A fish that is still in the net keeps its clock.
    if (isOn && !isOver) changeRunning((now) => ({ ...now, isClaimed: true }));
    else startNext();
  };
  const hookAnother = (): void => {
    const other = freshCatch();
    const hooked = tapped(other.events, 'hooked', appNow().getTime());
    if (hooked.ok) changeTo({ ...other, events: hooked.events });
  };
  const openCamera = (opens: 'device' | 'simulated'): void => {
    rememberCameraChoices({ opens });
    setCamera(opens);
  };
  const speciesId = draft?.speciesId ?? chosenSpecies ?? choices.speciesId;
  const clock = (compact: boolean, below: ReactNode = null, underFace: ReactNode = null) => (
    <FishClock
      running={running}
      change={changeRunning}
      begin={beginFish}
      sheet={sheet}
      speciesId={speciesId}
      onSpecies={(chosen) => {
        rememberChoices({ speciesId: chosen });
        setChosenSpecies(chosen);
        change({ speciesId: chosen });
      }}
      zone={event.zone}
      underFace={underFace}
      compact={compact}
      // Where the bench asks for a claim, that is the one main action.
      isSecond={draft !== null || tape.draft !== null}
      {...(camera ? { setShutterPlace } : {})}
      {...(compact && draft ? {} : { onAnother: hookAnother })}
    >
      {below}
    </FishClock>
  );
  // The same element in every layout of the page: a film goes on while the page around it changes.
  const film = isOn && !isTimer && (
    <ReleaseFilm
      key="film"
      wish={() => (camera === 'simulated' && board ? filmOf(running.catchId, board, speciesId, card) : null)}
      canBegin={phase === 'net' && !isBursting}
      clip={clip?.photo ?? null}
      onClip={(filmed) => void addFrame(filmed, appNow(), 'clip')}
    />
  );
  const leftAs = handlingOf(running, care, sheet.airSeconds ?? null);
  if (tape.draft) {
    return (
      <div className="grid gap-4">
        {isOn && !isOver && clock(true)}
        <PositionNote choice={receiver} state={position} />
        <TapeBench
          catchId={running.catchId}
          draft={tape.draft}
          put={tape.put}
          sheet={sheet}
          speciesId={speciesId}
          entrantId={place.entrantId}
          code={card?.code ?? null}
          handling={leftAs}
          onClaimed={claimedNow}
        />
        {film}
      </div>
    );
  }
  const isFighting = phase === 'fight';
  const throwAway = (): void => {
    put(null);
    setThrown(allFrames);
    void replaceFrames([]);
  };
  const strip = frames && frames.length > 0 && (
    <FrameStrip proposal={proposal} chosenId={draft?.frameId ?? null} choose={propose} clear={throwAway} />
  );
  const portraitStrip = portraits.length > 0 && (
    <PortraitStrip frames={portraits} chosenId={portrait?.frameId ?? null} choose={setPortrait} />
  );
  const live = !isTimer && camera && board && !isFighting && !isOver && (
    <CatchCamera
      key={`${running.catchId} ${board.id} ${camera}`}
      catchId={running.catchId}
      isSimulated={camera === 'simulated'}
      board={board}
      otherBoards={boards.all}
      look={speciesId}
      card={card}
      zone={event.zone}
      phase={phase}
      shutterPlace={shutterPlace}
      onFrame={take}
      onBurst={burst}
      onFishSeen={(atMs) => {
        changeRunning((now) => {
          const lifted = tapped(now.events, 'lifted', atMs);
          return lifted.ok ? { ...now, events: lifted.events } : now;
        });
      }}
      onReady={({ isCardSeen }) => setCardSeen(isCardSeen)}
      onClose={() => {
        rememberCameraChoices({ opens: null });
        setCamera(null);
      }}
    />
  );
  if (draft && !isKeptAlready && !isReshooting && isInWater) {
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
        awayWords={draft.frameId === null ? 'Discard' : isOn && !isOver ? 'Shoot again' : 'Discard all'}
        putAway={() => {
          put(null);
          if (draft.frameId === null) return;
          if (isOn && !isOver) setReshotAfter(lifts.length);
          else throwAway();
        }}
        handling={leftAs}
        portrait={portrait}
        onClaimed={claimedNow}
      />
    );
    // The bench has the screen to itself once the fish is gone.
    return (
      <div className="grid gap-4">
        {isOn && !isOver && clock(true)}
        <PositionNote choice={receiver} state={position} />
        {strip}
        {portraitStrip}
        {film}
        {bench}
      </div>
    );
  }
  // What stands in for a real device: never before what a person came for.
  const standIns = who.data?.isDemo && board && !isTimer && (
    <>
      <button type="button" className="btn h-16 text-base" onClick={() => openCamera('simulated')}>
        Simulated live view
      </button>
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
    </>
  );
  const photographs = isTimer
    ? null
    : live || (
        <PhotoSource
          onPhoto={begin}
          isDocked={false}
          onTape={tape.begin}
          {...(board ? { onCamera: () => openCamera('device') } : {})}
        >
          {isOn && standIns}
        </PhotoSource>
      );
  const underFace = isInWater && !running.isClaimed && (
    <>
      {strip}
      {portraitStrip}
      {phase === 'net' && !running.isClaimed && care.hints.advice && (
        <ReadyGate
          done={madeReady}
          seen={
            new Set<GateStep>([
              ...(live ? (['camera-open'] as const) : []),
              ...(live && isCardSeen ? (['card-down'] as const) : []),
            ])
          }
          toggle={(step) => {
            const next = new Set(madeReady);
            if (!next.delete(step)) next.add(step);
            setMadeReady(next);
          }}
        />
      )}
    </>
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
      {pairing && (
        <FishNumber
          number={fishNumber.number}
          job={pairing.job}
          canGoBack={isBlank && fishNumber.canGoBack}
          canGoOn={isBlank}
          set={fishNumber.set}
        />
      )}
      {claimed && <ClaimedNote claimed={claimed} eventId={eventId} step={sheet.measure.step} />}
      <OutboxPanel accountId={who.data?.account?.accountId ?? null} except={claimed?.commandId ?? null} />
      <RoomNote catchId={running.catchId} />
      <PositionNote choice={receiver} state={position} />
      {thrown && frames?.length === 0 && (
        <p role="status">
          {thrown.length} frames were thrown away.{' '}
          <button
            type="button"
            className="linklike min-h-16 lg:min-h-11"
            onClick={() => {
              void replaceFrames(thrown);
              setThrown(null);
            }}
          >
            Undo
          </button>
        </p>
      )}
      {waiting.length > 0 && phase !== 'air' && <WaitingFish waiting={waiting} takeUp={changeTo} />}
      {(phase === 'net' || isOver) &&
        lifts.length > 0 &&
        allFrames?.length === 0 &&
        !running.isClaimed &&
        !isTimer && (
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
      {isOn ? (
        clock(
          live !== false && live !== null,
          isFighting || running.isClaimed ? null : photographs,
          underFace,
        )
      ) : (
        <>
          {underFace}
          {photographs}
          {/* As tall before the catches are there as with them: the docked tap must not move from under a thumb. */}
          <div className="min-h-[60dvh] lg:order-last lg:min-h-0">
            <OwnCatches />
          </div>
          {clock(false)}
        </>
      )}
      {who.data?.isDemo && (
        <section aria-label="Stand-ins of the demo" className={isOn ? 'hidden' : 'grid gap-2 lg:order-last'}>
          <p className="text-quiet">Stand-ins of the demo, for devices that are not here:</p>
          <div className="grid grid-cols-2 gap-2 lg:grid-cols-3">
            {!isOn && !live && standIns}
            <RecordedVoice />
          </div>
        </section>
      )}
      {film}
      {isTimer && isOver && leftAs && place.entrantId && (
        <TimeSender
          catchId={running.catchId}
          entrantId={place.entrantId}
          number={fishNumber.number}
          handling={leftAs}
          onKept={startNext}
        />
      )}
      {running.isClaimed && isOver && leftAs && (
        <ReleaseSender catchId={running.catchId} handling={leftAs} onSent={startNext} />
      )}
    </div>
  );
}

/** Always the newest, for effects that must not run again for it. */
function useLatest<T>(value: T): { readonly current: T } {
  const held = useRef(value);
  useEffect(() => {
    held.current = value;
  });
  return held;
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
  return (
    <section role="status" className="border-success border-l-4 pl-4">
      <Signal tone={waiting?.refused ? 'fault' : isWithdrawn || waiting ? 'look' : 'clear'}>
        {waiting?.refused
          ? 'not taken'
          : isWithdrawn
            ? 'withdrawn'
            : waiting
              ? unstored.includes(commandId)
                ? 'this browser stores nothing more'
                : 'kept on this device'
              : 'claimed'}
      </Signal>
      <p className="text-lg">
        <b className="num text-2xl">{formatSteps(claimedSteps, step)}</b>{' '}
        {isWithdrawn
          ? 'is taken back.'
          : waiting
            ? waiting.refused
              ? 'is safe here. What the server says of it stands below.'
              : unstored.includes(commandId)
                ? 'is held by this page alone: keep it open until it is sent.'
                : 'is safe here and on its way to the judges.'
            : receipt
              ? `is with the judges, entry ${receipt.seq} of the ledger.`
              : 'was claimed already, perhaps in another tab.'}
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

function OwnCatches() {
  const { event } = useInEvent();
  const [page, setPage] = useState(1);
  const rules = useRules(event.eventId);
  const catches = useOwnCatches(event.eventId, page);
  const current = rules.data?.at(-1)?.sheet;
  const sheet = current && isLengthSheet(current) ? current : null;
  return (
    <section aria-labelledby="own-catches">
      <div className="mb-2 flex items-baseline justify-between">
        <h2 id="own-catches">Your catches</h2>
        <a
          className="linklike inline-flex min-h-16 min-w-16 items-center justify-end lg:min-h-11"
          href={`/api/events/${event.eventId}/own-catches.csv`}
          download
        >
          CSV
        </a>
      </div>
      {hasFailed(catches) && <Failed error={catches.error} retry={() => void catches.refetch()} />}
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
