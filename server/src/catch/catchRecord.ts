import { iso, list, told, type Body, type Folds, type Opened } from '../ledger/recordFold.ts';
import type { FileId, MeasurementId } from '@lauta/core/ids';

/** What entries of catches say of their rows. */
export const CATCH_RECORD = {
  'catch.claim'(fold, { at, body }) {
    const catchId = String(body['catchId']);
    const code = fold.open('identifier', body['identifier']);
    const measurement = body['measurement'] as { measurementId: MeasurementId; reading: { kind?: string }; photographId?: FileId }; // prettier-ignore
    const photographs = list(body['photographs']);
    fold.set('catch', [catchId], {
      entrantId: body['entrantId'],
      speciesId: body['speciesId'],
      dayId: body['dayId'],
      ruleVersion: body['ruleVersion'],
      capturedAt: body['capturedAt'],
      capturedSource: body['capturedSource'],
      inSession: body['inSession'],
      marks: body['marks'],
      claimedSteps: body['claimedSteps'],
      measurementId: measurement.measurementId,
      handling: body['handling'] ?? null,
      laterHandling: null,
      clockOffsetMs: body['clockOffsetMs'] ?? null,
      madeAt: iso(body['madeAt']),
      receivedAt: at,
      deviceId: body['deviceId'],
      withdrawnAt: null,
      ...told(code, (identifierCode: string | null) => ({ identifierCode })),
    });
    // With one photograph there is no doubt which was measured, in versions too that did not tell.
    const measured = measurement.photographId ?? (photographs.length === 1 ? photographs[0]?.['photographId'] : undefined); // prettier-ignore
    fold.set('measurement', [measurement.measurementId], {
      catchId,
      kind: measurement.reading.kind ?? 'board',
      reading: measurement.reading,
      ...(measured === undefined ? {} : { photographId: measured }),
    });
    for (const { photographId, role, file } of photographs) {
      fold.show(catchId, photographId, String(role));
      fold.file(String(photographId), file);
    }
  },
  'catch.judge'(fold, { actorId, at, body }) {
    const catchId = String(body['catchId']);
    const verdictId = String(body['verdictId']);
    const kind = String(body['kind']);
    const words = fold.open('words', body['words']);
    fold.set('verdict', [verdictId], {
      catchId,
      seq: fold.verdict(catchId, verdictId, kind),
      judgeId: actorId,
      decidedAt: at,
      kind,
      steps: body['steps'],
      infractions: body['infractions'],
      ...told(words, (value: string) => ({ words: value })),
    });
  },
  'catch.answer'(fold, { at, body }) {
    const catchId = String(body['catchId']);
    const answerId = String(body['answerId']);
    const verdictId = String(body['verdictId']);
    const words = fold.open('words', body['words']);
    const photograph = body['photograph'] as { photographId: FileId; file: string } | null;
    fold.answer(verdictId, answerId);
    fold.set('answer', [answerId], {
      catchId,
      verdictId,
      answeredAt: at,
      photographId: photograph?.photographId ?? null,
      ...told(words, (value: string) => ({ words: value })),
    });
    if (!photograph) return;
    fold.show(catchId, photograph.photographId, 'board');
    fold.file(photograph.photographId, photograph.file);
  },
  'catch.handle'(fold, { body }) {
    fold.set('catch', [String(body['catchId'])], { laterHandling: body['handling'] });
  },
  'catch.time'(fold, { at, body, v }) {
    const opened: Opened = v === 1 ? { isKnown: true, value: body } : fold.open('timing', body['content']);
    if (!opened.isKnown) {
      fold.leaveOpen(`timing of ${String(body['entrantId'])}`);
      return;
    }
    const { catchId, deviceId, handling, clockOffsetMs } = opened.value as Body;
    fold.set('timing', [String(catchId), String(deviceId)], {
      entrantId: body['entrantId'],
      handling,
      clockOffsetMs,
      toldAt: at,
    });
  },
  'catch.clip'(fold, { body }) {
    fold.show(String(body['catchId']), body['clipId'], 'clip');
    fold.file(String(body['clipId']), body['file']);
  },
  'catch.withdraw'(fold, { at, body }) {
    fold.set('catch', [String(body['catchId'])], { withdrawnAt: at });
  },
  'catch.restore'(fold, { body }) {
    fold.set('catch', [String(body['catchId'])], { withdrawnAt: null });
  },
} satisfies Folds;
