import { SHIPPED_BOARDS, faceLengthMm } from '@lauta/vision';
import type { Infraction, LengthSheet } from '@lauta/core/rules';
import { mmFromSteps } from '@lauta/core/units';
import { rollDice, seedFor, type Dice } from '../camera/dice.ts';
import type { PhotoFault } from '../camera/photoFault.ts';
import { DEMO_ANGLERS } from './people.ts';
import type { BoardId, SpeciesId } from '@lauta/core/ids';

export const DEMO_SEED = 4310;

/** Kestrel Mere is invented; its coordinates lie on dry land. */
export const DEMO_EVENT = {
  name: 'Kestrel Mere Board Open',
  zone: 'Europe/Warsaw',
  position: { latitude: 51.052, longitude: 19.018 },
  days: [
    {
      date: '2026-06-13',
      sessions: [{ linesInLocal: '2026-06-13T06:00', linesOutLocal: '2026-06-13T15:00' }],
    },
    {
      date: '2026-06-14',
      sessions: [{ linesInLocal: '2026-06-14T06:00', linesOutLocal: '2026-06-14T15:00' }],
    },
  ],
  /** When people and rules were entered. */
  preparedAt: '2026-06-10T18:00:00Z',
  /** The middle of day two, 12:46 on the mere. */
  now: '2026-06-14T10:46:00Z',
} as const;

const DAYS_START_MS = [Date.parse('2026-06-13T04:00:00Z'), Date.parse('2026-06-14T04:00:00Z')] as const;
const SESSION_MS = 9 * 3_600_000;

export const DEMO_SHEET: LengthSheet = {
  schemaVersion: 1,
  title: 'Kestrel Mere Board Open, length by the quarter inch',
  measure: { kind: 'length', step: 'quarter-inch', rounding: 'down' },
  bagLimit: 5,
  bagPeriod: 'event',
  species: [
    { id: 'largemouth-bass', name: 'Largemouth bass', minimumSteps: 48, counts: true },
    { id: 'smallmouth-bass', name: 'Smallmouth bass', minimumSteps: 48, counts: true },
    { id: 'spotted-bass', name: 'Spotted bass', minimumSteps: 48, counts: true },
    { id: 'walleye', name: 'Walleye', minimumSteps: null, counts: false },
  ],
  boards: ['birch-30in', 'sand-26in'],
  penalties: [
    { infraction: 'mouth-open', penalty: { kind: 'deduction', steps: 1 } },
    { infraction: 'nose-gap', penalty: { kind: 'deduction', steps: 2 } },
    { infraction: 'tail-held', penalty: { kind: 'deduction', steps: 4 } },
    { infraction: 'eye-covered', penalty: { kind: 'deduction', steps: 1 } },
    { infraction: 'facing-right', penalty: { kind: 'deduction', steps: 4 } },
    { infraction: 'hand-in-gills', penalty: { kind: 'disqualification' } },
    { infraction: 'identifier-missing', penalty: { kind: 'disqualification' } },
    { infraction: 'identifier-wrong', penalty: { kind: 'disqualification' } },
  ],
  tieBreaks: ['biggest-fish', 'next-biggest', 'earliest-completion'],
};

export type DemoDecision =
  | { kind: 'accepted'; infractions: Infraction[]; note: string }
  | { kind: 'refused'; infractions: Infraction[]; reason: string }
  | { kind: 'sent-back'; request: string };

/** How a demo photograph came from its capture to the server. */
export type DemoCustody = 'signed' | 'chosen-file' | 'clock-set-back' | 'left-out' | 'closed-area';

export interface DemoCatch {
  index: number;
  /** Place in `DEMO_ANGLERS`. */
  angler: number;
  speciesId: SpeciesId;
  boardId: BoardId;
  lengthMm: number;
  capturedAtMs: number;
  /** When the server heard of it. */
  receivedAtMs: number;
  /** Seed of the photograph. */
  seed: number;
  /** What is wrong with the photograph. */
  fault: PhotoFault | null;
  /** Seed of the earlier photograph whose fish lies here again. */
  fishOf: number | null;
  /** What its device signed. */
  custody: DemoCustody;
  /** Hand-set marks are off by so much. */
  markSigmaPx: number;
  /** Steps claimed over what the reading gives. */
  overclaimSteps: number;
  decision: (DemoDecision & { atMs: number }) | null;
}

/** A UUID of version 7 (RFC 9562) that follows from a seed, a label and an instant. */
export function demoId(label: string, atMs: number): string {
  const dice = rollDice(seedFor(DEMO_SEED, label));
  const hex = (digits: number): string =>
    Array.from({ length: digits }, () => dice.whole(0, 15).toString(16)).join('');
  const time = Math.floor(atMs).toString(16).padStart(12, '0');
  return `${time.slice(0, 8)}-${time.slice(8)}-7${hex(3)}-${'89ab'[dice.whole(0, 3)] ?? '8'}${hex(3)}-${hex(12)}`;
}

const SPECIES_SHARES = [
  'largemouth-bass',
  'largemouth-bass',
  'smallmouth-bass',
  'smallmouth-bass',
  'spotted-bass',
];
const DEMO_ANGLER = 6;

/** The event so far: `count` catches in the order of their capture, most of them decided. Pure: it follows from the seed. */
export function planDemo(count: number): DemoCatch[] {
  const nowMs = Date.parse(DEMO_EVENT.now);
  const dice = rollDice(seedFor(DEMO_SEED, 'catches'));
  const skill = DEMO_ANGLERS.map((_, i) => rollDice(seedFor(DEMO_SEED, `skill ${i}`)).between(0.4, 1));
  const moments = Array.from({ length: count }, (_, i) => drawMoment(dice, i < count * 0.58 ? 0 : 1, nowMs));
  moments.sort((a, b) => a - b);
  const catches = moments.map((capturedAtMs, index) => drawCatch(index, capturedAtMs, dice, skill, nowMs));
  return withOpenQuestions(catches);
}

/** Faults among the catches that no judge has seen yet, one after the other; every third is without. */
const OPEN_FAULTS: readonly PhotoFault[] = ['mouth-open', 'nose-gap', 'identifier-cropped', 'identifier-missing', 'tail-held', 'steep-camera']; // prettier-ignore

/** Doubts about the way of some of them, by their place in a round of eight. */
const OPEN_CUSTODY: Partial<Record<number, DemoCustody>> = { 3: 'clock-set-back', 5: 'closed-area' };

/** Leaves the judge something to find: faulty photographs, fish that were claimed before, clocks that were set. */
function withOpenQuestions(catches: readonly DemoCatch[]): DemoCatch[] {
  const open = catches.filter(({ decision }) => decision === null).map(({ index }) => index);
  return catches.map((caught) => {
    const place = open.indexOf(caught.index);
    if (place < 0) return caught;
    if (place % 8 === 1) return again(caught, catches);
    const custody = OPEN_CUSTODY[place % 8];
    if (custody) return { ...caught, custody };
    const turn = Math.floor(place / 2);
    return place % 2 === 0 ? { ...caught, fault: OPEN_FAULTS[turn % OPEN_FAULTS.length] ?? null } : caught;
  });
}

/** The fish of an accepted catch of the day before, which fits on this board too, claimed once more. */
function again(caught: DemoCatch, catches: readonly DemoCatch[]): DemoCatch {
  const board = SHIPPED_BOARDS.find(({ id }) => id === caught.boardId);
  const former = catches.find(
    (one) =>
      one.index > caught.index % 20 &&
      one.decision?.kind === 'accepted' &&
      one.fault === null &&
      one.angler !== caught.angler &&
      board !== undefined &&
      one.lengthMm < 0.7 * faceLengthMm(board),
  );
  if (!former) return caught;
  return { ...caught, speciesId: former.speciesId, lengthMm: former.lengthMm, fishOf: former.seed };
}

function drawMoment(dice: Dice, day: 0 | 1, nowMs: number): number {
  const end = day === 0 ? SESSION_MS : nowMs - DAYS_START_MS[1] - 4 * 60_000;
  return DAYS_START_MS[day] + Math.floor(dice.between(12 * 60_000, end) / 1000) * 1000;
}

function drawCatch(
  index: number,
  capturedAtMs: number,
  dice: Dice,
  skill: readonly number[],
  nowMs: number,
): DemoCatch {
  const angler = drawAngler(index, dice, skill);
  const board = SHIPPED_BOARDS[angler % 2];
  if (!board) throw new RangeError('boards: expected two or more');
  // A kind that the rules don't count, now and then, so that a bag shows why.
  const speciesId = index % 29 === 17 ? 'walleye' : dice.pick(SPECIES_SHARES);
  const steps = 46 + 34 * (skill[angler] ?? 0.5) * dice.next() ** 0.8 + dice.between(0, 4);
  const lengthMm = Math.min(mmFromSteps(Math.floor(steps), 'quarter-inch') + dice.between(0.6, 5.6), faceLengthMm(board) - 60); // prettier-ignore
  const receivedAtMs = Math.min(capturedAtMs + dice.whole(25, 900) * 1000, nowMs - 30_000);
  const decidedAtMs = receivedAtMs + dice.whole(20, 170) * 60_000;
  return {
    index,
    angler,
    speciesId,
    boardId: board.id,
    lengthMm,
    capturedAtMs,
    receivedAtMs,
    seed: seedFor(DEMO_SEED, `photograph ${index}`),
    fault: faultOf(index),
    fishOf: null,
    custody: index % 11 === 6 ? 'chosen-file' : index % 41 === 30 ? 'left-out' : 'signed',
    markSigmaPx: 0.8,
    overclaimSteps: index % 17 === 5 ? 1 : 0,
    decision: decidedAtMs < nowMs - 5 * 60_000 ? { ...drawDecision(index), atMs: decidedAtMs } : null,
  };
}

function drawAngler(index: number, dice: Dice, skill: readonly number[]): number {
  if (index % 15 === 4) return DEMO_ANGLER;
  // The better ones are drawn more often.
  for (;;) {
    const drawn = dice.whole(0, DEMO_ANGLERS.length - 1);
    if (dice.chance(skill[drawn] ?? 0.5)) return drawn;
  }
}

/** What a decided photograph shows wrong: what the judge has said of it. */
function faultOf(index: number): PhotoFault | null {
  const decision = drawDecision(index);
  if (decision.kind === 'sent-back') return null;
  return (decision.infractions[0] as PhotoFault | undefined) ?? null;
}

/** What the judge said, by the catch's number: most are clear, and each kind of verdict is there to be seen. */
function drawDecision(index: number): DemoDecision {
  if (index % 31 === 11) {
    return { kind: 'refused', infractions: ['identifier-missing'], reason: 'No card in the picture.' };
  }
  if (index % 37 === 19) {
    return { kind: 'sent-back', request: 'The lines at the tail are hard to see: another frame, please.' };
  }
  if (index % 9 === 3) return { kind: 'accepted', infractions: ['mouth-open'], note: 'Jaws a little apart.' };
  if (index % 23 === 7) return { kind: 'accepted', infractions: ['eye-covered'], note: '' };
  return { kind: 'accepted', infractions: [], note: '' };
}
