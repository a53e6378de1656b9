import { useEffect, useRef, useState, type ReactNode } from 'react';
import { parsePayload } from '@lauta/core/identifier';
import { wallTimeOf } from '@lauta/core/schedule';
import { appNow } from '../../clock/appClock.ts';
import { openCaller } from '../../workers/calls.ts';
import type { CameraCalls, SimulatedShot } from '../photo/cameraProtocol.ts';

/** Takes a photograph with the phone's own camera, or a file that is there already. */
export function PhotoSource({ onPhoto, children }: { onPhoto: (photo: Blob) => void; children?: ReactNode }) {
  const camera = useRef<HTMLInputElement>(null);
  const file = useRef<HTMLInputElement>(null);
  const take = (input: HTMLInputElement): void => {
    const photo = input.files?.[0];
    // The same file may be chosen again after it was put away.
    input.value = '';
    if (photo) onPhoto(photo);
  };
  return (
    <div className="bg-base-100 border-base-300 grid grid-cols-2 gap-2 max-lg:sticky max-lg:bottom-16 max-lg:z-10 max-lg:-mx-4 max-lg:border-t max-lg:px-4 max-lg:py-3 lg:grid-cols-3">
      {/* On the phone it lies lowest, under the thumb. */}
      <button
        type="button"
        className="btn btn-primary main-action col-span-2 max-lg:order-last lg:col-span-1"
        onClick={() => camera.current?.click()}
      >
        Photograph a fish
      </button>
      <button type="button" className="btn h-16 text-base" onClick={() => file.current?.click()}>
        Choose a JPEG
      </button>
      {children}
      <input
        ref={camera}
        type="file"
        accept="image/jpeg"
        capture="environment"
        aria-label="Photograph a fish"
        className="hidden"
        onChange={(event) => take(event.currentTarget)}
      />
      <input
        ref={file}
        type="file"
        accept="image/jpeg,.jpg,.jpeg"
        aria-label="Choose a JPEG"
        className="hidden"
        onChange={(event) => take(event.currentTarget)}
      />
    </div>
  );
}

export interface SimulatedFish {
  boardId: string;
  look: string;
  zone: string;
  /** The text in the card's QR code. */
  payload: string | null;
}

/** The demo's camera: a fish that is not there, on a board that is not there. */
export function SimulatedCamera({ fish, onPhoto }: { fish: SimulatedFish; onPhoto: (photo: Blob) => void }) {
  const [share, setShare] = useState<number | null>(null);
  const [hasFailed, setFailed] = useState(false);
  const abort = useRef<AbortController | null>(null);
  useEffect(() => () => abort.current?.abort(), []);
  const shoot = async (): Promise<void> => {
    const stopping = new AbortController();
    abort.current = stopping;
    setShare(0);
    setFailed(false);
    const worker = new Worker(new URL('../photo/camera.worker.ts', import.meta.url), { type: 'module' });
    try {
      const caller = openCaller<CameraCalls>(worker);
      const { jpeg } = await caller.call('photograph', shotOf(fish), stopping.signal, setShare);
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
        onClick={() => (share === null ? void shoot() : abort.current?.abort())}
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

function shotOf({ boardId, look, zone, payload }: SimulatedFish): SimulatedShot {
  const now = appNow();
  const [seed = 0, length = 0] = crypto.getRandomValues(new Uint32Array(2));
  return {
    seed,
    boardId,
    look,
    lengthMm: 300 + (length / 2 ** 32) * 220,
    identifier: payload ? parsePayload(payload) : null,
    takenLocal: wallTimeOf(now.getTime(), zone).local,
    offset: wallTimeOf(now.getTime(), zone).offset,
    takenAt: now.toISOString(),
  };
}
