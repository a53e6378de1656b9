import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';
import { useCareChoices } from '../care/careChoices.ts';
import { giveHint } from '../care/giveHint.ts';
import { appNow } from '../clock/appClock.ts';
import { lastFix } from '../position/usePosition.ts';
import { useLatest } from '../ui/useLatest.ts';
import type { ShutterMode } from './cameraChoices.ts';
import type { FrameRole } from './frames.ts';
import type { LiveSource } from './liveSource.ts';
import { shotNotes } from './shotNotes.ts';
import { BURST_FRAMES, PORTRAIT_FRAMES, takeBurst, type TakenFrame } from './takeBurst.ts';

const now = (): number => appNow().getTime();
/** Alone nobody reaches the shutter of a portrait. */
const PORTRAIT_DELAY_S = 10;

export interface ShutterOf {
  video: RefObject<HTMLVideoElement | null>;
  source: LiveSource;
  /** IANA zone of the wall time that is written into the photographs. */
  zone: string;
  role: FrameRole;
  mode: ShutterMode;
  isInAir: boolean;
  onFrame: (frame: TakenFrame, role: FrameRole) => void;
  /** A burst is being taken and developed. */
  onBurst: (isTaking: boolean) => void;
}

export type Shutter = ReturnType<typeof useShutter>;

/** Takes a burst: at once, or after so many seconds, counted aloud. */
export function useShutter({ video, source, zone, role, mode, isInAir, onFrame, onBurst }: ShutterOf) {
  const { hints } = useCareChoices();
  const [isShooting, setShooting] = useState(false);
  const isBusy = useRef(false);
  /** How many were taken in this lift; counted anew with the next. */
  const [taken, setTaken] = useState({ isInAir, count: 0 });
  if (taken.isInAir !== isInAir) setTaken({ isInAir, count: 0 });
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
      await takeBurst(element, notesAt, now, done, (frame) => onFrame(frame, role), framesOf(role));
    } finally {
      isBusy.current = false;
      setShooting(false);
      onBurst(false);
    }
  }, [video, zone, source, hints, role, onFrame, onBurst]);
  const delaySeconds = Number(mode) || (role === 'person' && mode === 'self' ? PORTRAIT_DELAY_S : 0);
  const timer = useSelfTimer(shoot);
  return {
    shoot,
    isShooting,
    taken: taken.count,
    delaySeconds,
    /** Seconds until the timer shoots; null while it does not run. */
    waits: timer.waits,
    press: (): void => {
      if (timer.waits !== null) timer.stop();
      else if (delaySeconds === 0) void shoot();
      else timer.start(delaySeconds);
    },
  };
}

/** How many frames a burst has. */
export const framesOf = (role: FrameRole): number => (role === 'person' ? PORTRAIT_FRAMES : BURST_FRAMES);

function useSelfTimer(shoot: () => Promise<void>) {
  const { hints } = useCareChoices();
  const [waits, setWaits] = useState<number | null>(null);
  const timer = useRef<ReturnType<typeof setInterval>>(undefined);
  const latestShoot = useLatest(shoot);
  const stop = useCallback(() => {
    clearInterval(timer.current);
    setWaits(null);
  }, []);
  useEffect(() => stop, [stop]);
  const start = (seconds: number): void => {
    let left = seconds;
    setWaits(left);
    timer.current = setInterval(() => {
      left--;
      giveHint(hints, { beeps: left > 0 && left <= 3 ? 1 : 0, words: left > 0 ? String(left) : '' });
      if (left > 0) return setWaits(left);
      stop();
      void latestShoot.current();
    }, 1000);
  };
  return { waits, start, stop };
}

/** Keys of volume rockers and remote shutters, as browsers name them (UI Events KeyboardEvent key values). */
const TRIGGER_KEYS = ['AudioVolumeUp', 'AudioVolumeDown', 'VolumeUp', 'VolumeDown', 'MediaPlayPause', 'Camera', 'PageDown', 'PageUp']; // prettier-ignore

export function useTriggerKeys(press: (() => void) | null): void {
  const latest = useLatest(press);
  useEffect(() => {
    const listen = (event: KeyboardEvent): void => {
      if (event.repeat || !latest.current || !TRIGGER_KEYS.includes(event.key)) return;
      event.preventDefault();
      latest.current();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [latest]);
}
