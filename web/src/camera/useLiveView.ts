import { useEffect, useRef, useState, type RefObject } from 'react';
import {
  OPEN_SHUTTER,
  afterFrame,
  type LiveAdvice,
  type LiveOptions,
  type LiveSight,
} from '@lauta/vision/live';
import type { MeasuringBoard } from '@lauta/vision';
import { useResource, type Resource } from '../ui/useResource.ts';
import { openCaller, type Caller } from '../workers/calls.ts';
import { grab } from './grab.ts';
import type { LiveCalls } from './liveLook.ts';

/** Live frames are looked at in this size at most, px. */
const LONG_SIDE_PX = 960;
/** At least so long from one look to the next, ms: the device has other work too. */
const PAUSE_MS = 10;

export interface LiveView {
  sight: LiveSight | null;
  advice: LiveAdvice;
  /** Size of the frame that was looked at, px. */
  frame: { widthPx: number; heightPx: number };
  takenAtMs: number;
}

function startLive(): Resource<Caller<LiveCalls>> {
  const worker = new Worker(new URL('./live.worker.ts', import.meta.url), { type: 'module' });
  return { value: openCaller<LiveCalls>(worker), close: () => worker.terminate() };
}

/**
 * Looks at the video a few times a second, and tells when all is met for the shutter.
 * @param isArmed opens the shutter anew each time it becomes true
 * @param now application time, ms
 */
export function useLiveView(
  video: RefObject<HTMLVideoElement | null>,
  stream: MediaStream | null,
  board: MeasuringBoard,
  options: LiveOptions,
  isArmed: boolean,
  now: () => number,
  on: { onView: (view: LiveView) => void; onHold: () => void },
): LiveView | null {
  const worker = useResource(startLive);
  const [view, setView] = useState<LiveView | null>(null);
  const tell = useRef(on);
  const shutter = useRef(OPEN_SHUTTER);
  const armed = useRef(isArmed);
  useEffect(() => {
    tell.current = on;
    if (isArmed && !armed.current) shutter.current = OPEN_SHUTTER;
    armed.current = isArmed;
  });
  useEffect(() => {
    if (!worker || !stream) return;
    const abort = new AbortController();
    const look = async (): Promise<void> => {
      const element = video.current;
      const takenAtMs = now();
      const frame = element && (await grab(element, LONG_SIDE_PX));
      if (!frame) return;
      const size = { widthPx: frame.width, heightPx: frame.height };
      const { sight, advice } = await worker.call('look', { frame, board, options }, abort.signal);
      if (abort.signal.aborted) return;
      const seen = { sight, advice, frame: size, takenAtMs };
      setView(seen);
      tell.current.onView(seen);
      if (!armed.current) return;
      const next = afterFrame(shutter.current, advice);
      shutter.current = next.shutter;
      if (next.fires) tell.current.onHold();
    };
    void (async () => {
      while (!abort.signal.aborted) {
        await look().catch(() => undefined);
        await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
      }
    })();
    return () => abort.abort();
  }, [worker, stream, board, options, video, now]);
  return view;
}
