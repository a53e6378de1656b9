import { list, told, type Body, type Folds } from '../ledger/recordFold.ts';
import type { EntrantId } from '@lauta/core/ids';

/** What entries of people and their roles say of their rows. */
export const PEOPLE_RECORD = {
  'people.add'(fold, { actorId, at, body, v }) {
    const accountId = String(body['accountId']);
    for (const role of list(body['roles'])) {
      const isThere = fold.get('role', accountId, String(role)) !== undefined;
      const acceptedAt = accountId === actorId ? at : null;
      if (!isThere) fold.set('role', [accountId, String(role)], v === 1 ? {} : { acceptedAt });
    }
    const person = fold.open('person', body['person']);
    fold.set(
      'person',
      [accountId],
      told(person, (value: Body) => value),
    );
    const entrant = body['entrant'] as { entrantId: EntrantId; number: number } | null;
    if (entrant) {
      fold.set('entrant', [entrant.entrantId], { number: entrant.number });
      fold.set('member', [entrant.entrantId, accountId], {});
    }
    if (v === 1) {
      if (entrant) fold.codesUntold(entrant.entrantId);
      return;
    }
    const issued = fold.open('identifiers', body['identifiers']);
    if (!issued.isKnown && entrant) fold.codesUntold(entrant.entrantId);
    if (issued.isKnown)
      for (const { entrantId, dayId, code } of list(issued.value))
        fold.set('identifier', [String(entrantId), String(dayId)], { code });
  },
  'people.accept'(fold, { at, body }) {
    for (const row of fold.all('role'))
      if (row.key.startsWith(`${String(body['accountId'])}/`) && row.fields['acceptedAt'] === null)
        row.fields['acceptedAt'] = at;
  },
  'people.unaccept'(fold, { body }) {
    for (const row of fold.all('role'))
      if (row.key.startsWith(`${String(body['accountId'])}/`)) row.fields['acceptedAt'] = null;
  },
  'people.remove'(fold, { body }) {
    const accountId = String(body['accountId']);
    for (const role of list(body['roles'])) fold.remove('role', accountId, String(role));
    const isStill = [...fold.all('role'), ...fold.all('member')].some(({ table, key }) =>
      table === 'role' ? key.startsWith(`${accountId}/`) : key.endsWith(`/${accountId}`),
    );
    if (!isStill) fold.remove('person', accountId);
    fold.open('why', body['why']);
  },
} satisfies Folds;
