import type { WeighInEntry } from '@lauta/core/weigh-in';
import type { EntryId, EventId } from '@lauta/core/ids';

/** What was entered at the scales of events, in no order: the core puts it into one. */
export interface WeighInStore {
  add(eventId: EventId, entries: readonly WeighInEntry[], heardAt: Date): Promise<void>;
  find(entryId: EntryId): Promise<WeighInEntry | null>;
  ofEvent(eventId: EventId): Promise<WeighInEntry[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    weighIns: WeighInStore;
  }
}
