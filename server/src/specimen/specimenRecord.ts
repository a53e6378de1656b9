import type { RecordSpecimen } from '@lauta/contract';
import { list, told, type Folds } from '../ledger/recordFold.ts';

/** What entries of specimens say of their rows. */
export const SPECIMEN_RECORD = {
  'specimen.record'(fold, { at, body }) {
    const specimenId = String(body['specimenId']);
    const opened = fold.open(`specimen-${specimenId}`, body['content']);
    fold.set('specimen', [specimenId], {
      entrantId: body['entrantId'],
      receivedAt: at,
      ...told(opened, (record: RecordSpecimen) => ({
        record,
        correctsId: record.corrects?.specimenId ?? null,
      })),
    });
    if (opened.isKnown) {
      const { photographs } = (opened.value as RecordSpecimen).specimen;
      for (const [i, { photographId }] of photographs.entries())
        fold.set('specimen-photograph', [specimenId, i], { photographId });
    } else fold.leaveOpen(`specimen-photograph of ${specimenId}`);
    for (const { photographId, file } of list(body['photographs'])) fold.file(String(photographId), file);
  },
} satisfies Folds;
