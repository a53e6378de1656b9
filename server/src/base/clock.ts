/** Application time, handed in everywhere: a demo's day goes on where it stopped, a picture freezes it. */
export interface Clock {
  now(): Date;
  /** Real time plus this is application time. */
  readonly offsetMs: number;
  readonly frozenAt: Date | null;
}

export function realClock(offsetMs = 0): Clock {
  return { offsetMs, frozenAt: null, now: () => new Date(Date.now() + offsetMs) };
}

export function frozenClock(at: Date): Clock {
  return { offsetMs: at.getTime() - Date.now(), frozenAt: at, now: () => new Date(at) };
}
