import type { StandingsView } from '@lauta/contract';
import type { Standing } from '@lauta/core/scoring';
import { formatSteps } from '@lauta/core/units';
import {
  eventScope,
  isFound,
  pageAsked,
  searchAsked,
  type Asked,
  type RouteTable,
} from '../http/routeTable.ts';
import { csvAnswer } from '../http/csvAnswer.ts';
import { refuse } from '../base/refusal.ts';
import { standingsMemory, type Standings, type StandingsQuestion } from './standings.ts';
import type { EventId } from '@lauta/core/ids';

export function addStandingsRoutes(table: RouteTable): void {
  const standingsOf = standingsMemory();

  table.allowed(
    'get',
    '/api/events/:eventId/standings',
    'see-standings',
    eventScope,
    async (asked, { eventId }) => {
      const question = await questionOf(asked, eventId);
      const { seq, ruleVersion, entrants, standings, onWater } = await standingsOf(
        asked.lauta.storage.read,
        eventId,
        question,
      );
      const { page, pageSize, offset } = pageAsked(asked.request, 50, 200);
      const search = searchAsked(asked.request);
      const found = new Map(
        entrants.filter((one) => isFound(one, search)).map((one) => [one.entrantId, one]),
      );
      const listed = standings.filter((standing) => found.has(standing.entrantId));
      const shown = listed.slice(offset, offset + pageSize);
      return {
        eventId,
        seq,
        ruleVersion,
        ...question,
        page,
        pageSize,
        total: listed.length,
        longestSteps: standings[0]?.score.steps ?? 0,
        names: Object.fromEntries(entrants.map((one) => [one.entrantId, one.name])),
        entrants: shown.flatMap((standing) => found.get(standing.entrantId) ?? []),
        standings: shown,
        onWater: onWater.filter(({ entrantId }) => shown.some((one) => one.entrantId === entrantId)),
      } satisfies StandingsView;
    },
  );

  table.allowed(
    'get',
    '/api/events/:eventId/standings.csv',
    'see-standings',
    eventScope,
    async (asked, { eventId }) => {
      const standings = await standingsOf(
        asked.lauta.storage.read,
        eventId,
        await questionOf(asked, eventId),
      );
      return csvAnswer(asked.response, 'standings', standingsRows(standings));
    },
  );
}

async function questionOf({ lauta, request }: Asked, eventId: EventId): Promise<StandingsQuestion> {
  const { include } = request.query;
  const dayId = request.query['dayId'];
  // A day that the event does not have would be computed and kept for nobody.
  if (typeof dayId === 'string' && dayId !== '') {
    const days = await lauta.storage.read.events.days(eventId);
    if (!days.some((day) => day.dayId === dayId)) refuse('not-found', { what: 'day' });
  }
  return {
    include: include === 'official' ? 'official' : 'all',
    dayId: typeof dayId === 'string' && dayId !== '' ? dayId : null,
  };
}

/** The fish that make up a total, or the days' bags where weight counts. */
function partsOf(standing: Standing): number[] {
  return standing.kind === 'tickets'
    ? standing.tickets.map(({ score }) => score.totalSteps)
    : standing.bag.counting.map((fish) => fish.scoreSteps);
}

function standingsRows({ entrants, standings }: Standings): object[] {
  const known = new Map(entrants.map((one) => [one.entrantId, one]));
  return standings.map((standing) => {
    const { entrantId, rank, score, provisionalSteps } = standing;
    return {
      rank,
      number: known.get(entrantId)?.number,
      entrant: known.get(entrantId)?.name,
      total: formatSteps(score.steps, score.measure),
      undecided: formatSteps(provisionalSteps, score.measure),
      measure: score.measure,
      fish: partsOf(standing)
        .map((steps) => formatSteps(steps, score.measure))
        .join(' '),
    };
  });
}
