import { useState, type ReactNode } from 'react';
import { FrameStrip } from '../../camera/FrameStrip.tsx';
import { PortraitStrip } from '../../camera/PortraitStrip.tsx';
import { ReleaseFilm } from '../../clip/ReleaseFilm.tsx';
import { appNow } from '../../clock/appClock.ts';
import { FishClock } from '../../fish-clock/FishClock.tsx';
import { PositionNote } from '../../position/PositionNote.tsx';
import { usePosition, useReceiverChoice } from '../../position/usePosition.ts';
import { useWho } from '../../session/who.ts';
import { filmOf } from './CatchCamera.tsx';
import { ClaimBench } from './ClaimBench.tsx';
import { ClockStage, Senders, type ClockIn } from './ClockStage.tsx';
import { rememberChoices } from './choices.ts';
import { TapeBench } from './TapeBench.tsx';
import { useWaterSession, type OpenWater, type WaterSession } from './useWaterSession.ts';

/** One fish at a time, in one of three layouts. */
export function WaterStages(water: OpenWater) {
  const session = useWaterSession(water);
  const who = useWho();
  const receiver = useReceiverChoice(who.data?.isDemo ?? false);
  const position = usePosition(receiver);
  const [shutterPlace, setShutterPlace] = useState<HTMLElement | null>(null);
  const positionNote = <PositionNote choice={receiver} state={position} />;
  const clock: ClockIn = (compact, below = null, underFace = null) => (
    <SessionClock
      session={session}
      compact={compact}
      underFace={underFace}
      {...(session.camera.opened ? { setShutterPlace } : {})}
    >
      {below}
    </SessionClock>
  );
  const { isOn, isRunning, isTimer, stage } = session;
  return (
    <div className={`grid ${stage === 'clock' ? 'gap-6' : 'gap-4'}`}>
      {stage === 'clock' ? (
        <ClockStage
          session={session}
          clock={clock}
          strips={<Strips session={session} />}
          positionNote={positionNote}
          shutterPlace={shutterPlace}
        />
      ) : (
        <>
          {isRunning && clock(true)}
          {positionNote}
          {stage === 'tape' ? <Tape session={session} /> : <Strips session={session} />}
        </>
      )}
      {/* One element whatever the layout: a film goes on while the page around it changes. */}
      {isOn && !isTimer && <Film session={session} />}
      {stage === 'bench' && <Bench session={session} />}
      {stage === 'clock' && <Senders session={session} />}
    </div>
  );
}

function SessionClock({
  session,
  compact,
  underFace,
  setShutterPlace,
  children,
}: {
  session: WaterSession;
  compact: boolean;
  underFace: ReactNode;
  setShutterPlace?: (place: HTMLElement | null) => void;
  children: ReactNode;
}) {
  const { draft, event, fish, sheet, tape } = session;
  return (
    <FishClock
      running={session.running}
      change={session.changeRunning}
      begin={fish.begin}
      sheet={sheet}
      speciesId={session.speciesId}
      onSpecies={session.chooseSpecies}
      zone={event.zone}
      underFace={underFace}
      compact={compact}
      // Where the bench asks for a claim, that is the one main action.
      isSecond={draft !== null || tape.draft !== null}
      {...(setShutterPlace ? { setShutterPlace } : {})}
      {...(compact && draft ? {} : { onAnother: session.hookAnother })}
    >
      {children}
    </FishClock>
  );
}

function Film({ session }: { session: WaterSession }) {
  const { board, camera, card, frames, running, speciesId } = session;
  return (
    <ReleaseFilm
      wish={() =>
        camera.opened === 'simulated' && board ? filmOf(running.catchId, board, speciesId, card) : null
      }
      canBegin={session.phase === 'net' && !session.shots.isBursting}
      clip={frames.clip?.photo ?? null}
      onClip={(filmed) => void frames.add(filmed, appNow(), 'clip')}
    />
  );
}

function Strips({ session }: { session: WaterSession }) {
  const { draft, frames, propose, proposal, throwAway } = session;
  return (
    <>
      {frames.board && frames.board.length > 0 && (
        <FrameStrip
          proposal={proposal}
          chosenId={draft?.frameId ?? null}
          choose={propose}
          clear={throwAway}
        />
      )}
      {frames.portraits.length > 0 && (
        <PortraitStrip
          frames={frames.portraits}
          chosenId={frames.portrait?.frameId ?? null}
          choose={frames.setPortrait}
        />
      )}
    </>
  );
}

function Tape({ session }: { session: WaterSession }) {
  const { card, entrantId, leftAs, running, sheet, speciesId, tape, claimedNow } = session;
  if (!tape.draft) return null;
  return (
    <TapeBench
      catchId={running.catchId}
      draft={tape.draft}
      put={tape.put}
      sheet={sheet}
      speciesId={speciesId}
      entrantId={entrantId}
      code={card?.code ?? null}
      handling={leftAs}
      onClaimed={claimedNow}
    />
  );
}

function Bench({ session }: { session: WaterSession }) {
  const { card, draft, entrantId, frames, isRunning, kept, leftAs, sheet } = session;
  if (!draft) return null;
  const isFile = draft.frameId === null;
  return (
    <ClaimBench
      draft={draft}
      sheet={sheet}
      entrantId={entrantId}
      card={card}
      change={(part) => {
        kept.change(part);
        rememberChoices(part);
      }}
      awayWords={isFile ? 'Discard' : isRunning ? 'Shoot again' : 'Discard all'}
      putAway={() => {
        if (isFile) kept.put(null);
        else if (isRunning) session.shootAgain();
        else session.throwAway();
      }}
      handling={leftAs}
      portrait={frames.portrait}
      onClaimed={session.claimedNow}
    />
  );
}
