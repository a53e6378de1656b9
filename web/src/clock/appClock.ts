import { useEffect, useState } from 'react';

let offsetMs = 0;
let frozenAtMs: number | null = null;

/** Takes over the server's application time. */
export function setAppClock(clockOffsetMs: number, frozenAt: string | null): void {
  offsetMs = clockOffsetMs;
  frozenAtMs = frozenAt === null ? null : Date.parse(frozenAt);
}

/** Application time less real time, ms: whole where no demo set it off. */
export const appClockOffsetMs = (): number => Math.round(offsetMs);

export function appNow(): Date {
  return new Date(frozenAtMs ?? Date.now() + offsetMs);
}

/** Application time, renewed every `everyMs`. */
export function useNow(everyMs = 1000): Date {
  const [now, setNow] = useState(appNow);
  useEffect(() => {
    const timer = setInterval(() => setNow(appNow()), everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
  return now;
}
