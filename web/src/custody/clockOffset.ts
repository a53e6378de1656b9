import { getJson } from '../door/ask.ts';

export interface ClockSample {
  askedMs: number;
  answeredMs: number;
  serverMs: number;
}

/**
 * The device's clock less the server's by the sample with the shortest way: its middle is when the server looked
 * (Cristian's algorithm, 1989); half of the way is how far that may be off.
 */
export function offsetOf(samples: readonly ClockSample[]): { offsetMs: number; mayBeOffMs: number } | null {
  const [best] = samples.toSorted((a, b) => a.answeredMs - a.askedMs - (b.answeredMs - b.askedMs));
  if (!best) return null;
  const way = best.answeredMs - best.askedMs;
  return { offsetMs: best.askedMs + way / 2 - best.serverMs, mayBeOffMs: way / 2 };
}

const SAMPLES = 3;

/** Asks the server for its time, a few times. Rejects without a network. */
export async function measureClockOffset(signal: AbortSignal): Promise<ReturnType<typeof offsetOf>> {
  const samples: ClockSample[] = [];
  for (let i = 0; i < SAMPLES; i++) {
    const askedMs = Date.now();
    const { serverMs } = await getJson<{ serverMs: number }>('/api/time', signal);
    samples.push({ askedMs, answeredMs: Date.now(), serverMs });
  }
  return offsetOf(samples);
}
