import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import type { PortraitLook } from '@lauta/vision/portrait';
import { openCaller } from '../workers/calls.ts';
import type { Frame } from './frames.ts';
import type { LiveCalls } from './liveLook.ts';
import { grab } from './grab.ts';

/** Portraits are looked at in this size at most, px. */
const LONG_SIDE_PX = 640;
const PAUSE_MS = 250;

const openWorker = () => new Worker(new URL('./live.worker.ts', import.meta.url), { type: 'module' });

/** Looks at a camera's picture as a portrait, now and then; null while it is off and until the first look. */
export function useLivePortrait(
  video: RefObject<HTMLVideoElement | null>,
  isOn: boolean,
): PortraitLook | null {
  const [look, setLook] = useState<PortraitLook | null>(null);
  useEffect(() => {
    if (!isOn) return;
    const abort = new AbortController();
    const worker = openWorker();
    const eye = openCaller<LiveCalls>(worker);
    void (async () => {
      while (!abort.signal.aborted) {
        const frame = video.current && (await grab(video.current, LONG_SIDE_PX).catch(() => null));
        const seen = frame && (await eye.call('portrait', { frame }, abort.signal).catch(() => null));
        if (seen && !abort.signal.aborted) setLook(seen);
        await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
      }
    })();
    return () => {
      abort.abort();
      worker.terminate();
      setLook(null);
    };
  }, [isOn, video]);
  return look;
}

/** What may be better in each of these pictures, as far as they were looked at. */
export function usePortraitLooks(frames: readonly Frame[]): ReadonlyMap<string, PortraitLook> {
  const [looks, setLooks] = useState<ReadonlyMap<string, PortraitLook>>(new Map());
  const next = frames.find(({ frameId }) => !looks.has(frameId));
  const todo = useMemo(() => (next ? { frameId: next.frameId, photo: next.photo } : null), [next]);
  const isHere = useRef(true);
  useEffect(() => {
    isHere.current = true;
    return () => void (isHere.current = false);
  }, []);
  useEffect(() => {
    if (!todo) return;
    const worker = openWorker();
    const look = async (): Promise<PortraitLook> => {
      const frame = await createImageBitmap(todo.photo, {
        resizeWidth: LONG_SIDE_PX,
        resizeQuality: 'medium',
      });
      return openCaller<LiveCalls>(worker).call('portrait', { frame });
    };
    void look()
      // One that can't be opened is not asked again, and says nothing.
      .catch((): PortraitLook => ({ isHeld: false, findings: [] }))
      .then((seen) => isHere.current && setLooks((former) => new Map(former).set(todo.frameId, seen)));
    return () => worker.terminate();
  }, [todo]);
  return looks;
}
