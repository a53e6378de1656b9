import type { EventView } from '@lauta/contract';
import { wallTimeOf } from '@lauta/core/schedule';

/** The event's day that it is now, else the next one, else the last. */
export function dayOfNow(event: EventView, nowMs: number): EventView['days'][number] | null {
  const today = wallTimeOf(nowMs, event.zone).local.slice(0, 10);
  return event.days.find((day) => day.date >= today) ?? event.days.at(-1) ?? null;
}
