/** What happens at the weigh-in, as a list of acts like the well's: a correction is a further act, and none is erased. */
import type { ScaleAct } from '../scale/index.ts';
import type { AccountId, DayId, EntrantId, EntryId, ScaleId, TicketId } from '../ids.ts';

/** A name under a ticket: drawn on the screen, or typed by whom a pen does not serve. */
export type Signature =
  /** Lines of a field one wide and one high, each a list of x and y. */
  { kind: 'drawn'; strokes: number[][] } | { kind: 'typed'; name: string };

export const SIGNERS = ['angler', 'weigh-master'] as const;
export type Signer = (typeof SIGNERS)[number];

/** An act on a bag's ticket. */
export type TicketAct =
  /** A bag arrives: its number in the queue is called later; the instant of the act is its arrival. */
  | { kind: 'queued'; ticketId: TicketId; entrantId: EntrantId; dayId: DayId; number: number }
  | { kind: 'called'; ticketId: TicketId }
  /** The bag check, with the fish in water. Short ones and those over the limit leave the bag before it is weighed. */
  | { kind: 'checked'; ticketId: TicketId; alive: number; dead: number; short: number; reason: string | null }
  | {
      kind: 'weighed';
      ticketId: TicketId;
      grossG: number;
      /** Of the wet bag, its water drained. */
      tareG: number;
      how: 'typed' | 'scale';
      /** Which of the event's scales; absent where none was described. */
      scaleId?: ScaleId | undefined;
      /** Why, where a signed ticket is corrected. */
      reason: string | null;
    }
  | { kind: 'big-fish'; ticketId: TicketId; massG: number; reason: string | null }
  /** A second person has seen the same figures. */
  | { kind: 'confirmed'; ticketId: TicketId; weighedId: EntryId }
  | { kind: 'signed'; ticketId: TicketId; signer: Signer; signature: Signature }
  /** Fish of the bag put into a release tank, and those that did not make it. */
  | { kind: 'released'; ticketId: TicketId; tank: number; alive: number; died: number };

export type WeighInAct = TicketAct | ScaleAct | { kind: 'undone'; entryId: EntryId };

export interface WeighInEntry {
  entryId: EntryId;
  /** ms since 1970, the device's clock. */
  atMs: number;
  /** Who entered it. */
  accountId: AccountId;
  act: WeighInAct;
}
