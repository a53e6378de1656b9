import type { StreamEvent } from '@lauta/contract';
import { eventScope, type RouteTable } from '../http/routeTable.ts';
import { refuse } from '../base/refusal.ts';

const HEARTBEAT_MS = 15_000;

/** Server-sent events (WHATWG HTML, 9.2): one message for each growth of the ledger, its place as the message's id. */
/** A browser holds one stream for all its tabs; a club's room is behind one address. */
const MOST_STREAMS = { account: 30, address: 400 };

export function addStreamRoutes(table: RouteTable): void {
  const open = new Map<string, number>();
  const count = (key: string, by: number): number => {
    const now = (open.get(key) ?? 0) + by;
    if (now > 0) open.set(key, now);
    else open.delete(key);
    return now;
  };

  table.allowed(
    'get',
    '/api/events/:eventId/stream',
    'see-standings',
    eventScope,
    async ({ lauta, request, response, account }, { eventId }) => {
      const holders = [`address ${request.ip ?? ''}`, ...(account ? [`account ${account.accountId}`] : [])];
      const isOver = (key: string): boolean =>
        (open.get(key) ?? 0) >= MOST_STREAMS[key.startsWith('account') ? 'account' : 'address'];
      if (holders.some(isOver)) refuse('too-many-tries');
      for (const key of holders) count(key, 1);
      response.writeHead(200, {
        'Content-Type': 'text/event-stream',
        'Cache-Control': 'no-store',
        'X-Accel-Buffering': 'no',
      });
      const send = (event: StreamEvent): void => {
        response.write(`id: ${event.seq}\ndata: ${JSON.stringify(event)}\n\n`);
      };
      const unsubscribe = lauta.hub.subscribe(eventId, send);
      const undrop = account ? lauta.hub.onDrop(account.accountId, () => response.end()) : () => undefined;
      const heartbeat = setInterval(() => response.write(': still here\n\n'), HEARTBEAT_MS);
      response.on('close', () => {
        clearInterval(heartbeat);
        unsubscribe();
        undrop();
        for (const key of holders) count(key, -1);
      });
      response.write('retry: 1500\n\n');
      // What grew while nobody listened: one message with the newest place is enough to ask again.
      const head = await lauta.storage.read.ledger.head(eventId);
      const seen = Number(request.headers['last-event-id'] ?? request.query['after'] ?? -1);
      if (head && head.seq !== seen) {
        const { seq, hash, signature, signedBy } = head;
        send({ eventId, seq, kind: 'catch-up', hash, ...(signature ? { signature, signedBy } : {}) });
      }
      return undefined;
    },
  );
}
