import type { WeightSheet } from '../rules/index.ts';
import { isScaleAct, scaleRefusal } from '../scale/index.ts';
import type { WeighInAct } from './acts.ts';
import { ticketState } from './score.ts';
import type { Ticket, WeighIn } from './tickets.ts';
import type { AccountId } from '../ids.ts';

export type WeighInRefusal =
  | 'no-such-ticket'
  | 'no-such-scale'
  | 'entrant-queued'
  | 'bad-count'
  | 'bad-weight'
  | 'tare-over-gross'
  | 'over-capacity'
  | 'not-checked'
  | 'not-weighed'
  | 'same-person'
  | 'not-confirmed'
  | 'reason-wanted'
  | 'big-fish-over-bag'
  | 'empty-signature';

/** A bag of more fish than this is a slip of the finger. Our own choice, as the weight is. */
const MOST_FISH = 60;
const HEAVIEST_BAG_G = 200_000;

/**
 * Why an act is not offered, or refused when it is tried. What arrives all the same is kept and told.
 * @param accountId who does it: where two people are asked for, the same one does not confirm
 */
export function weighInRefusal(
  sheet: WeightSheet,
  weighIn: WeighIn,
  act: WeighInAct,
  accountId: AccountId,
): WeighInRefusal | null {
  if (act.kind === 'undone') return null;
  if (isScaleAct(act)) return scaleRefusal(weighIn.scales, act);
  if (act.kind === 'queued') {
    const { entrantId, dayId } = act;
    const isQueued = weighIn.tickets.some((one) => one.entrantId === entrantId && one.dayId === dayId);
    return isQueued ? 'entrant-queued' : null;
  }
  const ticket = weighIn.tickets.find(({ ticketId }) => ticketId === act.ticketId);
  if (!ticket) return 'no-such-ticket';
  if ('reason' in act && isSigned(ticket) && !act.reason?.trim()) return 'reason-wanted';
  switch (act.kind) {
    case 'called':
      return null;
    case 'checked':
      return areCounts(act.alive, act.dead, act.short) && act.short <= act.alive + act.dead
        ? null
        : 'bad-count';
    case 'weighed': {
      if (!ticket.check) return 'not-checked';
      const scale = act.scaleId === undefined ? undefined : weighIn.scales.get(act.scaleId);
      if (act.scaleId !== undefined && !scale) return 'no-such-scale';
      if (!isBetween(act.grossG, 0, HEAVIEST_BAG_G) || !isBetween(act.tareG, 0, HEAVIEST_BAG_G))
        return 'bad-weight';
      if (scale && act.grossG > scale.kind.capacityG) return 'over-capacity';
      return act.tareG > act.grossG ? 'tare-over-gross' : null;
    }
    case 'big-fish':
      if (!(act.massG > 0 && act.massG <= HEAVIEST_BAG_G)) return 'bad-weight';
      return ticket.weight && act.massG > ticket.weight.grossG - ticket.weight.tareG
        ? 'big-fish-over-bag'
        : null;
    case 'confirmed':
      if (!ticket.weight) return 'not-weighed';
      return ticket.weight.byId === accountId ? 'same-person' : null;
    case 'signed': {
      const state = ticketState(sheet, ticket);
      if (state !== 'confirmed' && state !== 'signed') return ticket.weight ? 'not-confirmed' : 'not-weighed';
      const { signature } = act;
      const isEmpty =
        signature.kind === 'typed'
          ? signature.name.trim() === ''
          : signature.strokes.every((one) => one.length < 4);
      return isEmpty ? 'empty-signature' : null;
    }
    case 'released':
      return areCounts(act.alive, act.died, act.tank) ? null : 'bad-count';
  }
}

const isSigned = ({ signatures }: Ticket): boolean => Object.keys(signatures).length > 0;

const areCounts = (...counts: number[]): boolean =>
  counts.every((one) => Number.isInteger(one) && one >= 0 && one <= MOST_FISH);

const isBetween = (value: number, least: number, most: number): boolean => value >= least && value <= most;
