import { iso, list, told, type Body, type FoldOne, type Folds } from '../ledger/recordFold.ts';
import type { RecordTable } from '../ledger/recordRows.ts';

const published =
  (table: RecordTable, key: string): FoldOne =>
  (fold, { at, body }) =>
    fold.set(table, [String(body[key])], { sha256: body['sha256'], bytes: body['sha256'], at });

/** What entries of the event itself say of its rows. */
export const EVENT_RECORD = {
  'event.create'(fold, { eventId, actorId, at, body, v }) {
    const { name, zone, isPublic, eventCode } = body;
    fold.set('event', [eventId], { name, zone, isPublic, eventCode, createdAt: at, officialAt: null });
    const instants = list(body['sessions']);
    let next = 0;
    for (const [i, day] of list(body['days']).entries()) {
      const dayId = Array.isArray(body['dayIds']) ? { dayId: body['dayIds'][i] as unknown } : {};
      fold.set('day', [i + 1], { date: day['date'], ...dayId });
      for (const [k, plan] of list(day['sessions']).entries()) {
        fold.set('session', [i + 1, k + 1], { ...plan, ...instants[next] });
        next += 1;
      }
    }
    fold.set('role', [actorId, 'director'], v === 1 ? {} : { acceptedAt: at });
    const person = v === 1 ? ({ isKnown: false } as const) : fold.open('person', body['person']);
    fold.set(
      'person',
      [actorId],
      told(person, (value: Body) => value),
    );
  },
  'rules.publish': published('rule-sheet', 'version'),
  'waters.publish': published('waters', 'version'),
  'board.add': published('board', 'boardId'),
  'results.declare'(fold, { eventId, at, body }) {
    fold.set('event', [eventId], { officialAt: body['isOfficial'] === true ? at : null });
  },
  'codes.reveal'(fold, { body }) {
    const dayId = String(body['dayId']);
    if (body['from'] === null) fold.remove('codes-time', dayId);
    else fold.set('codes-time', [dayId], { codesFrom: iso(body['from']) });
  },
} satisfies Folds;
