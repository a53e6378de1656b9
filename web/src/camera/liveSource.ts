/** A camera whose picture can be watched: the device's own, or the simulated one. */
export interface LiveSource {
  stream: MediaStream;
  /** What is written into its photographs as the device. */
  device: string;
  /** 35 mm equivalent where it is known. */
  focal35Mm: number | null;
  /** Other lenses of the device to change to. */
  lenses: readonly Lens[];
  lensId: string | null;
  /** Tells a simulated camera what people do before it. */
  stage?: (stage: Stage) => void;
  close: () => void;
}

export interface Lens {
  id: string;
  label: string;
}

/** What lies before a simulated camera. */
export type Stage = 'board' | 'fish' | 'burst' | 'person';

export type CameraTrouble = 'refused' | 'absent' | 'busy' | 'not-secure';

/** Why a camera did not open, from what the browser throws (W3C Media Capture and Streams, getUserMedia). */
export function cameraTrouble(error: unknown): CameraTrouble {
  const name = error instanceof Error ? error.name : '';
  if (name === 'NotAllowedError' || name === 'SecurityError') return 'refused';
  if (name === 'NotFoundError' || name === 'OverconstrainedError' || name === 'TypeError') return 'absent';
  return 'busy';
}

/** Lenses that look backwards, the widest first; labels are all that a browser tells of them. */
export function sortLenses(devices: readonly Pick<MediaDeviceInfo, 'kind' | 'deviceId' | 'label'>[]): Lens[] {
  const rank = (label: string): number =>
    /ultra/i.test(label) ? 1 : /wide/i.test(label) ? 0 : /tele|zoom|macro|depth/i.test(label) ? 3 : 2;
  return devices
    .filter(({ kind, label }) => kind === 'videoinput' && !/front|facing user|user-facing/i.test(label))
    .map(({ deviceId, label }) => ({ id: deviceId, label: label || 'camera' }))
    .sort((a, b) => rank(a.label) - rank(b.label));
}
