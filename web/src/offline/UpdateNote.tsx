import { useRegisterSW } from 'virtual:pwa-register/react';
import { useEffect, useState } from 'react';
import { isFishOn } from '../fish-clock/fishStore.ts';

const LOOK_AGAIN_MS = 5000;

/** Offers a new version once it is there, and never while a fish is on; without an answer it comes with the next start. */
export function UpdateNote() {
  const {
    needRefresh: [isWaiting],
    updateServiceWorker,
  } = useRegisterSW();
  const [isFree, setFree] = useState(false);
  useEffect(() => {
    if (!isWaiting) return;
    const look = (): void => void isFishOn().then((isOn) => setFree(!isOn));
    look();
    const timer = setInterval(look, LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  }, [isWaiting]);
  const start = (): void => {
    // A page of the very first visit began without a worker, and is not reloaded by the library.
    navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true });
    void updateServiceWorker(true);
  };
  if (!isWaiting || !isFree) return null;
  return (
    <p
      role="status"
      className="border-warning bg-base-100 fixed inset-x-0 bottom-16 z-20 flex items-center justify-between gap-3 border-t-2 px-4 py-2 lg:bottom-0"
    >
      A new version of Lauta is ready.
      <button type="button" className="btn h-16 lg:h-12" onClick={start}>
        Start it now
      </button>
    </p>
  );
}
