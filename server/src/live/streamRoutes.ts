import type { StreamEvent } from '@lauta/contract';
import { eventScope, type RouteTable } from '../http/routeTable.ts';

const HEARTBEAT_MS = 15_000;

/** Server-sent events (WHATWG HTML, 9.2): one message for each growth of the ledger, its place as the message's id. */
export function addStreamRoutes(table: RouteTable): void {
  table.allowed(
    'get',
    '/api/events/:eventId/stream',
    'see-standings',
    eventScope,
    async ({ lauta, request, response }, { eventId }) => {
      response.writeHead(200, {
        'Content-Type': 'text/event-stream',
        'Cache-Control': 'no-store',
        'X-Accel-Buffering': 'no',
      });
      const send = (event: StreamEvent): void => {
        response.write(`id: ${event.seq}\ndata: ${JSON.stringify(event)}\n\n`);
      };
      const unsubscribe = lauta.hub.subscribe(eventId, send);
      const heartbeat = setInterval(() => response.write(': still here\n\n'), HEARTBEAT_MS);
      response.on('close', () => {
        clearInterval(heartbeat);
        unsubscribe();
      });
      response.write('retry: 1500\n\n');
      // What grew while nobody listened: one message with the newest place is enough to ask again.
      const head = await lauta.storage.read.ledger.head(eventId);
      const seen = Number(request.headers['last-event-id'] ?? request.query['after'] ?? -1);
      if (head && head.seq !== seen) send({ eventId, seq: head.seq, kind: 'catch-up' });
      return undefined;
    },
  );
}
