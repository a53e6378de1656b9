import type { Response } from 'express';
import type { IdentifierView } from '@lauta/contract';
import { formatPayload, type Identifier } from '@lauta/core/identifier';
import type { Subject } from '@lauta/core/people';
import { entrantScope, eventScope, idParameter, type RouteTable } from '../http/routeTable.ts';
import type { Lauta } from '../context/lauta.ts';
import { refuse } from '../base/refusal.ts';
import { cardSheet } from './cardSheet.ts';
import type { DayId, EntrantId, EventId } from '@lauta/core/ids';

/** Codes of the days, and cards of them to be printed. */
export function addIdentifierRoutes(table: RouteTable): void {
  table.allowed(
    'get',
    '/api/events/:eventId/entrants/:entrantId/identifiers',
    'see-identifier',
    entrantScope,
    async ({ lauta }, { eventId, entrantId }, subject): Promise<IdentifierView[]> => {
      const issued = await identifiersOf(lauta, eventId, entrantId ?? '', subject);
      return issued.map(({ dayId, identifier }) => ({
        dayId,
        code: identifier.code,
        payload: formatPayload(identifier),
      }));
    },
  );

  table.allowed(
    'get',
    '/api/events/:eventId/entrants/:entrantId/identifiers.pdf',
    'see-identifier',
    entrantScope,
    async ({ lauta, response }, { eventId, entrantId }, subject) => {
      const issued = await identifiersOf(lauta, eventId, entrantId ?? '', subject);
      return sendPdf(
        response,
        await cardSheet(
          issued.map(({ identifier }) => identifier),
          'Cards of an entrant',
        ),
      );
    },
  );

  table.allowed(
    'get',
    '/api/events/:eventId/days/:dayId/identifiers.pdf',
    'edit-event',
    eventScope,
    async ({ lauta, request, response }, { eventId }) => {
      const { events, people } = lauta.storage.read;
      const dayId = idParameter(request, 'dayId');
      if (!(await events.days(eventId)).some((day) => day.dayId === dayId))
        refuse('not-found', { what: 'day' });
      const eventCode = (await events.find(eventId))?.eventCode ?? '';
      const entrants = await people.entrantsOf(eventId);
      const issued = await events.identifiersOfDay(dayId);
      const cards = entrants.flatMap(({ entrantId, number }) =>
        issued
          .filter((one) => one.entrantId === entrantId)
          .map(({ code }): Identifier => ({ eventCode, entrantNumber: number, code })),
      );
      return sendPdf(response, await cardSheet(cards, 'Cards of a day'));
    },
  );
}

/** An entrant's codes; those whose time has not come are for directors and judges alone. */
async function identifiersOf(
  { storage, clock }: Lauta,
  eventId: EventId,
  entrantId: EntrantId,
  { roles }: Subject,
): Promise<{ dayId: DayId; identifier: Identifier }[]> {
  const { events, people } = storage.read;
  const now = clock.now();
  const eventCode = (await events.find(eventId))?.eventCode ?? '';
  const entrantNumber = (await people.findEntrant(entrantId))?.number ?? 0;
  const days = await events.days(eventId);
  const issued = await events.identifiersOf(entrantId);
  const seesAll = roles.has('director') || roles.has('judge');
  return issued
    .filter(({ dayId }) => {
      const from = days.find((day) => day.dayId === dayId)?.codesFrom ?? null;
      return seesAll || from === null || from <= now;
    })
    .map(({ dayId, code }) => ({ dayId, identifier: { eventCode, entrantNumber, code } }));
}

function sendPdf(response: Response, pdf: Buffer): undefined {
  response.setHeader('Content-Disposition', 'inline; filename="cards.pdf"');
  response.setHeader('Cache-Control', 'no-store');
  response.type('application/pdf').send(pdf);
}
