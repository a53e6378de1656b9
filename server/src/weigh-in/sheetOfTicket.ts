import { isWeightSheet, sheetOfVersion, versionInForce, type WeightSheet } from '@lauta/core/rules';
import type { Ticket } from '@lauta/core/weigh-in';
import type { PublishedBook } from '../rules/ruleBook.ts';

/** The sheet by which a bag is scored: the version that was in force when it arrived. Null where no weight counts. */
export function sheetOfTicket(
  book: PublishedBook | null,
  { arrivedAtMs }: Pick<Ticket, 'arrivedAtMs'>,
): WeightSheet | null {
  if (!book) return null;
  const version = versionInForce(book.published, arrivedAtMs);
  const sheet = version === null ? book.current : sheetOfVersion(book, version);
  if (isWeightSheet(sheet)) return sheet;
  // The measure does not change once a bag was weighed.
  return isWeightSheet(book.current) ? book.current : null;
}
