import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exampleSheet, weightSheet } from '../rules/exampleSheet.test-data.ts';
import type { ScaleKind } from '../scale/index.ts';
import { G_PER_OUNCE, G_PER_POUND, MM_PER_INCH } from '../units/index.ts';
import {
  gains,
  slotWorths,
  inOrder,
  liveWellOf,
  minutesUnseen,
  refusalOf,
  tagPlaceFor,
  tagRecords,
  totalSteps,
  waterTotalG,
  wellOutlook,
  wellTroubles,
  type LiveWell,
  type WellAct,
  type WellEntry,
  type WellMoment,
} from './index.ts';

const SCALE: ScaleKind = {
  divisionG: 1,
  capacityG: 20_000,
  repeatabilityG: 3,
  gainSigma: 0,
  zeroSigmaG: 0,
  driftGPerRootHour: 0,
};
const MINUTE = 60_000;

let serial = 0;
function entry(act: WellAct, atMs?: number): WellEntry {
  serial += 1;
  return { entryId: `entry-${String(serial).padStart(6, '0')}`, atMs: atMs ?? serial * MINUTE, act };
}
const fishIn = (fishId: string, change: Partial<Extract<WellAct, { kind: 'fish-in' }>> = {}): WellAct => ({
  kind: 'fish-in',
  fishId,
  speciesId: 'largemouth-bass',
  lengthMm: null,
  condition: 'lively',
  compartment: 1,
  tagId: null,
  tagPlace: 'on',
  ...change,
});
const weighed = (fishId: string, readG: number): WellAct => ({
  kind: 'weighed',
  fishId,
  scaleId: 's',
  readG,
  how: 'typed',
  airSeconds: null,
});
const released = (fishId: string): WellAct => ({ kind: 'released', fishId, reason: 'cull', airSeconds: 4 });
const wellOf = (...acts: WellAct[]): LiveWell =>
  liveWellOf([
    entry({ kind: 'scale', scaleId: 's', name: 'Scale', scale: SCALE }),
    ...acts.map((act) => entry(act)),
  ]);
const MOMENT: WellMoment = { nowMs: 0, isOver: false, carriedOver: 0, roundMinutes: 30 };
const kindsOf = (well: LiveWell, moment: Partial<WellMoment> = {}): string[] =>
  wellTroubles(weightSheet(), well, { ...MOMENT, ...moment }).map(({ kind }) => kind);
const five = ['a', 'b', 'c', 'd', 'e'].map((id, i) => fishIn(id, { tagId: `tag-${i + 1}` }));

describe('the list of a well', () => {
  it('is the same well in whatever order its entries arrive, and however often', () => {
    const entries = [...five, weighed('a', 900), released('b')].map((act) => entry(act));
    const well = liveWellOf(entries);
    expect(liveWellOf([...entries.toReversed(), ...entries])).toEqual(well);
    expect(well.fish.map(({ fishId }) => fishId)).toEqual(['a', 'c', 'd', 'e']);
    expect(well.gone).toMatchObject([{ fishId: 'b', reason: 'cull', airSeconds: 4 }]);
  });

  it('takes an act back by another, and that one too', () => {
    const out = entry(released('a'));
    const undo = entry({ kind: 'undone', entryId: out.entryId });
    const redo = entry({ kind: 'undone', entryId: undo.entryId });
    const start = entry(fishIn('a'), 0);
    expect(liveWellOf([start, out]).fish).toHaveLength(0);
    expect(liveWellOf([start, out, undo]).fish).toHaveLength(1);
    expect(liveWellOf([start, out, undo, redo]).fish).toHaveLength(0);
  });

  it.each<[string, WellAct[], string]>([
    ['a fish that is released twice', [fishIn('a'), released('a'), released('a')], 'fish-gone'],
    ['a fish that comes in twice', [fishIn('a'), fishIn('a')], 'fish-known'],
    ['a fish nobody knows', [released('x')], 'no-such-fish'],
    ['a tag nobody has', [fishIn('a', { tagId: 'tag-9' })], 'no-such-tag'],
    ['an undo of nothing', [{ kind: 'undone', entryId: 'none' }], 'no-such-entry'],
  ])('keeps and tells %s', (_, acts, why) => {
    const well = wellOf(...acts);
    expect(well.contradictions.map((one) => one.why)).toEqual([why]);
  });

  it('counts liftings, seconds in the air and seconds hanging', () => {
    const well = wellOf(fishIn('a'), fishIn('b'), { ...weighed('a', 900), airSeconds: 5 } as WellAct, {
      kind: 'compared',
      leftId: 'a',
      rightId: 'b',
      outcome: 'left',
      hangingSeconds: 8,
    });
    expect(well.fish).toMatchObject([
      { liftings: 2, airSeconds: 5, hangingSeconds: 8 },
      { liftings: 1, hangingSeconds: 8 },
    ]);
  });

  it('counts a hanging that was not read, and learns nothing from it', () => {
    const hung: WellAct = { kind: 'compared', leftId: 'a', rightId: 'b', outcome: null, hangingSeconds: 6 };
    const well = wellOf(fishIn('a'), fishIn('b'), hung);
    expect(well.fish).toMatchObject([
      { liftings: 1, hangingSeconds: 6 },
      { liftings: 1, hangingSeconds: 6 },
    ]);
    expect(well.comparisons).toEqual([]);
  });

  it('keeps the kind of tag with each look, so that the dispute over tags can be settled', () => {
    const look: WellAct = { kind: 'looked', fishId: 'a', condition: 'weak', signs: ['labours'] };
    const well = wellOf(
      fishIn('a', { tagId: 'tag-1' }),
      look,
      { kind: 'tagged', fishId: 'a', tagId: 'tag-1', tagPlace: 'loose' },
      look,
    );
    expect(well.fish[0]?.looks.map(({ tagKind }) => tagKind)).toEqual(['clip', null]);
    expect(tagRecords(well)).toEqual([
      { tagKind: 'clip', looks: 1, notLively: 1, fish: 1 },
      { tagKind: null, looks: 1, notLively: 1, fish: 1 },
    ]);
  });
});

describe('guards of the well', () => {
  it('a full well is no trouble; one more stops the fishing until one is released', () => {
    expect(kindsOf(wellOf(...five))).toEqual([]);
    const six = [...five, fishIn('f', { tagId: 'spare' })];
    expect(wellTroubles(weightSheet(), wellOf(...six), MOMENT)[0]).toEqual({
      kind: 'over-limit',
      isStop: true,
      count: 6,
      limit: 5,
    });
    expect(kindsOf(wellOf(...six, released('a')))).toEqual(['spare-in-well']);
    expect(kindsOf(wellOf(...six, released('a'), { kind: 'tagged', fishId: 'f', tagId: 'tag-1', tagPlace: 'on' }))).toEqual([]); // prettier-ignore
  });

  it.each<[string, WellAct[], string]>([
    [
      'two fish with one tag',
      [fishIn('a', { tagId: 'tag-1' }), fishIn('b', { tagId: 'tag-1' })],
      'tag-twice',
    ],
    [
      'a full well with a fish without a tag',
      five.map((act, i) => (i === 4 ? fishIn('e') : act)),
      'fewer-tags',
    ],
    [
      'four of a kind of three',
      ['a', 'b', 'c', 'd'].map((id) => fishIn(id, { speciesId: 'smallmouth-bass' })),
      'species-over',
    ],
    ['two in a slot of one', ['a', 'b'].map((id) => fishIn(id, { lengthMm: 550 })), 'slot-over'],
    ['a fish a hair under the length', [fishIn('a', { lengthMm: 12 * MM_PER_INCH - 0.1 })], 'short'],
    ['a kind that does not count', [fishIn('a', { speciesId: 'carp' })], 'not-counting'],
    ['a dead fish', [fishIn('a', { condition: 'dead' })], 'dead'],
    ['a count by hand that differs', [fishIn('a'), { kind: 'declared', count: 2 }], 'count-differs'],
  ])('%s', (_, acts, kind) => {
    expect(kindsOf(wellOf(...acts))).toContain(kind);
  });

  it('a fish of exactly the length, a count that agrees: nothing is wrong', () => {
    expect(
      kindsOf(wellOf(fishIn('a', { lengthMm: 12 * MM_PER_INCH }), { kind: 'declared', count: 1 })),
    ).toEqual([]);
  });

  it('at lines-out the fish are counted by hand; yesterday’s fish stop everything', () => {
    expect(kindsOf(wellOf(fishIn('a')), { isOver: true })).toEqual(['not-counted']);
    expect(kindsOf(wellOf(), { carriedOver: 3 })).toEqual(['carried-over']);
    // A fish that comes after the count makes it void.
    expect(kindsOf(wellOf({ kind: 'declared', count: 0 }, fishIn('a')), { isOver: true })).toEqual([
      'not-counted',
    ]);
  });

  it('hurt and small-mouthed fish want to be looked at twice as often', () => {
    const well = liveWellOf([
      entry(fishIn('a'), 0),
      entry(fishIn('b', { condition: 'hurt' }), 0),
      entry(fishIn('c', { speciesId: 'smallmouth-bass' }), 0),
    ]);
    expect(wellTroubles(weightSheet(), well, { ...MOMENT, nowMs: 15 * MINUTE })).toMatchObject([
      { kind: 'unlooked', fishIds: ['b', 'c'] },
    ]);
    expect(well.fish.map((fish) => minutesUnseen(fish, 15.9 * MINUTE))).toEqual([15, 15, 15]);
    expect(well.fish.map((fish) => tagPlaceFor(fish, 'not-hurt'))).toEqual(['on', 'loose', 'loose']);
    expect(well.fish.map((fish) => tagPlaceFor(fish, 'all'))).toEqual(['on', 'on', 'on']);
  });

  it.each<[string, WellAct[], WellAct, string | null]>([
    ['a tag used twice', [fishIn('a', { tagId: 'tag-1' })], fishIn('b', { tagId: 'tag-1' }), 'tag-taken'],
    ['the spare tag below the limit', [], fishIn('a', { tagId: 'spare' }), 'spare-is-for-the-beam'],
    ['the spare tag on the sixth', five, fishIn('f', { tagId: 'spare' }), null],
    ['a fish culled twice', [fishIn('a'), released('a')], released('a'), 'fish-gone'],
    ['a negative weight', [fishIn('a')], weighed('a', -1), 'bad-weight'],
    ['an absurd weight', [fishIn('a')], weighed('a', 90_000), 'bad-weight'],
    [
      'a fish against itself',
      [fishIn('a')],
      { kind: 'compared', leftId: 'a', rightId: 'a', outcome: 'level', hangingSeconds: null },
      'same-fish',
    ],
    ['a dead fish culled', [fishIn('a', { condition: 'dead' })], released('a'), 'dead-stays'],
    ['a compartment that is not there', [], fishIn('a', { compartment: 2 }), 'no-such-compartment'],
  ])('refused when it is tried: %s', (_, acts, act, refusal) => {
    expect(refusalOf(weightSheet(), wellOf(...acts), act)).toBe(refusal);
  });
});

describe('what the next fish must do', () => {
  const weights = [1400, 1200, 1600, 1800, 2000];
  const full = wellOf(
    ...five,
    ...five.map((act, i) => weighed((act as { fishId: string }).fishId, weights[i] ?? 0)),
  );

  it('in a full well: beat the smallest; an ounce more than it gains an ounce', () => {
    const outlook = wellOutlook(weightSheet(), full);
    if (outlook.kind !== 'weight') throw new Error('expected weights');
    expect(outlook.smallestId).toBe('b');
    expect(outlook.nextMustBeatG).toBeCloseTo(1200, 0);
    expect(outlook.totalG).toBeCloseTo(8000, 0);
    // Five independent readings of 3 g with a digit of 1 g: √5 · √(9 + 1/12) g (GUM 5.1).
    expect(outlook.totalSigmaG).toBeCloseTo(Math.sqrt(5 * (9 + 1 / 12)), 0);
    // 8000 g are 282.19 oz, so 17 lb 10 oz to the ounce (GNU units: 8000 g / ounce = 282.19191).
    expect(totalSteps(weightSheet(), outlook)).toBe(282);
    expect(gains(weightSheet(), outlook).map(({ needsG }) => Math.round(needsG))).toEqual([
      Math.round(1200 + G_PER_OUNCE),
      Math.round(1200 + G_PER_POUND),
    ]);
    const slots = slotWorths(outlook);
    expect(slots[0]?.fishId).toBe('b');
    expect(slots[0]?.share).toBeCloseTo(1200 / 8000, 3);
    expect(slots.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 6);
    expect(slots.at(-1)?.upToBestG).toBe(0);
  });

  it('shared with everybody is the sum of the readings, as the boat itself sees it without a beam', () => {
    const outlook = wellOutlook(weightSheet(), full);
    if (outlook.kind !== 'weight') throw new Error('expected weights');
    expect(waterTotalG(weightSheet(), full)).toBeCloseTo(outlook.totalG, 0);
    expect(waterTotalG(weightSheet(), wellOf())).toBe(0);
    expect([wellOf().isShared, wellOf({ kind: 'shared', isShared: true }).isShared]).toEqual([false, true]);
  });

  it('with room in the well: anything that may be kept', () => {
    const outlook = wellOutlook(weightSheet(), wellOf(fishIn('a'), weighed('a', 1000)));
    expect(outlook).toMatchObject({ nextMustBeatG: null, advice: { kind: 'keep-all' }, smallestId: 'a' });
    expect(wellOutlook(weightSheet(), wellOf())).toMatchObject({ totalG: 0, smallestId: null });
  });

  it('a fish that was not weighed is guessed by its length, and called a guess', () => {
    const outlook = wellOutlook(weightSheet(), wellOf(fishIn('a', { lengthMm: 400 })));
    if (outlook.kind !== 'weight') throw new Error('expected weights');
    // Standard weight of a largemouth bass of 400 mm: 973.96 g (Henson 1991).
    expect(outlook.fish[0]?.massG).toBeCloseTo(973.96, 0);
    expect(outlook.fish[0]).toMatchObject({ isGuess: true });
    expect(outlook.fish[0]?.sigmaG).toBeGreaterThan(100);
  });

  it('with one too many: the smallest goes, unless it is dead and the sheet forbids it', () => {
    const six = [...five, fishIn('f', { tagId: 'spare' })];
    const readings = [...five.map((act, i) => weighed((act as { fishId: string }).fishId, weights[i] ?? 0)), weighed('f', 1500)]; // prettier-ignore
    expect(wellOutlook(weightSheet(), wellOf(...six, ...readings))).toMatchObject({
      advice: { kind: 'release', fishId: 'b' },
      thumb: { kind: 'scale', fishId: 'b' },
    });
    const dead: WellAct = { kind: 'looked', fishId: 'b', condition: 'dead', signs: [] };
    expect(wellOutlook(weightSheet(), wellOf(...six, ...readings, dead))).toMatchObject({
      advice: { fishId: 'a' },
      smallestId: 'a',
    });
  });

  it('in a length event goes by whole steps; of two as long the later one goes', () => {
    const sheet = exampleSheet({ bagLimit: 2 });
    const lengths = [400, 350, 350.5];
    const well = wellOf(...lengths.map((lengthMm, i) => fishIn(`f${i}`, { speciesId: 'bass', lengthMm })));
    expect(wellOutlook(sheet, well)).toMatchObject({
      kind: 'length',
      totalSteps: 62 + 55 + 55,
      releaseId: 'f2',
    });
    const unmeasured = wellOf(...lengths.map((_, i) => fishIn(`f${i}`, { speciesId: 'bass' })));
    expect(wellOutlook(sheet, unmeasured)).toMatchObject({ releaseId: null });
  });
});

/** What a person believes who keeps the well in the head: ids aboard, ids gone. */
interface Believed {
  aboard: string[];
  gone: string[];
  tags: Map<string, string>;
}

/** Two phones of one boat that hear of each other only now and then. */
interface Boat {
  phones: [WellEntry[], WellEntry[]];
  clockMs: number;
  next: number;
}

class Act implements fc.Command<Believed, Boat> {
  private readonly phone: 0 | 1;
  private readonly what: 'in' | 'out' | 'tag' | 'look' | 'weigh';
  private readonly pick: number;

  constructor(phone: 0 | 1, what: Act['what'], pick: number) {
    this.phone = phone;
    this.what = what;
    this.pick = pick;
  }

  check = ({ aboard }: Readonly<Believed>): boolean => this.what === 'in' || aboard.length > 0;

  run(model: Believed, boat: Boat): void {
    // A person acts on what the own phone shows: both phones are brought together before an act on a fish.
    share(boat);
    const fishId =
      this.what === 'in' ? `fish-${boat.next++}` : (model.aboard[this.pick % model.aboard.length] ?? '');
    const well = liveWellOf(boat.phones[this.phone]);
    const tagId = `tag-${(this.pick % 5) + 1}`;
    const act: WellAct =
      this.what === 'in'
        ? fishIn(fishId)
        : this.what === 'out'
          ? released(fishId)
          : this.what === 'tag'
            ? { kind: 'tagged', fishId, tagId, tagPlace: 'on' }
            : this.what === 'look'
              ? { kind: 'looked', fishId, condition: 'lively', signs: [] }
              : weighed(fishId, 500 + this.pick);
    const scales = entry({ kind: 'scale', scaleId: 's', name: 'S', scale: SCALE }, 0);
    boat.phones[this.phone].push(scales);
    const refusal = refusalOf(weightSheet(), liveWellOf(boat.phones[this.phone]), act);
    if (this.what === 'tag') {
      expect(refusal === null).toBe(![...model.tags].some(([of, tag]) => tag === tagId && of !== fishId));
    } else expect(refusal).toBeNull();
    expect(well.fish).toHaveLength(model.aboard.length);
    if (refusal) return;
    boat.clockMs += MINUTE;
    boat.phones[this.phone].push(entry(act, boat.clockMs));
    if (this.what === 'in') model.aboard.push(fishId);
    if (this.what === 'tag') model.tags.set(fishId, tagId);
    if (this.what === 'out') {
      model.aboard = model.aboard.filter((one) => one !== fishId);
      model.gone.push(fishId);
      model.tags.delete(fishId);
    }
    agree(model, liveWellOf(boat.phones[this.phone]));
  }

  toString = (): string => `${this.what} ${this.pick} on phone ${this.phone}`;
}

function share({ phones }: Boat): void {
  const all = inOrder([...phones[0], ...phones[1]]);
  phones[0] = [...all];
  phones[1] = all.toReversed();
}

function agree(model: Believed, well: LiveWell): void {
  expect(well.fish.map(({ fishId }) => fishId)).toEqual(model.aboard);
  expect(well.gone.map(({ fishId }) => fishId)).toEqual(model.gone);
  expect(new Map(well.fish.flatMap(({ fishId, tagId }) => (tagId ? [[fishId, tagId]] : [])))).toEqual(
    model.tags,
  );
  expect(well.contradictions).toEqual([]);
}

/** Both phones do something while they don't hear of each other. */
class Apart implements fc.Command<Believed, Boat> {
  private readonly pick: number;

  constructor(pick: number) {
    this.pick = pick;
  }

  check = ({ aboard }: Readonly<Believed>): boolean => aboard.length > 0;

  run(model: Believed, boat: Boat): void {
    share(boat);
    const fishId = model.aboard[this.pick % model.aboard.length] ?? '';
    // The same fish let go twice, and a new one on each phone: nothing is lost, the second release is told.
    boat.clockMs += MINUTE;
    const late = boat.clockMs + 1;
    const [first, second] = [`fish-${boat.next++}`, `fish-${boat.next++}`];
    boat.phones[0].push(entry(released(fishId), boat.clockMs), entry(fishIn(first), late));
    const again = entry(released(fishId), late);
    boat.phones[1].push(again, entry(fishIn(second), late));
    boat.clockMs = late;
    share(boat);
    model.aboard = [...model.aboard.filter((one) => one !== fishId), first, second];
    model.gone.push(fishId);
    model.tags.delete(fishId);
    const well = liveWellOf(boat.phones[0]);
    expect(well.contradictions).toEqual([{ entryId: again.entryId, why: 'fish-gone' }]);
    expect(well.fish.map(({ fishId: id }) => id)).toEqual(model.aboard);
    // Put right by hand: the second release is taken back.
    boat.clockMs += MINUTE;
    boat.phones[1].push(entry({ kind: 'undone', entryId: again.entryId }, boat.clockMs));
    share(boat);
    agree(model, liveWellOf(boat.phones[1]));
  }

  toString = (): string => `apart ${this.pick}`;
}

describe('whatever is tapped in whatever order, on two phones, apart and together', () => {
  it('count, tags and the list agree', () => {
    const phone = fc.constantFrom<0 | 1>(0, 1);
    const act = fc
      .tuple(phone, fc.constantFrom('in', 'in', 'out', 'tag', 'look', 'weigh'), fc.nat({ max: 50 }))
      .map(([on, what, pick]) => new Act(on, what as Act['what'], pick));
    fc.assert(
      fc.property(
        fc.commands([act, fc.nat({ max: 50 }).map((pick) => new Apart(pick))], { size: 'medium' }),
        (commands) => {
          fc.modelRun(
            () => ({
              model: { aboard: [], gone: [], tags: new Map<string, string>() } as Believed,
              real: { phones: [[], []], clockMs: 1_000_000, next: 1 } as Boat,
            }),
            commands,
          );
        },
      ),
      { seed: 4310, numRuns: 60 },
    );
  });
});
