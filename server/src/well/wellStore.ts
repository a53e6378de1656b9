import type { WellEntry } from '@lauta/core/well';
import type { DayId, EntrantId, EntryId, EventId } from '@lauta/core/ids';

export interface WellDay {
  eventId: EventId;
  entrantId: EntrantId;
  dayId: DayId;
}

/** What was entered at the wells, in no order: the core puts it into one. */
export interface WellStore {
  /** Nothing is ever changed: an entry that is there already is refused by the database. */
  add(day: WellDay, entries: readonly WellEntry[], heardAt: Date): Promise<void>;
  find(entryId: EntryId): Promise<WellEntry | null>;
  ofEntrant(entrantId: EntrantId): Promise<(WellEntry & { dayId: DayId })[]>;
  ofEvent(eventId: EventId): Promise<(WellEntry & { entrantId: EntrantId; dayId: DayId })[]>;
  count(entrantId: EntrantId, dayId: DayId): Promise<number>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    wells: WellStore;
  }
}
