import type { CatchSummary } from '@lauta/contract';
import { formatMeasured, formatSteps, isMassStep, LENGTH_STEPS } from '@lauta/core/units';
import { csvAnswer } from '../http/csvAnswer.ts';
import type { Asked } from '../http/routeTable.ts';
import { loadRuleBook } from '../rules/ruleBook.ts';
import { listCatches } from './catchViews.ts';
import type { EntrantId, EventId } from '@lauta/core/ids';

const MOST_ROWS = 100_000;

/** Catches as rows, in the event's own step. */
export async function catchesCsv(
  { lauta, response }: Asked,
  eventId: EventId,
  entrantIds: readonly EntrantId[] | null,
): Promise<undefined> {
  const stores = lauta.storage.read;
  const { items } = await listCatches(stores, eventId, {
    ...(entrantIds ? { entrantIds } : {}),
    order: 'oldest',
    offset: 0,
    limit: MOST_ROWS,
  });
  const step = (await loadRuleBook(stores, eventId))?.current.measure.step ?? 'millimetre';
  const unit = isMassStep(step) ? 'mm' : LENGTH_STEPS[step].unit;
  const row = (one: CatchSummary) => ({
    catch: one.catchId,
    number: one.entrant.number,
    entrant: one.entrant.name,
    species: one.speciesId,
    captured: one.capturedAt,
    received: one.receivedAt,
    claimed: formatSteps(one.claimedSteps, step),
    read: one.readMm === null ? '' : formatMeasured(one.readMm, unit),
    unit,
    state: one.state,
    marks: one.marks.join(' '),
    infractions: one.infractions.join(' '),
    deducted: formatSteps(one.deductionSteps, step),
    scores: one.notCounting === null ? formatSteps(one.scoreSteps, step) : '0',
    'not counting': one.notCounting ?? '',
  });
  return csvAnswer(response, 'catches', items.map(row));
}
