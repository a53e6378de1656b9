import type { WeighInEntry } from '@lauta/core/weigh-in';
import { list, told, type Folds } from '../ledger/recordFold.ts';

/** What entries of the weigh-in say of its rows. */
export const WEIGH_IN_RECORD = {
  'weigh-in.enter'(fold, { actorId, at, body }) {
    for (const { entryId, atMs, content } of list(body['entries'])) {
      const opened = fold.open(`weigh-${String(entryId)}`, content);
      fold.set('weigh-in', [String(entryId)], {
        atMs,
        accountId: actorId,
        heardAt: at,
        ...told(opened, ({ act }: WeighInEntry) => ({ act })),
      });
    }
  },
} satisfies Folds;
