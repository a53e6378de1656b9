import type { RecordSpecimen } from '@lauta/contract';
import type { EntrantId, EventId, FileId, SpecimenId } from '@lauta/core/ids';

export interface StoredSpecimen {
  record: RecordSpecimen;
  eventId: EventId;
  entrantId: EntrantId;
  receivedAt: Date;
}

/** Large fish that were weighed on the bank. */
export interface SpecimenStore {
  add(specimen: StoredSpecimen): Promise<void>;
  find(specimenId: SpecimenId): Promise<StoredSpecimen | null>;
  /** The record that corrects another. */
  correctionOf(specimenId: SpecimenId): Promise<StoredSpecimen | null>;
  withPhotograph(photographId: FileId): Promise<StoredSpecimen | null>;
  /** In the order in which they came; of these entrants, or of all. */
  inEvent(eventId: EventId, entrantIds?: readonly EntrantId[]): Promise<StoredSpecimen[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    specimens: SpecimenStore;
  }
}
