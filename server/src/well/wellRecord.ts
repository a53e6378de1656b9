import type { WellEntry } from '@lauta/core/well';
import { list, told, type Folds } from '../ledger/recordFold.ts';

/** What entries of a well say of its rows. */
export const WELL_RECORD = {
  'well.enter'(fold, { at, body }) {
    const { entrantId, dayId } = body;
    for (const { entryId, content } of list(body['entries'])) {
      const opened = fold.open(`well-${String(entryId)}`, content);
      fold.set('well', [String(entryId)], {
        entrantId,
        dayId,
        heardAt: at,
        ...told(opened, ({ atMs, act }: WellEntry) => ({ atMs, act })),
      });
    }
  },
} satisfies Folds;
