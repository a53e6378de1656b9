import type { WellView } from '@lauta/contract';
import type { WellEntry } from '@lauta/core/well';
import type { Stores } from '../storage/storage.ts';
import type { DayId, EntrantId, EventId } from '@lauta/core/ids';

export async function wellView(stores: Stores, entrantId: EntrantId): Promise<WellView> {
  const days = new Map<string, WellView['days'][number]>();
  for (const { dayId, ...entry } of await stores.wells.ofEntrant(entrantId)) {
    const day = days.get(dayId) ?? { dayId, entries: [] };
    day.entries.push(entry);
    days.set(dayId, day);
  }
  return { days: [...days.values()] };
}

/** Every well of an event, each day by itself. */
export async function wellsOfEvent(
  stores: Stores,
  eventId: EventId,
): Promise<{ entrantId: EntrantId; dayId: DayId; entries: WellEntry[] }[]> {
  const wells = new Map<string, { entrantId: EntrantId; dayId: DayId; entries: WellEntry[] }>();
  for (const { entrantId, dayId, ...entry } of await stores.wells.ofEvent(eventId)) {
    const key = `${entrantId} ${dayId}`;
    const well = wells.get(key) ?? { entrantId, dayId, entries: [] };
    well.entries.push(entry);
    wells.set(key, well);
  }
  return [...wells.values()];
}
