import { useEffect, useState } from 'react';

export interface Resource<T> {
  value: T;
  close: () => void;
}

/**
 * Something of the browser's that must be let go of again, such as a worker or an object's address.
 * Null until it is there.
 * @param open memoised: a new function closes the former resource and opens the next
 */
export function useResource<T>(open: () => Resource<T> | null): T | null {
  const [held, setHeld] = useState<{ open: typeof open; value: T } | null>(null);
  useEffect(() => {
    const resource = open();
    let isHeld = true;
    if (resource) queueMicrotask(() => isHeld && setHeld({ open, value: resource.value }));
    return () => {
      isHeld = false;
      resource?.close();
    };
  }, [open]);
  return held?.open === open ? held.value : null;
}
