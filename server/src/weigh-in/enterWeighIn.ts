import type { CommandContext, Handler } from '../command/commandContext.ts';
import { refuseIfOfficial } from '../event/declareResults.ts';
import type { WeighInAct, WeighInEntry } from '@lauta/core/weigh-in';
import { ownEntrantIds, requireMay } from '../access/scope.ts';
import { refuse } from '../base/refusal.ts';
import type { EventId } from '@lauta/core/ids';

const OFFICIAL_ACTS: ReadonlySet<WeighInAct['kind']> = new Set(['checked', 'weighed', 'big-fish', 'confirmed', 'signed']); // prettier-ignore

/**
 * Keeps what was done at the scale, under the name of whoever sends it. What does not fit together is kept too and told
 * by the core. Figures stand in the ledger as they are; signatures and reasons only as salted commitments.
 */
export const enterWeighIn: Handler<'weigh-in.enter'> = async (
  { stores, asker, accountId, now, commit },
  { entries },
  { eventId },
) => {
  await requireMay(stores, asker, 'weigh', { eventId });
  await refuseIfOfficial({ stores }, eventId);
  const own = await ownTickets({ stores, asker }, eventId, entries);
  const days = new Set((await stores.events.days(eventId)).map(({ dayId }) => dayId));
  const kept: WeighInEntry[] = [];
  for (const { entryId, atMs, act } of entries) {
    if (await stores.weighIns.find(entryId)) refuse('entry-exists', { entryId });
    if (act.kind === 'queued') {
      const entrant = await stores.people.findEntrant(act.entrantId);
      if (entrant?.eventId !== eventId) refuse('not-found', { what: 'entrant' });
      if (!days.has(act.dayId)) refuse('not-found', { what: 'day' });
    }
    // Whoever fishes lets another official weigh the own bag, as a judge leaves the own catch to another.
    if (OFFICIAL_ACTS.has(act.kind) && 'ticketId' in act && own.has(act.ticketId))
      refuse('own-bag', { ticketId: act.ticketId });
    kept.push({ entryId, atMs, accountId, act });
  }
  await stores.weighIns.add(eventId, kept, now);
  return {
    body: {
      entries: kept.map(({ entryId, atMs, act }) => ({
        entryId,
        atMs,
        act: openPart(act),
        content: commit(`weigh-${entryId}`, { entryId, atMs, accountId, act }),
      })),
    },
    result: { entered: kept.length },
  };
};

/** An act without what belongs to a person: how a name is drawn, and what was said of a correction. */
function openPart(act: WeighInAct): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(act).filter(([field]) => field !== 'signature' && field !== 'reason'),
  );
}

/** Tickets of the asker's own boats: those that are queued already, and those that the entries queue. */
async function ownTickets(
  { stores, asker }: Pick<CommandContext, 'stores' | 'asker'>,
  eventId: EventId,
  entries: readonly { act: WeighInAct }[],
): Promise<ReadonlySet<string>> {
  const entrantIds = await ownEntrantIds(stores, asker, eventId);
  if (entrantIds.length === 0) return new Set();
  const acts = [...(await stores.weighIns.ofEvent(eventId)), ...entries].map(({ act }) => act);
  return new Set(
    acts.flatMap((act) =>
      act.kind === 'queued' && entrantIds.includes(act.entrantId) ? [act.ticketId] : [],
    ),
  );
}
