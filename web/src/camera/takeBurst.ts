import type { PhotoNotes } from '@lauta/vision/exif-writer';
import { openCaller } from '../workers/calls.ts';
import type { DevelopCalls } from './develop.worker.ts';

export const BURST_FRAMES = 12;
/** With a person, then water: the fish is out for no more. */
export const PORTRAIT_FRAMES = 2;
/** No two frames of a burst nearer to each other than this, ms. */
const BETWEEN_MS = 70;
/** A camera that shows nothing new for so long has stalled: the burst ends with what it has. */
const STALLED_MS = 1500;

export interface TakenFrame {
  jpeg: Blob;
  takenAtMs: number;
  /** By the clock that nobody can set, ms since the page began. */
  monotonicMs: number;
}

/**
 * Takes a burst at the stream's full size: first all frames, one after the other, then their development; told of
 * each as it is ready. What could not be taken or developed is left out.
 */
export async function takeBurst(
  video: HTMLVideoElement,
  notesAt: (takenAtMs: number) => PhotoNotes,
  now: () => number,
  onTaken: (count: number) => void,
  onFrame: (frame: TakenFrame) => void,
  count = BURST_FRAMES,
): Promise<void> {
  const taken: { frame: ImageBitmap; takenAtMs: number; monotonicMs: number }[] = [];
  while (taken.length < count && video.videoWidth > 0) {
    const [takenAtMs, monotonicMs] = [now(), performance.now()];
    const frame = await createImageBitmap(video).catch(() => null);
    if (!frame) break;
    taken.push({ frame, takenAtMs, monotonicMs });
    if (taken.length < count && !(await hasNewPicture(video))) break;
  }
  onTaken(taken.length);
  const worker = new Worker(new URL('./develop.worker.ts', import.meta.url), { type: 'module' });
  try {
    const lab = openCaller<DevelopCalls>(worker);
    for (const { frame, takenAtMs, monotonicMs } of taken) {
      const { jpeg } = await lab.call('develop', { frame, notes: notesAt(takenAtMs) });
      frame.close();
      onFrame({ jpeg, takenAtMs, monotonicMs });
    }
  } finally {
    worker.terminate();
  }
}

/** Waits for another picture than the one that was just taken: a busy device may show one for several frames' time. */
async function hasNewPicture(video: HTMLVideoElement): Promise<boolean> {
  const pause = new Promise((resolve) => setTimeout(resolve, BETWEEN_MS));
  // Not every browser tells; then time has to do.
  const picture =
    'requestVideoFrameCallback' in video
      ? new Promise<boolean>((resolve) => {
          const told = video.requestVideoFrameCallback(() => resolve(true));
          setTimeout(() => {
            video.cancelVideoFrameCallback(told);
            resolve(false);
          }, STALLED_MS);
        })
      : true;
  const [isNew] = await Promise.all([picture, pause]);
  return isNew;
}
