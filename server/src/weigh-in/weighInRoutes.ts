import { weighInOf } from '@lauta/core/weigh-in';
import { linesOutOf } from '../event/linesOut.ts';
import { eventScope, idParameter, type Asked, type RouteTable } from '../http/routeTable.ts';
import type { Scope } from '../access/scope.ts';
import { refuse } from '../base/refusal.ts';
import { loadRuleBook } from '../rules/ruleBook.ts';
import type { Stores } from '../storage/storage.ts';
import { sheetOfTicket } from './sheetOfTicket.ts';
import { ticketPdf, type TicketPaper } from './ticketPdf.ts';
import { bagsView, weighInView } from './weighInViews.ts';
import type { EventId, TicketId } from '@lauta/core/ids';

export function addWeighInRoutes(table: RouteTable): void {
  table.allowed(
    'get',
    '/api/events/:eventId/weigh-in',
    'see-weigh-in',
    eventScope,
    ({ lauta }, { eventId }) => weighInView(lauta.storage.read, eventId),
  );
  table.allowed('get', '/api/events/:eventId/bags', 'see-standings', eventScope, ({ lauta }, { eventId }) =>
    bagsView(lauta.storage.read, eventId),
  );
  table.allowed(
    'get',
    '/api/events/:eventId/tickets/:ticketId/ticket.pdf',
    'see-ticket',
    ticketScope,
    async ({ lauta, request, response }, { eventId }) => {
      const paper = await paperOf(lauta.storage.read, eventId, idParameter(request, 'ticketId'));
      response.setHeader('Content-Disposition', `inline; filename="ticket-${paper.ticket.number}.pdf"`);
      response.setHeader('Cache-Control', 'no-store');
      response.type('application/pdf').send(await ticketPdf(paper));
      return undefined;
    },
  );
}

async function ticketScope(asked: Asked): Promise<Scope & { eventId: EventId }> {
  const { eventId } = await eventScope(asked);
  const { ticket } = await paperOf(asked.lauta.storage.read, eventId, idParameter(asked.request, 'ticketId'));
  return { eventId, entrantId: ticket.entrantId };
}

async function paperOf(stores: Stores, eventId: EventId, ticketId: TicketId): Promise<TicketPaper> {
  const event = await stores.events.find(eventId);
  const book = await loadRuleBook(stores, eventId);
  const { entries, people } = await weighInView(stores, eventId);
  const { tickets, scales } = weighInOf(entries);
  const ticket = tickets.find((one) => one.ticketId === ticketId);
  const entrant = ticket && (await stores.people.findEntrant(ticket.entrantId));
  const sheet = ticket && sheetOfTicket(book, ticket);
  if (!event || !sheet || !ticket || !entrant) refuse('not-found', { what: 'ticket' });
  const days = await stores.events.days(eventId);
  const ends = await linesOutOf(stores, eventId);
  return {
    eventName: event.name,
    zone: event.zone,
    dayDate: days.find(({ dayId }) => dayId === ticket.dayId)?.date ?? '',
    entrantName: entrant.name,
    entrantNumber: entrant.number,
    sheet,
    ticket,
    linesOutMs: ends.get(ticket.dayId) ?? Infinity,
    scale: scales.get(ticket.weight?.scaleId ?? '') ?? null,
    people,
    head: await stores.ledger.head(eventId),
  };
}
