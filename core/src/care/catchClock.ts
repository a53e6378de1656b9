/** What happens to a fish from hook-up to release, as it is tapped. */
export const WATER_STEPS = ['hooked', 'netted', 'lifted', 'returned', 'released', 'lost'] as const;
export type WaterStep = (typeof WATER_STEPS)[number];

/** One tap. Its order is its place in the list; its time is evidence and may be mended. */
export interface WaterEvent {
  step: WaterStep;
  /** Device time, ms since 1970. */
  atMs: number;
  /** The time that the tap gave, where it was mended afterwards. */
  tappedAtMs?: number | undefined;
}

/** One time out of the water; `toMs` is null while it lasts. */
export interface Lift {
  fromMs: number;
  toMs: number | null;
}

export type ClockPhase = 'idle' | 'fight' | 'net' | 'air' | 'over';

export interface CatchClock {
  phase: ClockPhase;
  /** Null where the step before was skipped. */
  fightMs: number | null;
  /** Rest in the net since the landing or the last lift; null outside of the net. */
  restMs: number | null;
  lifts: readonly Lift[];
  /** The lift that lasts; null in the water. */
  airNowMs: number | null;
  airTotalMs: number;
  /** In the net under water, all rests together. */
  restTotalMs: number;
  /** From the first tap to the last, or to now. */
  totalMs: number;
  /** At least one time was mended by hand. */
  isMended: boolean;
}

/** What may follow what: every step may be skipped, none may be taken twice in a row. */
const AFTER: Record<WaterStep | 'start', readonly WaterStep[]> = {
  start: ['hooked', 'netted', 'lifted'],
  hooked: ['netted', 'lifted', 'released', 'lost'],
  netted: ['lifted', 'released', 'lost'],
  lifted: ['returned', 'released', 'lost'],
  returned: ['lifted', 'released', 'lost'],
  released: [],
  lost: [],
};

/** The steps that make sense now, in the order of the work. */
export function nextSteps(events: readonly WaterEvent[]): readonly WaterStep[] {
  return AFTER[events.at(-1)?.step ?? 'start'];
}

/** What the order of the work wants next; null when nothing is left to do. */
export function mainStep(events: readonly WaterEvent[]): WaterStep | null {
  const last = events.at(-1)?.step;
  const next = last === undefined ? 'hooked' : USUAL_NEXT[last];
  return next ?? null;
}

const USUAL_NEXT: Partial<Record<WaterStep, WaterStep>> = {
  hooked: 'netted',
  netted: 'lifted',
  lifted: 'returned',
  returned: 'released',
};

export type TapRefusal = 'wrong-order' | 'before-the-last';

/** The list with one more tap, or why it cannot be. */
export function tapped(
  events: readonly WaterEvent[],
  step: WaterStep,
  atMs: number,
): { ok: true; events: readonly WaterEvent[] } | { ok: false; code: TapRefusal } {
  if (!nextSteps(events).includes(step)) return { ok: false, code: 'wrong-order' };
  const last = events.at(-1);
  // A clock that was set back: order is kept by the list, so the tap stands at the time of the one before.
  return { ok: true, events: [...events, { step, atMs: Math.max(atMs, last?.atMs ?? atMs) }] };
}

/** The list without its last tap. */
export function untapped(events: readonly WaterEvent[]): readonly WaterEvent[] {
  return events.slice(0, -1);
}

/**
 * The list with one time mended; what the tap gave is kept beside it. A time must stay between its neighbours'.
 * @param index which tap
 */
export function mended(
  events: readonly WaterEvent[],
  index: number,
  atMs: number,
): { ok: true; events: readonly WaterEvent[] } | { ok: false; code: 'out-of-order' } {
  const event = events[index];
  if (!event) throw new RangeError(`mended: index, expected 0 to ${events.length - 1}, got ${index}`);
  const before = events[index - 1]?.atMs ?? -Infinity;
  const after = events[index + 1]?.atMs ?? Infinity;
  if (atMs < before || atMs > after) return { ok: false, code: 'out-of-order' };
  const changed = { ...event, atMs, tappedAtMs: event.tappedAtMs ?? event.atMs };
  return { ok: true, events: events.map((one, i) => (i === index ? changed : one)) };
}

/**
 * The list with a step that was skipped at its moment, marked as filled in: `tappedAtMs` is when it was.
 * @param nowMs when it is filled in
 */
export function filledIn(
  events: readonly WaterEvent[],
  step: WaterStep,
  atMs: number,
  nowMs: number,
): { ok: true; events: readonly WaterEvent[] } | { ok: false; code: 'wrong-order' | 'not-yet' } {
  if (atMs > nowMs) return { ok: false, code: 'not-yet' };
  const place = events.findIndex((one) => one.atMs > atMs);
  const at = place < 0 ? events.length : place;
  const whole = [...events.slice(0, at), { step, atMs, tappedAtMs: nowMs }, ...events.slice(at)];
  const isInOrder = whole.every((one, i) => AFTER[whole[i - 1]?.step ?? 'start'].includes(one.step));
  return isInOrder ? { ok: true, events: whole } : { ok: false, code: 'wrong-order' };
}

/**
 * The list with the end of a lift that nobody tapped: it is set to the limit of the lift, and marked as mended.
 * @param nowMs when it was noticed
 */
export function returnedInTime(
  events: readonly WaterEvent[],
  nowMs: number,
  limitSeconds: number,
): readonly WaterEvent[] {
  const lifted = events.at(-1);
  if (lifted?.step !== 'lifted')
    throw new RangeError(`returnedInTime: last step, expected lifted, got ${lifted?.step}`);
  const tappedAtMs = Math.max(nowMs, lifted.atMs);
  const atMs = Math.min(lifted.atMs + 1000 * limitSeconds, tappedAtMs);
  return [...events, { step: 'returned', atMs, tappedAtMs }];
}

/** All times of a catch at an instant. Pure: the same taps give the same times on phone and server. */
export function clockOf(events: readonly WaterEvent[], nowMs: number): CatchClock {
  const first = events[0];
  const last = events.at(-1);
  const isOver = last?.step === 'released' || last?.step === 'lost';
  const endMs = last && isOver ? last.atMs : Math.max(nowMs, last?.atMs ?? nowMs);
  const lifts: Lift[] = [];
  for (const { step, atMs } of events) {
    const open = lifts.at(-1);
    if (step === 'lifted') lifts.push({ fromMs: atMs, toMs: null });
    else if (open?.toMs === null) open.toMs = atMs;
  }
  const isInAir = last?.step === 'lifted';
  const inWaterAgain = last && (last.step === 'netted' || last.step === 'returned');
  let restTotalMs = 0;
  events.forEach(({ step, atMs }, i) => {
    if (step === 'netted' || step === 'returned') restTotalMs += (events[i + 1]?.atMs ?? endMs) - atMs;
  });
  const hooked = events.find(({ step }) => step === 'hooked');
  const landed = events.find(({ step }) => step !== 'hooked');
  const airNowMs = isInAir && last ? endMs - last.atMs : null;
  return {
    phase: !last ? 'idle' : isOver ? 'over' : isInAir ? 'air' : inWaterAgain ? 'net' : 'fight',
    fightMs: hooked ? (landed?.atMs ?? endMs) - hooked.atMs : null,
    restMs: inWaterAgain ? endMs - last.atMs : null,
    lifts,
    airNowMs,
    airTotalMs: lifts.reduce((sum, { fromMs, toMs }) => sum + (toMs ?? endMs) - fromMs, 0),
    restTotalMs,
    totalMs: first ? endMs - first.atMs : 0,
    isMended: events.some(({ tappedAtMs }) => tappedAtMs !== undefined),
  };
}
