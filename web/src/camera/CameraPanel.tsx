import { createPortal } from 'react-dom';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { LIVE_STEPS } from '@lauta/vision/live';
import type { ClockPhase } from '@lauta/core/care';
import type { PortraitHint, PortraitLook } from '@lauta/vision/portrait';
import type { MeasuringBoard } from '@lauta/vision';
import { appNow } from '../clock/appClock.ts';
import { lastFix } from '../position/usePosition.ts';
import { Signal } from '../ui/Signal.tsx';
import { useCareChoices } from '../care/careChoices.ts';
import { giveHint, tick } from '../care/giveHint.ts';
import {
  SHUTTERS,
  SHUTTER_WORDS,
  recallCameraChoices,
  rememberCameraChoices,
  type ShutterMode,
} from './cameraChoices.ts';
import { useCommands } from './spokenCommands.ts';
import type { FrameRole } from './frames.ts';
import { LiveDrawing } from './LiveDrawing.tsx';
import type { FilmWish } from './filmProtocol.ts';
import type { LiveSource } from './liveSource.ts';
import { shotNotes } from './shotNotes.ts';
import { BURST_FRAMES, PORTRAIT_FRAMES, takeBurst, type TakenFrame } from './takeBurst.ts';
import { useDeviceTilt } from './tilt.ts';
import { PortraitDrawing } from './PortraitDrawing.tsx';
import { useLivePortrait } from './usePortraitHints.ts';
import { useLiveSource } from './useLiveSource.ts';
import { useLiveView, type LiveView } from './useLiveView.ts';
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
/** A hand over the board is no fish: it must be so long, mm, and be there in two frames. */
const LEAST_FISH_MM = 150;

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
  const [size, setSize] = useState({ widthPx: 4, heightPx: 3 });
  const [mode, setMode] = useState(() => recallCameraChoices().shutter);
  const [role, setRole] = useState<FrameRole>('board');
  const [isShooting, setShooting] = useState(false);
  const [waits, setWaits] = useState<number | null>(null);
  const deviceTilt = useDeviceTilt();
  const isBusy = useRef(false);
  const isInAir = phase === 'air';
  /** How many were taken in this lift; counted anew with the next. */
  const [taken, setTaken] = useState({ isInAir, count: 0 });
  if (taken.isInAir !== isInAir) setTaken({ isInAir, count: 0 });
  /** What the simulated hands do in the net's phase. */
  const [isLaid, setLaid] = useState(false);
  useEffect(() => {
    if (video.current) video.current.srcObject = source.stream;
  }, [source]);
  useEffect(() => {
    const held = role === 'person' ? 'person' : isShooting ? 'burst' : 'fish';
    source.stage?.(isInAir || isLaid ? held : 'board');
  }, [source, isInAir, isLaid, isShooting, role]);

  const shoot = useCallback(async () => {
    const element = video.current;
    if (!element || isBusy.current) return;
    isBusy.current = true;
    setShooting(true);
    onBurst(true);
    const notesAt = (takenAtMs: number) => shotNotes(takenAtMs, zone, { ...source, position: lastFix() });
    const done = (count: number): void => {
      setShooting(false);
      setTaken((former) => ({ ...former, count: former.count + count }));
      giveHint(hints, { beeps: 1, words: role === 'person' ? 'Water now' : 'Taken' });
    };
    try {
      const count = role === 'person' ? PORTRAIT_FRAMES : BURST_FRAMES;
      await takeBurst(element, notesAt, now, done, (frame) => onFrame(frame, role), count);
    } finally {
      isBusy.current = false;
      setShooting(false);
      onBurst(false);
    }
  }, [zone, source, hints, role, onFrame, onBurst]);

  // Alone nobody reaches the shutter of a portrait.
  const delaySeconds = Number(mode) || (role === 'person' && mode === 'self' ? 10 : 0);
  const timer = useRef<ReturnType<typeof setInterval>>(undefined);
  const stopTimer = useCallback(() => {
    clearInterval(timer.current);
    setWaits(null);
  }, []);
  useEffect(() => stopTimer, [stopTimer]);
  const press = (): void => {
    if (waits !== null) return stopTimer();
    if (delaySeconds === 0) return void shoot();
    let left = delaySeconds;
    setWaits(left);
    timer.current = setInterval(() => {
      left--;
      giveHint(hints, {
        beeps: left > 0 && left <= 3 ? 1 : 0,
        words: left > 0 ? String(left) : '',
      });
      if (left > 0) return setWaits(left);
      stopTimer();
      void shoot();
    }, 1000);
  };

  const options = useMemo(
    () => ({ focal35Mm: source.focal35Mm, otherBoards, limitTiltDeg }),
    [source, otherBoards, limitTiltDeg],
  );
  const fishSince = useRef<number | null>(null);
  /** After a lift the board must have been seen without a fish before the next one starts by itself. */
  const freeSince = useRef<number | null>(0);
  useEffect(() => {
    if (isInAir) return () => void (freeSince.current = null);
    return undefined;
  }, [isInAir]);
  const onView = ({ sight, advice, takenAtMs }: LiveView): void => {
    if (hints.tone && isInAir && mode === 'self') tick(advice.met / LIVE_STEPS.length);
    onReady({ isCardSeen: sight?.isCardSeen ?? false });
    const isFish = (sight?.fishMm ?? 0) > LEAST_FISH_MM;
    if (!isFish) {
      fishSince.current = null;
      if (phase === 'net') freeSince.current ??= takenAtMs;
    } else if (fishSince.current === null) fishSince.current = takenAtMs;
    else if (phase === 'net' && freeSince.current !== null) onFishSeen(fishSince.current);
  };
  const view = useLiveView(
    video,
    role === 'board' ? source.stream : null,
    board,
    options,
    isInAir && mode === 'self' && role === 'board',
    now,
    {
      onView,
      onHold: () => void shoot(),
    },
  );
  useTriggerKeys(isInAir ? press : null);
  useCommands((command) => {
    if (command === 'photograph' && isInAir && waits === null) press();
  });
  const portrait = useLivePortrait(video, role === 'person' && !isShooting);
  const [hint] = portrait?.findings ?? [];
  const tilt = view?.sight ? Math.round(view.sight.tiltDeg) : deviceTilt;
  const wanting = view?.advice.wanting ?? (view ? null : 'board');
  const shutterButton = (
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
  return (
    <section aria-label="Camera" className="grid gap-2">
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
          <PortraitDrawing size={size} place={hint?.place ?? null} />
        )}
        {waits !== null && (
          <b className="num absolute inset-0 grid place-content-center bg-black/40 text-8xl text-white">
            {waits}
          </b>
        )}
      </div>
      <div className="flex min-h-9 items-baseline justify-between gap-3">
        <p className="text-lg font-semibold" aria-live="polite">
          {isShooting ? (
            `Taking ${role === 'person' ? PORTRAIT_FRAMES : BURST_FRAMES} …`
          ) : isInAir && taken.count > 0 ? (
            <Signal tone="clear">{taken.count} taken: back into the water</Signal>
          ) : role === 'person' ? (
            <PortraitAdvice look={portrait} hint={hint?.hint ?? null} isInAir={isInAir} />
          ) : (
            <Signal tone={wanting === null || (wanting === 'fish' && !isInAir) ? 'clear' : 'look'}>
              {wanting === null ? HOLD_WORDS : LIVE_WORDS[wanting]}
            </Signal>
          )}
        </p>
        {tilt !== null && <span className="num text-quiet whitespace-nowrap">tilt {tilt}°</span>}
      </div>
      {!isInAir && (
        <fieldset>
          <legend className="text-quiet">The shutter</legend>
          <div className="grid grid-cols-5 gap-2">
            {SHUTTERS.map((one) => (
              <ModeButton
                key={one}
                mode={one}
                isOn={mode === one}
                choose={() => {
                  rememberCameraChoices({ shutter: one });
                  setMode(one);
                }}
              />
            ))}
          </div>
        </fieldset>
      )}
      {!isInAir && (
        <div className="grid grid-cols-2 gap-2">
          {(['board', 'person'] as const).map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={role === one}
              className={`btn h-16 ${role === one ? 'btn-primary' : ''}`}
              onClick={() => setRole(one)}
            >
              {one === 'board' ? 'On the board' : 'With you'}
            </button>
          ))}
        </div>
      )}
      {!isInAir && source.lenses.length > 1 && (
        <label className="grid gap-1">
          <span className="text-quiet">Lens; the wide one shows the whole board from nearer</span>
          <select
            className="select h-16 w-full"
            value={source.lensId ?? ''}
            onChange={(change) => chooseLens(change.currentTarget.value)}
          >
            {source.lenses.map(({ id, label }) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </select>
        </label>
      )}
      <div className="grid auto-cols-fr grid-flow-col gap-2">
        {!isInAir && source.stage && (
          <button type="button" className="btn h-16 px-1 text-sm" onClick={() => setLaid(!isLaid)}>
            {isLaid ? 'Simulated hands: take the fish off' : 'Simulated hands: lay the fish on'}
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

function ModeButton({ mode, isOn, choose }: { mode: ShutterMode; isOn: boolean; choose: () => void }) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      className={`btn h-16 px-1 text-sm leading-tight ${isOn ? 'btn-primary' : ''}`}
      onClick={choose}
    >
      {SHUTTER_WORDS[mode]}
    </button>
  );
}

/** Keys of volume rockers and remote shutters, as browsers name them (UI Events KeyboardEvent key values). */
const TRIGGER_KEYS = ['AudioVolumeUp', 'AudioVolumeDown', 'VolumeUp', 'VolumeDown', 'MediaPlayPause', 'Camera', 'PageDown', 'PageUp']; // prettier-ignore

function useTriggerKeys(press: (() => void) | null): void {
  const latest = useRef(press);
  useEffect(() => {
    latest.current = press;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent): void => {
      if (event.repeat || !latest.current || !TRIGGER_KEYS.includes(event.key)) return;
      event.preventDefault();
      latest.current();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
}
