import { useEffect, useState } from 'react';

/** Whether the pages are stored on this device; false as long as they are not, and where the browser stores none. */
export function useOfflineReady(): boolean {
  const [isReady, setReady] = useState(false);
  useEffect(() => {
    let isHere = true;
    if ('serviceWorker' in navigator)
      void navigator.serviceWorker.ready.then(() => {
        if (isHere) setReady(true);
      });
    return () => {
      isHere = false;
    };
  }, []);
  return isReady;
}
