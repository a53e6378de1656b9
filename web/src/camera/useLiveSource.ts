import { useCallback, useEffect, useState } from 'react';
import { openDeviceCamera } from './openDeviceCamera.ts';
import type { FilmWish } from './filmProtocol.ts';
import { cameraTrouble, type CameraTrouble, type LiveSource } from './liveSource.ts';
import { openSimulatedCamera } from './openSimulatedCamera.ts';

export type SourceState =
  | { kind: 'opening'; share: number | null }
  | { kind: 'open'; source: LiveSource }
  | { kind: 'failed'; trouble: CameraTrouble };

/**
 * Opens a camera for as long as it is wanted.
 * @param film what the simulated camera films; null for the device's own camera
 */
export function useLiveSource(
  film: FilmWish | null,
  lensId: string | null,
): SourceState & { retry: () => void } {
  const [state, setState] = useState<SourceState>({ kind: 'opening', share: null });
  const [attempt, setAttempt] = useState(0);
  useEffect(() => {
    let isHere = true;
    let source: LiveSource | null = null;
    const open = async (): Promise<void> => {
      if (!film && !navigator.mediaDevices) {
        setState({ kind: 'failed', trouble: window.isSecureContext ? 'absent' : 'not-secure' });
        return;
      }
      try {
        const opened = film
          ? await openSimulatedCamera(film, (share) => isHere && setState({ kind: 'opening', share }))
          : await openDeviceCamera(lensId);
        if (!isHere) return opened.close();
        source = opened;
        setState({ kind: 'open', source });
        const [track] = opened.stream.getVideoTracks();
        track?.addEventListener('ended', () => isHere && setState({ kind: 'failed', trouble: 'busy' }));
      } catch (error) {
        if (isHere) setState({ kind: 'failed', trouble: cameraTrouble(error) });
      }
    };
    void open();
    return () => {
      isHere = false;
      source?.close();
      setState({ kind: 'opening', share: null });
    };
  }, [film, lensId, attempt]);
  const retry = useCallback(() => setAttempt((former) => former + 1), []);
  return { ...state, retry };
}
