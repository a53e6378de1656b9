import { inOrder, undoneOf } from '../act-list/index.ts';
import { isScaleAct, takeScaleAct, type Scales } from '../scale/index.ts';
import type { Signature, Signer, TicketAct, WeighInEntry } from './acts.ts';
import type { AccountId, DayId, EntrantId, EntryId, ScaleId, TicketId } from '../ids.ts';

export interface BagCheck {
  alive: number;
  dead: number;
  short: number;
  byId: AccountId;
}

export interface BagWeight {
  /** The entry, so that a confirmation names what it confirms. */
  entryId: EntryId;
  grossG: number;
  tareG: number;
  how: 'typed' | 'scale';
  /** Absent where no scale was described: a printed code of such a ticket says nothing of one. */
  scaleId?: ScaleId;
  byId: AccountId;
}

export interface TicketSignature {
  signature: Signature;
  atMs: number;
}

/** The slip of one bag, as its acts leave it. */
export interface Ticket {
  ticketId: TicketId;
  entrantId: EntrantId;
  dayId: DayId;
  number: number;
  arrivedAtMs: number;
  calledAtMs: number | null;
  check: BagCheck | null;
  weight: BagWeight | null;
  bigFishG: number | null;
  /** Who confirmed the present weight; null while nobody did, or since it was corrected. */
  confirmedById: AccountId | null;
  signatures: Partial<Record<Signer, TicketSignature>>;
  released: { tank: number; alive: number; died: number; atMs: number } | null;
  /** What was changed after it was signed, and why. */
  corrections: { atMs: number; byId: AccountId; what: TicketAct['kind']; reason: string }[];
}

export type WeighInContradiction =
  | 'no-such-ticket'
  | 'ticket-known'
  /** The boat has a bag of that day already; the first one that was weighed counts. */
  | 'entrant-queued-twice'
  | 'not-the-present-weight'
  /** What was signed has been taken back since. */
  | 'signed-what-is-gone';

export interface WeighIn {
  /** In the order of their numbers. */
  tickets: Ticket[];
  /** With their logbooks. */
  scales: Scales;
  contradictions: { entryId: EntryId; why: WeighInContradiction }[];
  undone: Set<string>;
}

/** The weigh-in as the list of its entries leaves it, whatever the order in which they arrived. */
export function weighInOf(entries: readonly WeighInEntry[]): WeighIn {
  const ordered = inOrder(entries);
  const undone = undoneOf(ordered);
  const tickets = new Map<string, Ticket>();
  const scales: Scales = new Map();
  const contradictions: WeighIn['contradictions'] = [];
  // What stood on each ticket at that moment, also what is taken back later: a name stands under what was there then.
  let figures: { ticketId: TicketId; kind: TicketAct['kind']; entryId: EntryId }[] = [];
  for (const entry of ordered) {
    const { act, entryId } = entry;
    if ('reason' in act) figures.push({ ticketId: act.ticketId, kind: act.kind, entryId });
    if (undone.has(entryId)) continue;
    if (act.kind === 'undone') figures = figures.filter((one) => one.entryId !== act.entryId);
    if (act.kind === 'signed') {
      const signed = new Map(
        figures.filter(({ ticketId }) => ticketId === act.ticketId).map((one) => [one.kind, one.entryId]),
      );
      if ([...signed.values()].some((id) => undone.has(id))) {
        contradictions.push({ entryId, why: 'signed-what-is-gone' });
        continue;
      }
    }
    if (act.kind === 'undone') continue;
    if (isScaleAct(act)) {
      takeScaleAct(scales, entry.atMs, act);
      continue;
    }
    const why = take(tickets, entry, act);
    if (why) contradictions.push({ entryId: entry.entryId, why });
  }
  return {
    tickets: [...tickets.values()].sort((a, b) => a.number - b.number || a.arrivedAtMs - b.arrivedAtMs),
    scales,
    contradictions,
    undone,
  };
}

function take(
  tickets: Map<string, Ticket>,
  { entryId, atMs, accountId }: WeighInEntry,
  act: TicketAct,
): WeighInContradiction | null {
  const { ticketId } = act;
  const ticket = tickets.get(ticketId);
  if (act.kind === 'queued') {
    if (ticket) return 'ticket-known';
    const isSecond = [...tickets.values()].some(
      (one) => one.entrantId === act.entrantId && one.dayId === act.dayId,
    );
    tickets.set(ticketId, {
      ticketId,
      entrantId: act.entrantId,
      dayId: act.dayId,
      number: act.number,
      arrivedAtMs: atMs,
      calledAtMs: null,
      check: null,
      weight: null,
      bigFishG: null,
      confirmedById: null,
      signatures: {},
      released: null,
      corrections: [],
    });
    return isSecond ? 'entrant-queued-twice' : null;
  }
  if (!ticket) return 'no-such-ticket';
  switch (act.kind) {
    case 'called':
      ticket.calledAtMs = atMs;
      return null;
    case 'checked': {
      correct(ticket, act, atMs, accountId);
      const { alive, dead, short } = act;
      ticket.check = { alive, dead, short, byId: accountId };
      return null;
    }
    case 'weighed': {
      correct(ticket, act, atMs, accountId);
      const { grossG, tareG, how, scaleId } = act;
      ticket.weight = { entryId, grossG, tareG, how, ...(scaleId === undefined ? {} : { scaleId }), byId: accountId }; // prettier-ignore
      ticket.confirmedById = null;
      return null;
    }
    case 'big-fish':
      correct(ticket, act, atMs, accountId);
      ticket.bigFishG = act.massG;
      return null;
    case 'confirmed':
      if (ticket.weight?.entryId !== act.weighedId) return 'not-the-present-weight';
      ticket.confirmedById = accountId;
      return null;
    case 'signed':
      ticket.signatures = { ...ticket.signatures, [act.signer]: { signature: act.signature, atMs } };
      return null;
    case 'released':
      ticket.released = { tank: act.tank, alive: act.alive, died: act.died, atMs };
      return null;
  }
}

/** A change to a signed ticket is a correction: it is noted, and both sign anew. */
function correct(
  ticket: Ticket,
  act: Extract<TicketAct, { reason: string | null }>,
  atMs: number,
  byId: AccountId,
): void {
  if (Object.keys(ticket.signatures).length === 0) return;
  ticket.corrections.push({ atMs, byId, what: act.kind, reason: act.reason ?? '' });
  ticket.signatures = {};
}

/** Numbers that were given to more than one bag of a day: two stations that did not hear of each other. */
export function doubledNumbers(tickets: readonly Pick<Ticket, 'dayId' | 'number'>[], dayId: DayId): number[] {
  const numbers = tickets.filter((ticket) => ticket.dayId === dayId).map(({ number }) => number);
  return [...new Set(numbers.filter((one, i) => numbers.indexOf(one) !== i))].sort((a, b) => a - b);
}
