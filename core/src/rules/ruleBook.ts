import type { RuleSheet } from './ruleSheet.ts';

/** Every published version of an event's rule sheet. A catch is judged by the one in force when it was caught. */
export interface RuleBook {
  /** The latest version: it rules bag and ranking. */
  current: RuleSheet;
  versions: ReadonlyMap<number, RuleSheet>;
}

/** @throws RangeError for a version that was never published: a catch can't name one */
export function sheetOfVersion(book: RuleBook, version: number): RuleSheet {
  const sheet = book.versions.get(version);
  if (!sheet) throw new RangeError(`version: expected a published one, got ${version}`);
  return sheet;
}

/**
 * The version in force at an instant: the last one published until then, and the first one for anything earlier.
 * Null while nothing is published.
 */
export function versionInForce(
  published: readonly { version: number; publishedAtMs: number }[],
  instantMs: number,
): number | null {
  const inOrder = published.toSorted((a, b) => a.version - b.version);
  return (inOrder.findLast((one) => one.publishedAtMs <= instantMs) ?? inOrder[0])?.version ?? null;
}
