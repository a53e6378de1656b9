import type { SignedCapture } from '@lauta/contract';
import { statementHash } from '@lauta/core/custody';
import { list, told, type Body, type ExpectedRow, type Fold, type Folds } from '../ledger/recordFold.ts';

/** What entries of what devices signed and announced say of their rows. */
export const CUSTODY_RECORD = {
  'captures.tell'(fold, { at, body }) {
    for (const one of list(body['captures'])) {
      const captureId = String(one['captureId']);
      const opened = fold.open(`capture-${captureId}`, one['statement']);
      if (!opened.isKnown) {
        fold.leaveOpen(`capture ${captureId}`);
        continue;
      }
      const { statement, signature } = opened.value as SignedCapture;
      const hash = statementHash(statement);
      // Told again it stands as it was told first.
      if (fold.get('capture', hash)) continue;
      fold.set('capture', [hash], {
        entrantId: statement.entrantId,
        catchId: statement.catchId,
        captureId: statement.captureId,
        statement,
        signature,
        heardAt: at,
        askedAt: null,
        answeredAt: null,
        sentPhotographId: null,
      });
    }
  },
  'catch.announce'(fold, { at, body, v }) {
    const { entrantId } = body;
    if (v === 1) {
      const code = fold.open('identifier', body['identifier']);
      const photographs = fold.open('photographs', body['photographs']);
      const { catchId, speciesId, capturedAt, claimedSteps } = body;
      fold.set('announcement', [String(catchId)], {
        catchId,
        entrantId,
        speciesId,
        capturedAt,
        claimedSteps,
        heardAt: at,
        ...told(code, (identifierCode: string) => ({ identifierCode })),
        ...told(photographs, (value: unknown) => ({ photographs: value })),
      });
      return;
    }
    const opened = fold.open('announced', body['content']);
    if (!opened.isKnown) fold.leaveOpen(`announcement of ${String(entrantId)}`);
    else {
      const announced = opened.value as Body;
      fold.set('announcement', [String(announced['catchId'])], { ...announced, heardAt: at });
    }
  },
  'frames.ask'(fold, { at, body }) {
    for (const captureId of list(body['captureIds']))
      for (const row of capturesOf(fold, body['catchId'], captureId))
        if (row.fields['askedAt'] === null) row.fields['askedAt'] = at;
  },
  'frame.send'(fold, { at, body }) {
    const { catchId, captureId, photographId } = body;
    const asked = capturesOf(fold, catchId, captureId).find(
      ({ fields }) => fields['askedAt'] !== null && fields['answeredAt'] === null,
    );
    if (asked) Object.assign(asked.fields, { answeredAt: at, sentPhotographId: photographId });
    if (typeof photographId !== 'string') return;
    fold.show(String(catchId), photographId, 'board');
    fold.file(photographId, body['file']);
  },
} satisfies Folds;

function capturesOf(fold: Fold, catchId: unknown, captureId: unknown): ExpectedRow[] {
  return [...fold.all('capture')].filter(
    ({ fields }) => fields['catchId'] === catchId && fields['captureId'] === captureId,
  );
}
