import type { WeighInEntry } from '@lauta/core/weigh-in';

/** What was entered at the scales of events, in no order: the core puts it into one. */
export interface WeighInStore {
  add(eventId: string, entries: readonly WeighInEntry[], heardAt: Date): Promise<void>;
  find(entryId: string): Promise<WeighInEntry | null>;
  ofEvent(eventId: string): Promise<WeighInEntry[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    weighIns: WeighInStore;
  }
}
