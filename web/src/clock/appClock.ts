import { useEffect, useState } from 'react';

let offsetMs = 0;
let frozenAtMs: number | null = null;
let isSet = false;
let waiting: (() => void)[] = [];

/** Takes over the server's application time. */
export function setAppClock(clockOffsetMs: number, frozenAt: string | null): void {
  offsetMs = clockOffsetMs;
  frozenAtMs = frozenAt === null ? null : Date.parse(frozenAt);
  isSet = true;
  const acts = waiting;
  waiting = [];
  for (const act of acts) act();
}

/** Does something that goes by the application's time: at once, or as soon as the server has told it. */
export function onceClockSet(act: () => void): void {
  if (isSet) act();
  else waiting.push(act);
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
