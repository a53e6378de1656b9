import type { FishPenalty, WeightSheet } from '../rules/index.ts';
import { stepsFromG } from '../units/index.ts';
import type { Ticket } from './tickets.ts';

export type TicketPenaltyKind = 'dead' | 'short' | 'over-limit' | 'late';

export interface TicketPenalty {
  kind: TicketPenaltyKind;
  /** Fish, or minutes begun. */
  count: number;
  steps: number;
  disqualifies: boolean;
}

export interface TicketScore {
  /** Gross less tare, in the event's steps; null while it is not weighed. */
  netSteps: number | null;
  penalties: TicketPenalty[];
  /** Never under zero; zero where the bag is disqualified or not weighed. */
  totalSteps: number;
  isDisqualified: boolean;
  bigFishSteps: number | null;
  alive: number;
  /** Fish that should be in the bag when it is weighed. */
  fishWeighed: number | null;
  /** Fish that leave the bag before it is weighed. */
  takenOut: number;
  lateMinutes: number;
}

const MS_PER_MINUTE = 60_000;

/**
 * What a bag is worth under a sheet. Fish that are not counted (short, over the limit, and dead ones where the sheet says
 * so) are out of the bag before it is weighed, so that their penalty is all that is left of them.
 * @param linesOutMs the end of the day's last session, ms since 1970
 */
export function scoreTicket(sheet: WeightSheet, ticket: Ticket, linesOutMs: number): TicketScore {
  const { weighIn, measure } = sheet;
  if (!weighIn) throw new RangeError('weighIn: expected the rules of the scale, got none');
  const { check, weight } = ticket;
  const { alive = 0, dead = 0, short = 0 } = check ?? {};
  const legal = alive + dead - short;
  const deadOut = weighIn.deadFish.kind === 'not-counted' ? dead : 0;
  const over = Math.max(0, legal - deadOut - sheet.bagLimit);
  const late = latePenalty(sheet, ticket.arrivedAtMs, linesOutMs);
  const penalties = [
    ...penaltyOf('dead', dead, weighIn.deadFish),
    ...penaltyOf('short', short, weighIn.shortFish),
    ...penaltyOf('over-limit', over, weighIn.overLimit.penalty),
    ...(late ? [late] : []),
  ];
  const netSteps =
    weight === null
      ? null
      : stepsFromG(Math.max(0, weight.grossG - weight.tareG), measure.step, measure.rounding);
  const isDisqualified = penalties.some(({ disqualifies }) => disqualifies);
  const deducted = penalties.reduce((sum, { steps }) => sum + steps, 0);
  const takenOut = short + deadOut + over;
  return {
    netSteps,
    penalties,
    totalSteps: isDisqualified ? 0 : Math.max(0, (netSteps ?? 0) - deducted),
    isDisqualified,
    bigFishSteps:
      ticket.bigFishG === null ? null : stepsFromG(ticket.bigFishG, measure.step, measure.rounding),
    alive,
    fishWeighed: check ? alive + dead - takenOut : null,
    takenOut,
    lateMinutes: minutesLate(ticket.arrivedAtMs, linesOutMs),
  };
}

function penaltyOf(kind: TicketPenaltyKind, count: number, penalty: FishPenalty): TicketPenalty[] {
  if (count === 0) return [];
  const disqualifies = penalty.kind === 'disqualification';
  return [{ kind, count, steps: disqualifies ? 0 : count * penalty.steps, disqualifies }];
}

/** Minutes begun since lines-out; none at the very instant. */
export function minutesLate(arrivedAtMs: number, linesOutMs: number): number {
  return Math.max(0, Math.ceil((arrivedAtMs - linesOutMs) / MS_PER_MINUTE));
}

function latePenalty(
  { weighIn }: WeightSheet,
  arrivedAtMs: number,
  linesOutMs: number,
): TicketPenalty | null {
  const late = minutesLate(arrivedAtMs, linesOutMs);
  if (!weighIn || late === 0) return null;
  const { graceMinutes, stepsPerMinute, refusedAfterMinutes } = weighIn.late;
  if (refusedAfterMinutes !== null && late > refusedAfterMinutes)
    return { kind: 'late', count: late, steps: 0, disqualifies: true };
  const counted = Math.max(0, late - graceMinutes);
  return counted === 0
    ? null
    : { kind: 'late', count: counted, steps: counted * stepsPerMinute, disqualifies: false };
}

export const TICKET_STATES = ['waiting', 'called', 'checked', 'weighed', 'confirmed', 'signed'] as const;
/** How far a bag is. It counts once it is weighed, and officially once it is signed. */
export type TicketState = (typeof TICKET_STATES)[number];

export function ticketState(sheet: WeightSheet, ticket: Ticket): TicketState {
  const { signatures, check, weight, confirmedById, calledAtMs } = ticket;
  if (check && weight) {
    const isConfirmed =
      !sheet.weighIn?.twoPeople || (confirmedById !== null && confirmedById !== weight.byId);
    if (!isConfirmed) return 'weighed';
    return signatures.angler && signatures['weigh-master'] ? 'signed' : 'confirmed';
  }
  if (check) return 'checked';
  return calledAtMs === null ? 'waiting' : 'called';
}
