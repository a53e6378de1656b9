import { useRef, useState } from 'react';

/** Does something once at a time, however often it is asked to, and tells what went wrong. */
export function useOnce(): {
  run: (act: () => Promise<void>) => Promise<void>;
  isBusy: boolean;
  error: unknown;
} {
  const [isBusy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  // State comes too late for a double click.
  const isRunning = useRef(false);
  const run = async (act: () => Promise<void>): Promise<void> => {
    if (isRunning.current) return;
    isRunning.current = true;
    setBusy(true);
    setError(null);
    try {
      await act();
    } catch (problem) {
      setError(problem);
    } finally {
      isRunning.current = false;
      setBusy(false);
    }
  };
  return { run, isBusy, error };
}
