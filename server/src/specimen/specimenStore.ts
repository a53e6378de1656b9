import type { RecordSpecimen } from '@lauta/contract';

export interface StoredSpecimen {
  record: RecordSpecimen;
  eventId: string;
  entrantId: string;
  receivedAt: Date;
}

/** Large fish that were weighed on the bank. */
export interface SpecimenStore {
  add(specimen: StoredSpecimen): Promise<void>;
  find(specimenId: string): Promise<StoredSpecimen | null>;
  /** The record that corrects another. */
  correctionOf(specimenId: string): Promise<StoredSpecimen | null>;
  withPhotograph(photographId: string): Promise<StoredSpecimen | null>;
  /** In the order in which they came; of these entrants, or of all. */
  inEvent(eventId: string, entrantIds?: readonly string[]): Promise<StoredSpecimen[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    specimens: SpecimenStore;
  }
}
