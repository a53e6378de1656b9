import { CLIP_LIMITS, MEDIA_TYPES, isClip, type MediaType } from '@lauta/contract';

/** Ten seconds of it stay well under the limit of bytes. */
const BITS_PER_SECOND = 6_000_000;
const PART_MS = 500;
/** A film needs no more than this to be looked at, px. */
const LONG_SIDE_PX = 1280;

/** The first kind that this browser records and the server takes; null where there is none. */
export function clipType(): string | null {
  if (typeof MediaRecorder === 'undefined') return null;
  const wanted = ['video/webm;codecs=vp8', 'video/webm', 'video/mp4'];
  return wanted.find((type) => MediaRecorder.isTypeSupported(type)) ?? null;
}

/** What a file is by its declared type, as far as it is a clip. */
export function mediaTypeOf({ type }: Blob): MediaType | null {
  const bare = type.split(';')[0]?.trim().toLowerCase();
  return MEDIA_TYPES.find((one) => one === bare && isClip(one)) ?? null;
}

/** The parts of a film that fit, in order: one that would be too much ends it. */
export function fittingParts<T extends { size: number }>(
  parts: readonly T[],
  maxBytes = CLIP_LIMITS.maxBytes,
): T[] {
  let bytes = 0;
  const end = parts.findIndex(({ size }) => (bytes += size) > maxBytes);
  return parts.slice(0, end < 0 ? parts.length : end);
}

/**
 * Films what a camera shows, until it is stopped or the limit is reached.
 * @param onSecond told how many seconds are in
 * @throws where the recorder breaks off before its first part
 */
export async function filmClip(
  stream: MediaStream,
  type: string,
  signal: AbortSignal,
  onSecond: (seconds: number) => void,
): Promise<Blob> {
  const track = stream.getVideoTracks()[0]?.clone();
  if (!track) throw new Error('filmClip: stream, expected a video track, got none');
  const { width = 0, height = 0 } = track.getSettings();
  const scale = Math.min(1, LONG_SIDE_PX / Math.max(width, height, 1));
  // A lens that can't film smaller films as it is.
  await track
    .applyConstraints({
      width: { ideal: Math.round(scale * width) },
      height: { ideal: Math.round(scale * height) },
    })
    .catch(() => undefined);
  const recorder = new MediaRecorder(new MediaStream([track]), {
    mimeType: type,
    videoBitsPerSecond: BITS_PER_SECOND,
  });
  const parts: Blob[] = [];
  const stop = (): void => {
    if (recorder.state !== 'inactive') recorder.stop();
  };
  let seconds = 0;
  const timer = setInterval(() => {
    onSecond(++seconds);
    if (seconds >= CLIP_LIMITS.maxSeconds) stop();
  }, 1000);
  signal.addEventListener('abort', stop);
  try {
    await new Promise<void>((resolve) => {
      recorder.ondataavailable = ({ data }) => {
        parts.push(data);
        if (fittingParts(parts).length < parts.length) stop();
      };
      recorder.onstop = () => resolve();
      recorder.onerror = stop;
      recorder.start(PART_MS);
      if (signal.aborted) stop();
    });
  } finally {
    clearInterval(timer);
    signal.removeEventListener('abort', stop);
    track.stop();
  }
  const clip = new Blob(fittingParts(parts), { type });
  if (clip.size === 0) throw new Error('filmClip: expected a part of film, got none');
  return clip;
}

export type ClipRefusal = 'type' | 'bytes' | 'seconds';

/** Why a file can't be sent as a clip; null where it can. Its length is asked of the browser, where that can tell. */
export async function clipRefusal(file: Blob): Promise<ClipRefusal | null> {
  if (!mediaTypeOf(file)) return 'type';
  if (file.size > CLIP_LIMITS.maxBytes) return 'bytes';
  const seconds = await secondsOf(file);
  // A second's grace: cameras stop when they stop.
  return seconds !== null && seconds > CLIP_LIMITS.maxSeconds + 1 ? 'seconds' : null;
}

function secondsOf(file: Blob): Promise<number | null> {
  const src = URL.createObjectURL(file);
  const video = document.createElement('video');
  return new Promise<number | null>((resolve) => {
    // A film without its length in the head gives infinity: nobody can tell.
    video.onloadedmetadata = () => resolve(Number.isFinite(video.duration) ? video.duration : null);
    video.onerror = () => resolve(null);
    video.preload = 'metadata';
    video.src = src;
  }).finally(() => URL.revokeObjectURL(src));
}
