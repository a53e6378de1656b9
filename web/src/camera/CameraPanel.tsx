import { createPortal } from 'react-dom';
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { LIVE_STEPS } from '@lauta/vision/live';
import type { ClockPhase } from '@lauta/core/care';
import type { PortraitHint, PortraitLook } from '@lauta/vision/portrait';
import type { MeasuringBoard } from '@lauta/vision';
import { appNow } from '../clock/appClock.ts';
import { Signal } from '../ui/Signal.tsx';
import { useCareChoices } from '../care/careChoices.ts';
import { tick } from '../care/giveHint.ts';
import { CameraControls } from './CameraControls.tsx';
import { recallCameraChoices, rememberCameraChoices } from './cameraChoices.ts';
import { useCommands } from './spokenCommands.ts';
import type { FrameRole } from './frames.ts';
import { LiveDrawing } from './LiveDrawing.tsx';
import type { FilmWish } from './filmProtocol.ts';
import type { LiveSource } from './liveSource.ts';
import type { TakenFrame } from './takeBurst.ts';
import { useDeviceTilt } from './tilt.ts';
import { PortraitDrawing } from './PortraitDrawing.tsx';
import { useFishWatch } from './useFishWatch.ts';
import { useLivePortrait } from './usePortrait.ts';
import { useLiveSource } from './useLiveSource.ts';
import { useLiveView, type LiveView } from './useLiveView.ts';
import { framesOf, useShutter, useTriggerKeys, type Shutter } from './useShutter.ts';
import { CAMERA_TROUBLE_WORDS, HOLD_WORDS, LIVE_WORDS, PORTRAIT_WORDS } from './words.ts';

interface Props {
  board: MeasuringBoard;
  otherBoards: readonly MeasuringBoard[];
  limitTiltDeg: number;
  /** IANA zone of the wall time that is written into the photographs. */
  zone: string;
  /** What the simulated camera films; null for the device's own camera. */
  film: FilmWish | null;
  phase: ClockPhase;
  /** Where the shutter stands while the fish is out of the water; null before there is a place. */
  shutterPlace: HTMLElement | null;
  onFrame: (frame: TakenFrame, role: FrameRole) => void;
  /** A burst is being taken and developed. */
  onBurst: (isTaking: boolean) => void;
  /** A fish lies on the board in the live view, and since when. */
  onFishSeen: (atMs: number) => void;
  onReady: (ready: { isCardSeen: boolean }) => void;
  onClose: () => void;
}

const now = (): number => appNow().getTime();

/** The live view: where to lay the board, what is still wanting, and the shutter. */
export function CameraPanel(props: Props) {
  const { film, onClose } = props;
  const [lensId, setLensId] = useState(() => recallCameraChoices().lensId);
  const state = useLiveSource(film, film ? null : lensId);
  if (state.kind === 'opening') {
    return (
      <div role="status" className="border-base-300 grid min-h-40 content-center gap-2 border p-4">
        <p>{state.share === null ? 'Opening the camera …' : 'The simulated camera draws its film …'}</p>
        <progress
          className="progress w-full"
          {...(state.share === null ? {} : { value: state.share })}
          max={1}
          aria-label="Opening the camera"
        />
      </div>
    );
  }
  if (state.kind === 'failed') {
    return (
      <div role="alert" className="border-error grid gap-2 border-l-4 pl-3">
        <Signal tone="fault">no live view</Signal>
        <p>{CAMERA_TROUBLE_WORDS[state.trouble]}</p>
        <div className="grid grid-cols-2 gap-2">
          <button type="button" className="btn h-16" onClick={state.retry}>
            Try again
          </button>
          <button type="button" className="btn h-16" onClick={onClose}>
            Without the live view
          </button>
        </div>
      </div>
    );
  }
  return (
    <OpenCamera
      {...props}
      source={state.source}
      chooseLens={(id) => {
        rememberCameraChoices({ lensId: id });
        setLensId(id);
      }}
    />
  );
}

function OpenCamera({
  board,
  otherBoards,
  limitTiltDeg,
  zone,
  phase,
  shutterPlace,
  source,
  chooseLens,
  onFrame,
  onBurst,
  onFishSeen,
  onReady,
  onClose,
}: Props & { source: LiveSource; chooseLens: (lensId: string) => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const { hints } = useCareChoices();
  const [mode, setMode] = useState(() => recallCameraChoices().shutter);
  const [role, setRole] = useState<FrameRole>('board');
  const isInAir = phase === 'air';
  const shutter = useShutter({ video, source, zone, role, mode, isInAir, onFrame, onBurst });
  const { isShooting, press, waits } = shutter;
  const hands = useSimulatedHands(source, isInAir, role, isShooting);
  useEffect(() => {
    if (video.current) video.current.srcObject = source.stream;
  }, [source]);
  const options = useMemo(
    () => ({ focal35Mm: source.focal35Mm, otherBoards, limitTiltDeg }),
    [source, otherBoards, limitTiltDeg],
  );
  const watch = useFishWatch(phase, onFishSeen);
  const view = useLiveView(
    video,
    role === 'board' ? source.stream : null,
    board,
    options,
    isInAir && mode === 'self' && role === 'board',
    now,
    {
      onView: (seen) => {
        if (hints.tone && isInAir && mode === 'self') tick(seen.advice.met / LIVE_STEPS.length);
        onReady({ isCardSeen: seen.sight?.isCardSeen ?? false });
        watch(seen);
      },
      onHold: () => void shutter.shoot(),
    },
  );
  useTriggerKeys(isInAir ? press : null);
  useCommands((command) => {
    if (command === 'photograph' && isInAir && waits === null) press();
  });
  const portrait = useLivePortrait(video, role === 'person' && !isShooting);
  const shutterButton = <ShutterButton shutter={shutter} isInAir={isInAir} />;
  return (
    <section aria-label="Camera" className="grid gap-2">
      <Viewfinder video={video} board={board} role={role} view={view} portrait={portrait} waits={waits} />
      <Advice shutter={shutter} isInAir={isInAir} role={role} view={view} portrait={portrait} />
      {!isInAir && (
        <CameraControls
          source={source}
          mode={mode}
          setMode={setMode}
          role={role}
          setRole={setRole}
          chooseLens={chooseLens}
        />
      )}
      <div className="grid auto-cols-fr grid-flow-col gap-2">
        {!isInAir && source.stage && (
          <button type="button" className="btn h-16 px-1 text-sm" onClick={hands.turn}>
            {hands.isLaid ? 'Simulated hands: take the fish off' : 'Simulated hands: lay the fish on'}
          </button>
        )}
        {!isInAir && (
          <button type="button" className="btn h-16" onClick={onClose}>
            Close the camera
          </button>
        )}
        {!isInAir && shutterButton}
        {isInAir && shutterPlace && createPortal(shutterButton, shutterPlace)}
      </div>
    </section>
  );
}

/** What the simulated hands hold before the simulated camera. */
function useSimulatedHands(source: LiveSource, isInAir: boolean, role: FrameRole, isShooting: boolean) {
  const [isLaid, setLaid] = useState(false);
  useEffect(() => {
    const held = role === 'person' ? 'person' : isShooting ? 'burst' : 'fish';
    source.stage?.(isInAir || isLaid ? held : 'board');
  }, [source, isInAir, isLaid, isShooting, role]);
  return { isLaid, turn: () => setLaid(!isLaid) };
}

function ShutterButton({ shutter, isInAir }: { shutter: Shutter; isInAir: boolean }) {
  const { delaySeconds, isShooting, press, waits } = shutter;
  return (
    <button
      type="button"
      className={`btn h-16 min-w-0 px-1 text-base leading-tight ${isInAir ? 'btn-primary btn-outline' : ''}`}
      disabled={isShooting}
      onClick={press}
    >
      {waits !== null
        ? 'Stop the timer'
        : delaySeconds > 0
          ? `Photograph in ${delaySeconds} s`
          : 'Photograph'}
    </button>
  );
}

function Viewfinder({
  video,
  board,
  role,
  view,
  portrait,
  waits,
}: {
  video: RefObject<HTMLVideoElement | null>;
  board: MeasuringBoard;
  role: FrameRole;
  view: LiveView | null;
  portrait: PortraitLook | null;
  waits: number | null;
}) {
  const [size, setSize] = useState({ widthPx: 4, heightPx: 3 });
  return (
    <div
      className="relative w-full overflow-hidden bg-black"
      style={{ aspectRatio: `${size.widthPx} / ${size.heightPx}`, maxHeight: '46vh' }}
    >
      <video
        ref={video}
        autoPlay
        muted
        playsInline
        className="size-full object-contain"
        onLoadedMetadata={({ currentTarget: { videoWidth, videoHeight } }) =>
          setSize({ widthPx: videoWidth || 4, heightPx: videoHeight || 3 })
        }
      />
      {role === 'board' ? (
        <LiveDrawing board={board} size={size} view={view} />
      ) : (
        <PortraitDrawing size={size} place={portrait?.findings[0]?.place ?? null} />
      )}
      {waits !== null && (
        <b className="num absolute inset-0 grid place-content-center bg-black/40 text-8xl text-white">
          {waits}
        </b>
      )}
    </div>
  );
}

/** The one thing to do next, and how the phone is tilted. */
function Advice({
  shutter,
  isInAir,
  role,
  view,
  portrait,
}: {
  shutter: Shutter;
  isInAir: boolean;
  role: FrameRole;
  view: LiveView | null;
  portrait: PortraitLook | null;
}) {
  const deviceTilt = useDeviceTilt();
  const tilt = view?.sight ? Math.round(view.sight.tiltDeg) : deviceTilt;
  const wanting = view?.advice.wanting ?? (view ? null : 'board');
  return (
    <div className="flex min-h-9 items-baseline justify-between gap-3">
      <p className="text-lg font-semibold" aria-live="polite">
        {shutter.isShooting ? (
          `Taking ${framesOf(role)} …`
        ) : isInAir && shutter.taken > 0 ? (
          <Signal tone="clear">{shutter.taken} taken: back into the water</Signal>
        ) : role === 'person' ? (
          <PortraitAdvice look={portrait} hint={portrait?.findings[0]?.hint ?? null} isInAir={isInAir} />
        ) : (
          <Signal tone={wanting === null || (wanting === 'fish' && !isInAir) ? 'clear' : 'look'}>
            {wanting === null ? HOLD_WORDS : LIVE_WORDS[wanting]}
          </Signal>
        )}
      </p>
      {tilt !== null && <span className="num text-quiet whitespace-nowrap">tilt {tilt}°</span>}
    </div>
  );
}

function PortraitAdvice({
  look,
  hint,
  isInAir,
}: {
  look: PortraitLook | null;
  hint: PortraitHint | null;
  isInAir: boolean;
}) {
  if (!isInAir || !look) return 'Hand beneath the fish, not before its flank; two frames, then water';
  return hint ? (
    <Signal tone="look">{PORTRAIT_WORDS[hint]}</Signal>
  ) : (
    <Signal tone="clear">{HOLD_WORDS}</Signal>
  );
}
