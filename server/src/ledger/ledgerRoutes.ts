import rateLimit from 'express-rate-limit';
import type { LedgerCheckView, LedgerEntryView, LedgerView } from '@lauta/contract';
import type { StoredEntry } from '@lauta/core/ledger';
import { sendProblem } from '../http/problem.ts';
import { eventScope, pageAsked, searchAsked, type RouteTable } from '../http/routeTable.ts';
import { refuse } from '../refusal.ts';
import { checkLedger } from './checkLedger.ts';

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
    async ({ lauta }, { eventId }) => {
      const from = performance.now();
      const check = await checkLedger(lauta.storage.read, eventId);
      return { ...check, tookMs: Math.round(performance.now() - from) } satisfies LedgerCheckView;
    },
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
