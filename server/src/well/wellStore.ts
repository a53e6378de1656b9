import type { WellEntry } from '@lauta/core/well';

export interface WellDay {
  eventId: string;
  entrantId: string;
  dayId: string;
}

/** What was entered at the wells, in no order: the core puts it into one. */
export interface WellStore {
  /** Nothing is ever changed: an entry that is there already is refused by the database. */
  add(day: WellDay, entries: readonly WellEntry[], heardAt: Date): Promise<void>;
  find(entryId: string): Promise<WellEntry | null>;
  ofEntrant(entrantId: string): Promise<(WellEntry & { dayId: string })[]>;
  ofEvent(eventId: string): Promise<(WellEntry & { entrantId: string; dayId: string })[]>;
  count(entrantId: string, dayId: string): Promise<number>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    wells: WellStore;
  }
}
