import type { Comparison } from '@lauta/core/cull';
import type { WeightSheet } from '@lauta/core/rules';
import { G_PER_OUNCE, MM_PER_INCH } from '@lauta/core/units';
import type { WellAct, WellEntry } from '@lauta/core/well';
import { rollDice, seedFor } from '../camera/dice.ts';
import { SCALE_KINDS } from '@lauta/core/scale';
import { BEAM, buildScale, hangOnBeam } from '../scale/index.ts';
import { DEMO_EVENT, DEMO_SEED, demoId } from './scenario.ts';

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

/** The well of the demo's angler so far: five aboard, two culled, one of them after the beam. Pure: it follows from the seed. */
export function planWell(): WellEntry[] {
  const dice = rollDice(seedFor(DEMO_SEED, 'well'));
  const scale = buildScale(SCALE_KINDS.usual, dice);
  const entries: WellEntry[] = [];
  const enter = (minute: number, act: WellAct): void => {
    const atMs = LINES_IN_MS + Math.round(minute * MINUTE_MS);
    entries.push({ entryId: demoId(`well ${entries.length}`, atMs), atMs, act });
  };
  const show = (massG: number, minute: number): number => Math.round(100 * scale.show(massG, LINES_IN_MS + minute * MINUTE_MS)) / 100; // prettier-ignore
  const fishIds = MORNING.map((_, i) => demoId(`well fish ${i}`, LINES_IN_MS + i));
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
  let aboard: number[] = [];
  const tagOf = new Map<number, string>();
  for (const [i, fish] of MORNING.entries()) {
    const fishId = fishIds[i] ?? '';
    const isSmallMouthed = fish.speciesId === 'smallmouth-bass';
    const free = [1, 2, 3, 4, 5].map((n) => `tag-${n}`).find((tag) => ![...tagOf.values()].includes(tag));
    enter(fish.minute, {
      kind: 'fish-in',
      fishId,
      speciesId: fish.speciesId,
      lengthMm: (fish.steps * MM_PER_INCH) / 4 + 2,
      condition: i === 4 ? 'bleeding' : 'lively',
      compartment: isSmallMouthed || i === 4 ? 2 : 1,
      tagId: free ?? 'spare',
      tagPlace: isSmallMouthed || i === 4 ? 'loose' : 'on',
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
