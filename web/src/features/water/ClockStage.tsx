import { useState, type ReactNode } from 'react';
import { tapped } from '@lauta/core/care';
import type { GateStep } from '@lauta/core/planning';
import { PhotoSource } from '../../bench/PhotoSource.tsx';
import { WaitingFish } from '../../fish-clock/WaitingFish.tsx';
import { OutboxPanel } from '../../outbox/OutboxPanel.tsx';
import { useWho } from '../../session/who.ts';
import { CatchCamera } from './CatchCamera.tsx';
import { ClaimedNote } from './ClaimedNote.tsx';
import { DemoCameras, StandIns } from './StandIns.tsx';
import { FishNumber } from './FishNumber.tsx';
import { LiftNotes } from './LiftNotes.tsx';
import { OwnCatches } from './OwnCatches.tsx';
import { ReadyGate } from './ReadyGate.tsx';
import { ReleaseSender } from './ReleaseSender.tsx';
import { RoomNote } from './RoomNote.tsx';
import { TimeSender } from './TimeSender.tsx';
import type { WaterSession } from './useWaterSession.ts';

/** The fish’s clock, small or whole, with what stands beneath it and beneath its face. */
export type ClockIn = (compact: boolean, below?: ReactNode, underFace?: ReactNode) => ReactNode;

/** Nothing on, or a fish on its way to the board and back: its clock, the camera, and below them one's own catches. */
export function ClockStage({
  session,
  clock,
  strips,
  positionNote,
  shutterPlace,
}: {
  session: WaterSession;
  clock: ClockIn;
  strips: ReactNode;
  positionNote: ReactNode;
  shutterPlace: HTMLElement | null;
}) {
  const who = useWho();
  const isDemo = who.data?.isDemo ?? false;
  const [isCardSeen, setCardSeen] = useState(false);
  const { board, camera, claimed, event, fish, isOn, isOver, isTimer, phase, running } = session;
  const isLive = !isTimer && camera.opened !== null && board !== null && phase !== 'fight' && !isOver;
  const cameras = isDemo && board && !isTimer && <DemoCameras session={session} board={board} />;
  const photographs = isTimer ? null : isLive ? (
    <LiveCamera
      // It goes on while the clock around it changes from phase to phase.
      key={`${running.catchId} ${board.id} ${camera.opened ?? ''}`}
      session={session}
      board={board}
      shutterPlace={shutterPlace}
      onCardSeen={setCardSeen}
    />
  ) : (
    <PhotoSource
      onPhoto={session.begin}
      isDocked={false}
      onTape={session.tape.begin}
      {...(board ? { onCamera: () => camera.open('device') } : {})}
    >
      {isOn && cameras}
    </PhotoSource>
  );
  const underFace = phase !== 'air' && !running.isClaimed && (
    <>
      {strips}
      {phase === 'net' && session.advises && (
        <Gate ready={session.ready} isLive={isLive} isCardSeen={isCardSeen} />
      )}
    </>
  );
  return (
    <>
      <Heading session={session} />
      {claimed && <ClaimedNote claimed={claimed} eventId={event.eventId} step={session.sheet.measure.step} />}
      <OutboxPanel except={claimed?.commandId ?? null} />
      <RoomNote catchId={running.catchId} />
      {positionNote}
      {fish.waiting.length > 0 && phase !== 'air' && (
        <WaitingFish waiting={fish.waiting} takeUp={fish.changeTo} />
      )}
      <LiftNotes session={session} />
      {isOn ? (
        clock(isLive, phase === 'fight' || running.isClaimed ? null : photographs, underFace)
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
      {isDemo && <StandIns isHidden={isOn}>{!isOn && !isLive && cameras}</StandIns>}
    </>
  );
}

function Heading({ session }: { session: WaterSession }) {
  const { card, fishNumber, isBlank, pairing } = session;
  return (
    <>
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
    </>
  );
}

function LiveCamera({
  session,
  board,
  shutterPlace,
  onCardSeen,
}: {
  session: WaterSession;
  board: NonNullable<WaterSession['board']>;
  shutterPlace: HTMLElement | null;
  onCardSeen: (isSeen: boolean) => void;
}) {
  const { boards, camera, card, event, running, shots } = session;
  return (
    <CatchCamera
      catchId={running.catchId}
      isSimulated={camera.opened === 'simulated'}
      board={board}
      otherBoards={boards.all}
      look={session.speciesId}
      card={card}
      zone={event.zone}
      phase={session.phase}
      shutterPlace={shutterPlace}
      onFrame={shots.take}
      onBurst={shots.burst}
      onFishSeen={(atMs) => {
        session.changeRunning((now) => {
          const lifted = tapped(now.events, 'lifted', atMs);
          return lifted.ok ? { ...now, events: lifted.events } : now;
        });
      }}
      onReady={({ isCardSeen }) => onCardSeen(isCardSeen)}
      onClose={() => camera.open(null)}
    />
  );
}

/** What should be ready before the fish leaves the water; what the camera sees ticks itself. */
function Gate({
  ready,
  isLive,
  isCardSeen,
}: {
  ready: WaterSession['ready'];
  isLive: boolean;
  isCardSeen: boolean;
}) {
  const seen = new Set<GateStep>();
  if (isLive) seen.add('camera-open');
  if (isLive && isCardSeen) seen.add('card-down');
  return <ReadyGate done={ready.done} seen={seen} toggle={ready.toggle} />;
}

/** What is still to be told of a fish that was let go. */
export function Senders({ session }: { session: WaterSession }) {
  const { entrantId, fishNumber, isOver, isTimer, leftAs, running, startNext } = session;
  if (!isOver || !leftAs) return null;
  return (
    <>
      {isTimer && (
        <TimeSender
          catchId={running.catchId}
          entrantId={entrantId}
          number={fishNumber.number}
          handling={leftAs}
          onKept={startNext}
        />
      )}
      {running.isClaimed && <ReleaseSender catchId={running.catchId} handling={leftAs} onSent={startNext} />}
    </>
  );
}
