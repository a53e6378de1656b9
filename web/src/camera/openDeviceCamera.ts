import { sortLenses, type LiveSource } from './liveSource.ts';
import type { DeviceId } from '@lauta/core/ids';

/** Opens the camera that looks away from the person, by its wide lens where one is known by its name. */
export async function openDeviceCamera(wantedLens: string | null): Promise<LiveSource> {
  const first = await openLens(wantedLens);
  const lenses = sortLenses(await navigator.mediaDevices.enumerateDevices().catch(() => []));
  const wide = lenses.find(({ label }) => /wide/i.test(label) && !/ultra/i.test(label));
  const used = first.getVideoTracks()[0]?.getSettings().deviceId ?? null;
  // Labels are told only once a camera is open.
  const stream = wantedLens === null && wide && wide.id !== used ? await changed(first, wide.id) : first;
  const track = stream.getVideoTracks()[0];
  return {
    stream,
    device: `in-page camera, ${track?.label ?? 'unnamed'}`,
    focal35Mm: null,
    lenses,
    lensId: track?.getSettings().deviceId ?? null,
    close: () => stop(stream),
  };
}

function openLens(deviceId: DeviceId | null): Promise<MediaStream> {
  return navigator.mediaDevices.getUserMedia({
    audio: false,
    video: {
      ...(deviceId === null ? { facingMode: { ideal: 'environment' } } : { deviceId: { exact: deviceId } }),
      width: { ideal: 4032 },
      height: { ideal: 3024 },
    },
  });
}

/** The other lens, or the first one where the other can't be opened. */
async function changed(first: MediaStream, deviceId: DeviceId): Promise<MediaStream> {
  stop(first);
  return openLens(deviceId).catch(() => openLens(null));
}

function stop(stream: MediaStream): void {
  for (const track of stream.getTracks()) track.stop();
}
