import { useEffect } from 'react';

/** Keeps the screen awake while a fish is on, where the browser can (W3C Screen Wake Lock). */
export function useWakeLock(isWanted: boolean): void {
  useEffect(() => {
    if (!isWanted || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let isHere = true;
    const request = (): void => {
      if (document.visibilityState !== 'visible') return;
      navigator.wakeLock
        .request('screen')
        .then((held) => {
          if (isHere) lock = held;
          else void held.release();
        })
        // A low battery may refuse it.
        .catch(() => undefined);
    };
    request();
    // A page that was hidden has lost it.
    document.addEventListener('visibilitychange', request);
    return () => {
      isHere = false;
      document.removeEventListener('visibilitychange', request);
      void lock?.release();
    };
  }, [isWanted]);
}
