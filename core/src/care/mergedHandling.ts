import { clockOf, type Lift, type WaterEvent } from './catchClock.ts';
import type { Handling } from './handling.ts';

/** What one device told of a catch. */
export interface TimedBy {
  handling: Handling;
  /** The device's clock less the server's, ms; null where it was never compared. */
  clockOffsetMs: number | null;
}

/** Two devices see one lift a moment apart: lifts with a shorter time in the water between them are one, ms. */
const ONE_LIFT_MS = 2000;

/**
 * What several devices told of one catch, as one: a lift that two of them timed stays one lift, from the first that saw
 * it begin to the last that saw it end, so that the fish is never said to have been out for less than any device saw.
 * What only one of them noted is kept. Times are set right by each device's clock offset.
 * @throws RangeError without any
 */
export function mergedHandling(told: readonly TimedBy[]): Handling {
  const [first, ...others] = told;
  if (!first) throw new RangeError('told: expected one or more, got none');
  if (others.length === 0) return first.handling;
  const all = told.map(({ handling, clockOffsetMs }) => setRight(handling, clockOffsetMs ?? 0));
  const pick = <K extends keyof Handling>(key: K): Handling[K] =>
    (all.find((one) => one[key] !== null && one[key] !== undefined) ?? first.handling)[key];
  const leftWith = [...new Set(all.flatMap((one) => one.leftWith ?? []))];
  return {
    events: mergedEvents(all.map(({ events }) => events)),
    airLimitSeconds: first.handling.airLimitSeconds,
    guessedMassG: pick('guessedMassG'),
    waterCelsius: pick('waterCelsius'),
    airCelsius: pick('airCelsius'),
    hookPlace: pick('hookPlace'),
    bleeds: all.some(({ bleeds }) => bleeds),
    ...(leftWith.length > 0 ? { leftWith } : {}),
    signs: Object.assign({}, ...all.map(({ signs }) => signs).reverse()) as Handling['signs'],
  };
}

function setRight(handling: Handling, offsetMs: number): Handling {
  const right = (ms: number): number => Math.round(ms - offsetMs);
  return {
    ...handling,
    events: handling.events.map(({ step, atMs, tappedAtMs }) => ({
      step,
      atMs: right(atMs),
      ...(tappedAtMs === undefined ? {} : { tappedAtMs: right(tappedAtMs) }),
    })),
  };
}

function mergedEvents(all: readonly (readonly WaterEvent[])[]): WaterEvent[] {
  const events = all.flat();
  const earliest = (...steps: WaterEvent['step'][]): WaterEvent | undefined =>
    events.filter(({ step }) => steps.includes(step)).sort((a, b) => a.atMs - b.atMs)[0];
  const end = earliest('released', 'lost');
  const lifts = joined(all.flatMap((one) => clockOf(one, one.at(-1)?.atMs ?? 0).lifts));
  const merged: WaterEvent[] = [];
  for (const one of [earliest('hooked'), earliest('netted')]) if (one) merged.push(one);
  for (const { fromMs, toMs } of lifts) {
    merged.push({ step: 'lifted', atMs: fromMs });
    // A lift that ends with the release has no return of its own.
    if (toMs !== null && !(end && toMs >= end.atMs)) merged.push({ step: 'returned', atMs: toMs });
  }
  if (end) merged.push(end);
  return inOrder(merged);
}

/** Lifts as intervals, those that overlap or nearly touch made one. */
function joined(lifts: readonly Lift[]): Lift[] {
  const found: Lift[] = [];
  for (const lift of [...lifts].sort((a, b) => a.fromMs - b.fromMs)) {
    const last = found.at(-1);
    if (last && (last.toMs === null || lift.fromMs <= last.toMs + ONE_LIFT_MS))
      last.toMs = last.toMs === null || lift.toMs === null ? null : Math.max(last.toMs, lift.toMs);
    else found.push({ ...lift });
  }
  return found;
}

/** Order is the list's; a time that would run backwards stands at the one before. */
function inOrder(events: readonly WaterEvent[]): WaterEvent[] {
  const ordered: WaterEvent[] = [];
  for (const event of events)
    ordered.push({ ...event, atMs: Math.max(event.atMs, ordered.at(-1)?.atMs ?? event.atMs) });
  return ordered;
}
