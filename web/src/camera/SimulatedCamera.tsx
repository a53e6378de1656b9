import { useEffect, useRef, useState } from 'react';
import { appNow } from '../clock/appClock.ts';
import { openCaller, type Caller, type OnProgress } from '../workers/calls.ts';
import type { CameraCalls, ShotTime } from './cameraCalls.ts';

export type Shoot = (
  camera: Caller<CameraCalls>,
  time: ShotTime,
  seed: number,
  signal: AbortSignal,
  onProgress: OnProgress,
) => Promise<{ jpeg: Blob }>;

/** The demo's camera: what it photographs is not there. */
export function SimulatedCamera({
  shoot,
  zone,
  onPhoto,
}: {
  shoot: Shoot;
  /** IANA zone of the phone's wall time. */
  zone: string;
  onPhoto: (photo: Blob) => void;
}) {
  const [share, setShare] = useState<number | null>(null);
  const [hasFailed, setFailed] = useState(false);
  const abort = useRef<AbortController | null>(null);
  useEffect(() => () => abort.current?.abort(), []);
  const take = async (): Promise<void> => {
    const stopping = new AbortController();
    abort.current = stopping;
    setShare(0);
    setFailed(false);
    const worker = new Worker(new URL('./camera.worker.ts', import.meta.url), { type: 'module' });
    try {
      const time = { takenAtMs: appNow().getTime(), zone };
      const [seed = 0] = crypto.getRandomValues(new Uint32Array(1));
      const { jpeg } = await shoot(openCaller<CameraCalls>(worker), time, seed, stopping.signal, setShare);
      onPhoto(jpeg);
    } catch {
      setFailed(!stopping.signal.aborted);
    } finally {
      // A rendering can't hear that it is cancelled: its thread ends with it.
      worker.terminate();
      setShare(null);
    }
  };
  return (
    <>
      <button
        type="button"
        className="btn h-16 text-base"
        onClick={() => (share === null ? void take() : abort.current?.abort())}
      >
        {share === null ? 'Simulated camera' : `Rendering ${Math.round(share * 100)} %: stop`}
      </button>
      {hasFailed && (
        <p role="alert" className="col-span-full">
          The simulated camera gave no picture. Choose a JPEG instead.
        </p>
      )}
    </>
  );
}
