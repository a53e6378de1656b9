import type { Comparison } from '@lauta/core/cull';
import type { WeightSheet } from '@lauta/core/rules';
import { G_PER_OUNCE, MM_PER_INCH } from '@lauta/core/units';
import type { WellAct, WellEntry } from '@lauta/core/well';
import type { WeighInAct } from '@lauta/core/weigh-in';
import { rollDice, seedFor, type Dice } from '../camera/dice.ts';
import { SCALE_KINDS, kindOfClass, type ScaleAct } from '@lauta/core/scale';
import { BEAM, buildScale, hangOnBeam } from '../scale/index.ts';
import { DEMO_EVENT, DEMO_SEED, demoId } from './scenario.ts';
import type { DayId, EntrantId, EntryId, TicketId } from '@lauta/core/ids';
import { isSmallMouthed } from '@lauta/core/species';

/** Boats on the same mere and the same days, by weight. */
export const BOAT_CUP = { ...DEMO_EVENT, name: 'Kestrel Mere Boat Cup', boats: 12 } as const;

export const BOAT_CUP_SHEET: WeightSheet = {
  schemaVersion: 1,
  title: 'Kestrel Mere Boat Cup, weight in pounds and ounces',
  measure: { kind: 'weight', step: 'ounce', rounding: 'down' },
  bagLimit: 5,
  bagPeriod: 'day',
  species: [
    {
      id: 'largemouth-bass',
      name: 'Largemouth bass',
      minimumSteps: null,
      counts: true,
      minimumLength: { step: 'quarter-inch', steps: 48 },
    },
    {
      id: 'smallmouth-bass',
      name: 'Smallmouth bass',
      minimumSteps: null,
      counts: true,
      limit: 3,
      minimumLength: { step: 'quarter-inch', steps: 48 },
    },
    {
      id: 'spotted-bass',
      name: 'Spotted bass',
      minimumSteps: null,
      counts: true,
      minimumLength: { step: 'quarter-inch', steps: 48 },
    },
    { id: 'walleye', name: 'Walleye', minimumSteps: null, counts: false },
  ],
  boards: [],
  penalties: [],
  weighIn: {
    deadFish: { kind: 'deduction', steps: 4 },
    shortFish: { kind: 'not-counted', steps: 16 },
    overLimit: { penalty: { kind: 'not-counted', steps: 16 }, takenOut: 'largest' },
    late: { graceMinutes: 0, stepsPerMinute: 16, refusedAfterMinutes: 15 },
    deadMayBeCulled: false,
    twoPeople: true,
  },
  tieBreaks: ['biggest-fish', 'more-alive'],
};

/** The fish of the demo's angler this morning: kind, length in quarter inches, weight in ounces, minutes after lines-in. */
const MORNING = [
  { speciesId: 'largemouth-bass', steps: 54, ounces: 17.6, minute: 22 },
  { speciesId: 'smallmouth-bass', steps: 61, ounces: 29.3, minute: 61 },
  { speciesId: 'largemouth-bass', steps: 58, ounces: 24.1, minute: 95 },
  { speciesId: 'largemouth-bass', steps: 66, ounces: 38.4, minute: 140 },
  { speciesId: 'spotted-bass', steps: 57, ounces: 24.6, minute: 188 },
  { speciesId: 'largemouth-bass', steps: 63, ounces: 32.2, minute: 247 },
  { speciesId: 'largemouth-bass', steps: 59, ounces: 26.8, minute: 331 },
] as const;

const LINES_IN_MS = Date.parse('2026-06-14T04:00:00Z');
const MINUTE_MS = 60_000;
const SCALE_ID = 'hanging-scale';

type Enter = (minute: number, act: WellAct) => void;

/** Before the day: tags, compartments, and the scale tried with nothing, with a kilogram and three times over. */
function setUpWell(enter: Enter, show: (massG: number, minute: number) => number): void {
  enter(-40, {
    kind: 'set-up',
    settings: {
      tags: [1, 2, 3, 4, 5].map((number) => ({ tagId: `tag-${number}`, number, colour: 'yellow' })),
      spare: { tagId: 'spare', number: 6, colour: 'orange' },
      tagKind: 'clip',
      compartments: 2,
    },
  });
  enter(-38, { kind: 'scale', scaleId: SCALE_ID, name: 'Hanging scale', scale: SCALE_KINDS.usual });
  enter(-37, { kind: 'scale-check', scaleId: SCALE_ID, trueG: 0, readG: show(0, -37) });
  enter(-36, { kind: 'scale-check', scaleId: SCALE_ID, trueG: 1000, readG: show(1000, -36) });
  enter(-35, { kind: 'scale-repeat', scaleId: SCALE_ID, readG: [-35.2, -35.1, -35].map((minute) => show(1360, minute)) }); // prettier-ignore
}

/** The well of the demo's angler so far: five aboard, two culled, one of them after the beam. Pure: it follows from the seed. */
export function planWell(): WellEntry[] {
  const dice = rollDice(seedFor(DEMO_SEED, 'well'));
  const scale = buildScale(SCALE_KINDS.usual, dice);
  const entries: WellEntry[] = [];
  const enter: Enter = (minute, act) => {
    const atMs = LINES_IN_MS + Math.round(minute * MINUTE_MS);
    entries.push({ entryId: demoId(`well ${entries.length}`, atMs), atMs, act });
  };
  const show = (massG: number, minute: number): number => Math.round(100 * scale.show(massG, LINES_IN_MS + minute * MINUTE_MS)) / 100; // prettier-ignore
  const fishIds = MORNING.map((_, i) => demoId(`well fish ${i}`, LINES_IN_MS + i));
  setUpWell(enter, show);
  let aboard: number[] = [];
  const tagOf = new Map<number, string>();
  for (const [i, fish] of MORNING.entries()) {
    const fishId = fishIds[i] ?? '';
    const isFragile = isSmallMouthed(fish.speciesId);
    const free = [1, 2, 3, 4, 5].map((n) => `tag-${n}`).find((tag) => ![...tagOf.values()].includes(tag));
    enter(fish.minute, {
      kind: 'fish-in',
      fishId,
      speciesId: fish.speciesId,
      lengthMm: (fish.steps * MM_PER_INCH) / 4 + 2,
      condition: i === 4 ? 'bleeding' : 'lively',
      compartment: isFragile || i === 4 ? 2 : 1,
      tagId: free ?? 'spare',
      tagPlace: isFragile || i === 4 ? 'loose' : 'on',
    });
    const readG = show(fish.ounces * G_PER_OUNCE, fish.minute + 0.6);
    enter(fish.minute + 0.6, {
      kind: 'weighed',
      fishId,
      scaleId: SCALE_ID,
      readG,
      how: 'typed',
      airSeconds: 6,
    });
    aboard.push(i);
    if (free) {
      tagOf.set(i, free);
      continue;
    }
    const lightest = aboard.toSorted((a, b) => weightOf(a) - weightOf(b));
    const [least = 0, next = 0] = lightest;
    if (weightOf(next) - weightOf(least) < 4 * G_PER_OUNCE) {
      const outcome: Comparison['outcome'] = hangOnBeam(BEAM, weightOf(least), weightOf(next), dice);
      enter(fish.minute + 1.5, { kind: 'compared', leftId: fishIds[least] ?? '', rightId: fishIds[next] ?? '', outcome, hangingSeconds: 9 }); // prettier-ignore
    }
    enter(fish.minute + 2, { kind: 'released', fishId: fishIds[least] ?? '', reason: 'cull', airSeconds: 4 });
    const tagId = tagOf.get(least) ?? null;
    tagOf.delete(least);
    tagOf.set(i, tagId ?? '');
    enter(fish.minute + 2.5, { kind: 'tagged', fishId, tagId, tagPlace: 'on' });
    aboard = aboard.filter((one) => one !== least);
  }
  for (const [k, i] of aboard.entries()) {
    enter(386 + k / 4, {
      kind: 'looked',
      fishId: fishIds[i] ?? '',
      condition: i === 4 ? 'hurt' : 'lively',
      signs: i === 4 ? ['bleeds'] : [],
    });
  }
  return entries.sort((a, b) => a.atMs - b.atMs);
}

const weightOf = (i: number): number => (MORNING[i]?.ounces ?? 0) * G_PER_OUNCE;

/** A bag of the first day, from its arrival to its fish in the tank. */
export interface PlannedBag {
  boat: number;
  ticketId: TicketId;
  /** Of the weigh master, but for the confirmation. */
  acts: { entryId: EntryId; atMs: number; act: WeighInAct; isConfirmation: boolean }[];
}

const DAY_ONE_OUT_MS = Date.parse('2026-06-13T13:00:00Z');
const BENCH_SCALE_ID = 'bench-scale';
const BENCH_SCALE = kindOfClass('III', 5, 15_000);

/** The bench scale before the first bag: its plate, its zero, two known weights. */
export function planBenchScale(): { entryId: EntryId; atMs: number; act: ScaleAct }[] {
  const acts: ScaleAct[] = [
    { kind: 'scale', scaleId: BENCH_SCALE_ID, name: 'Bench scale', scale: BENCH_SCALE, accuracyClass: 'III' },
    { kind: 'scale-check', scaleId: BENCH_SCALE_ID, trueG: 0, readG: 0 },
    { kind: 'scale-check', scaleId: BENCH_SCALE_ID, trueG: 2000, readG: 2000 },
    { kind: 'scale-check', scaleId: BENCH_SCALE_ID, trueG: 5000, readG: 4995 },
  ];
  return acts.map((act, i) => {
    const atMs = DAY_ONE_OUT_MS - (60 - 2 * i) * MINUTE_MS;
    return { entryId: demoId(`bench scale ${i}`, atMs), atMs, act };
  });
}

/** The weigh-in of day one: every boat, one of them late, three dead fish among all. Pure: it follows from the seed. */
export function planWeighIn(dayId: DayId, entrantIds: readonly EntrantId[]): PlannedBag[] {
  const dice = rollDice(seedFor(DEMO_SEED, 'weigh-in'));
  const order = entrantIds.map((_, boat) => boat).sort((a, b) => ((a * 7) % 12) - ((b * 7) % 12));
  return order.map((boat, i): PlannedBag => {
    const arrivedMs = DAY_ONE_OUT_MS + Math.round((i - 10.4) * 2.1 * MINUTE_MS);
    const ticketId = demoId(`ticket ${boat}`, arrivedMs);
    const count = dice.chance(0.75) ? 5 : dice.whole(2, 4);
    const dead = i === 3 || i === 8 ? 1 : 0;
    const weights = Array.from({ length: count }, () => 380 + 1150 * dice.next() ** 1.4);
    const tareG = 420 + 10 * dice.whole(0, 6);
    const grossG = Math.round(weights.reduce((sum, one) => sum + one, 0) / 5) * 5 + tareG;
    const acts: PlannedBag['acts'] = [];
    const add = (seconds: number, act: WeighInAct, isConfirmation = false): string => {
      const atMs = arrivedMs + Math.round(seconds * 1000);
      const entryId = demoId(`weigh-in ${boat} ${acts.length}`, atMs);
      acts.push({ entryId, atMs, act, isConfirmation });
      return entryId;
    };
    const waits = 150 + 20 * i;
    add(0, { kind: 'queued', ticketId, entrantId: entrantIds[boat] ?? '', dayId, number: i + 1 });
    add(waits, { kind: 'called', ticketId });
    add(waits + 40, { kind: 'checked', ticketId, alive: count - dead, dead, short: 0, reason: null });
    const weighedId = add(waits + 60, {
      kind: 'weighed',
      ticketId,
      grossG,
      tareG,
      how: 'scale',
      scaleId: BENCH_SCALE_ID,
      reason: null,
    });
    add(waits + 75, {
      kind: 'big-fish',
      ticketId,
      massG: Math.round(Math.max(...weights) / 5) * 5,
      reason: null,
    });
    add(waits + 85, { kind: 'confirmed', ticketId, weighedId }, true);
    for (const signer of ['angler', 'weigh-master'] as const) {
      const signature = { kind: 'drawn' as const, strokes: scrawl(dice) };
      add(waits + (signer === 'angler' ? 95 : 102), { kind: 'signed', ticketId, signer, signature });
    }
    add(waits + 160, { kind: 'released', ticketId, tank: 1 + (i % 2), alive: count - dead, died: dead });
    return { boat, ticketId, acts };
  });
}

/** A name as a finger draws it on glass: nobody's. */
function scrawl({ between, whole }: Dice): number[][] {
  return Array.from({ length: whole(1, 3) }, (_, line) => {
    const from = 0.08 + 0.28 * line;
    return Array.from({ length: whole(5, 9) }, (_, i) => [
      Math.round(1000 * (from + 0.045 * i)) / 1000,
      Math.round(1000 * between(0.25, 0.8)) / 1000,
    ]).flat();
  });
}
