import { clockOf } from './catchClock.ts';
import type { Handling } from './handling.ts';

/** What a catch's taps say of the longest lift that its rule sheet allows. */
export interface LiftFinding {
  tone: 'clear' | 'look' | 'fault';
  limitSeconds: number;
  /** The longest lift that was ended, s to the tenth; null where none was. */
  longestSeconds: number | null;
  lifts: number;
  /** A lift that nobody ended: how long it was nobody knows. */
  isOpen: boolean;
  /** A time was mended by hand. */
  isMended: boolean;
}

/**
 * The longest lift against the sheet's limit; null where the sheet sets none. A lift at exactly the limit is within it.
 * Where nobody tapped, or a lift was never ended, nothing is clear: a judge looks.
 */
export function liftFinding(
  limitSeconds: number | undefined,
  handling: Pick<Handling, 'events'> | null,
): LiftFinding | null {
  if (limitSeconds === undefined) return null;
  const events = handling?.events ?? [];
  const { lifts, isMended } = clockOf(events, events.at(-1)?.atMs ?? 0);
  const ended = lifts.flatMap(({ fromMs, toMs }) => (toMs === null ? [] : [toMs - fromMs]));
  const longestSeconds = ended.length === 0 ? null : Math.round(Math.max(...ended) / 100) / 10;
  const isOpen = ended.length < lifts.length;
  const isOver = longestSeconds !== null && longestSeconds > limitSeconds;
  const tone = isOver ? 'fault' : events.length === 0 || isOpen || isMended ? 'look' : 'clear';
  return { tone, limitSeconds, longestSeconds, lifts: lifts.length, isOpen, isMended };
}
