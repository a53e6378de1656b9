import { useEffect, useRef } from 'react';

/** Always the newest, for effects that must not run again for it. */
export function useLatest<T>(value: T): { readonly current: T } {
  const held = useRef(value);
  useEffect(() => {
    held.current = value;
  });
  return held;
}
