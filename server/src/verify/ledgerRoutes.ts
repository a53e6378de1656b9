import rateLimit from 'express-rate-limit';
import type { LedgerCheckView, LedgerEntryView, LedgerKeyView, LedgerView } from '@lauta/contract';
import type { StoredEntry } from '@lauta/core/ledger';
import { sendProblem } from '../http/problem.ts';
import { eventScope, pageAsked, searchAsked, type RouteTable } from '../http/routeTable.ts';
import { refuse } from '../base/refusal.ts';
import { ledgerChecks } from './ledgerChecks.ts';

const EXPORT_AT_ONCE = 500;

export function addLedgerRoutes(table: RouteTable): void {
  table.allowed(
    'get',
    '/api/events/:eventId/ledger',
    'see-ledger',
    eventScope,
    async (asked, { eventId }) => {
      const { ledger } = asked.lauta.storage.read;
      const head = await ledger.head(eventId);
      if (!head) refuse('not-found', { what: 'ledger' });
      const { page, pageSize, offset } = pageAsked(asked.request, 25, 200);
      const { entries, total } = await ledger.find(eventId, searchAsked(asked.request), offset, pageSize);
      return { items: entries.map(entryView), total, page, pageSize, head } satisfies LedgerView;
    },
  );

  table.anyone('get', '/api/ledger-keys', ({ lauta }) =>
    Promise.resolve(lauta.signer.keys() satisfies LedgerKeyView[]),
  );

  /** What a ledger's entry was hashed to: with it a device compares the head that it was told once. */
  table.allowed(
    'get',
    '/api/events/:eventId/ledger/entries/:seq/hash',
    'see-ledger',
    eventScope,
    async ({ lauta, request }, { eventId }) => {
      const seq = Number(request.params['seq']);
      const [entry] = Number.isInteger(seq) && seq > 0 ? await lauta.storage.read.ledger.entries(eventId, seq - 1, 1) : []; // prettier-ignore
      return { seq, hash: entry?.seq === seq ? entry.hash : null };
    },
  );

  addWholeLedgerRoutes(table);
}

/** What reads a ledger from end to end: checked, and taken home. */
function addWholeLedgerRoutes(table: RouteTable): void {
  const checkOf = ledgerChecks();
  // Reading and hashing everything is work: not more often than a person would ask for it.
  const seldom = rateLimit({
    windowMs: 60_000,
    limit: 20,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request, response) => sendProblem(response, 'too-many-tries'),
  });
  table.allowed(
    'get',
    '/api/events/:eventId/ledger/check',
    'see-ledger',
    eventScope,
    ({ lauta }, { eventId }): Promise<LedgerCheckView> => checkOf(lauta, eventId),
    [seldom],
  );

  table.allowed(
    'get',
    '/api/events/:eventId/ledger.jsonl',
    'see-ledger',
    eventScope,
    async ({ lauta, response }, { eventId }) => {
      response.setHeader('Content-Disposition', 'attachment; filename="ledger.jsonl"');
      response.type('application/jsonl; charset=utf-8');
      let after = 0;
      for (;;) {
        const some = await lauta.storage.read.ledger.entries(eventId, after, EXPORT_AT_ONCE);
        for (const entry of some) response.write(JSON.stringify(entryView(entry)) + '\n');
        if (some.length < EXPORT_AT_ONCE) break;
        after = some.at(-1)?.seq ?? after;
      }
      response.end();
      return undefined;
    },
    [seldom],
  );
}

function entryView({ seq, hash, bytes }: StoredEntry): LedgerEntryView {
  return { seq, hash, text: Buffer.from(bytes).toString('utf8') };
}
