import { describe, expect, it } from 'vitest';
import { BOAT_CUP_SHEET, planWell } from '@lauta/sim/demo';
import { WELL_SIGNS, liveWellOf, wellOutlook, type WellAct, type WellEntry } from '@lauta/core/well';
import { massUnitOf } from '@lauta/core/units';
import { areLinesOut, countCarried, troublesNow } from './troublesNow.ts';
import { carriedOver, entriesOfDay, lastDone, withEntries } from './entriesOfDay.ts';
import { SIGN_WORDS, actWords, adviceWords, fishWords, tagWords, thumbWords } from '@lauta/words/well';

let serial = 0;
const entry = (act: WellAct, atMs = ++serial): WellEntry => ({ entryId: `e${String(serial).padStart(4, '0')}`, atMs, act }); // prettier-ignore
const fishIn = (fishId: string, tagId: string | null): WellAct => ({
  kind: 'fish-in',
  fishId,
  speciesId: 'largemouth-bass',
  lengthMm: null,
  condition: 'lively',
  compartment: 1,
  tagId,
  tagPlace: 'on',
});
const waiting = (dayId: string, entries: WellEntry[], entrantId = 'boat') =>
  ({ kind: 'well.enter', body: { entrantId, dayId, entries } }) as never;

describe('the entries of a day', () => {
  const heard = entry({ kind: 'declared', count: 1 });
  const own = entry({ kind: 'declared', count: 2 });

  it('are what the server heard and what waits here, each once and in order', () => {
    const view = { days: [{ dayId: 'd', entries: [own, heard] }] };
    expect(entriesOfDay(view, [waiting('d', [own])], 'boat', 'd')).toEqual([heard, own]);
    expect(entriesOfDay(undefined, [waiting('d', [own])], 'boat', 'd')).toEqual([own]);
  });

  it('leave out another boat’s, another day’s and other commands', () => {
    const others = [
      waiting('d', [own], 'other boat'),
      waiting('e', [own]),
      { kind: 'catch.withdraw', body: {} } as never,
    ];
    expect(entriesOfDay(undefined, others, 'boat', 'd')).toEqual([]);
  });

  it('are shown before the server has heard of them', () => {
    expect(withEntries(undefined, 'd', [own]).days).toEqual([{ dayId: 'd', entries: [own] }]);
    expect(withEntries({ days: [{ dayId: 'd', entries: [own] }] }, 'd', [heard, own]).days[0]?.entries).toEqual([heard, own]); // prettier-ignore
  });

  it('tell which fish an earlier day still holds', () => {
    const left = entry(fishIn('a', 'tag-1'));
    const view = {
      days: [
        { dayId: 'd1', entries: [left] },
        { dayId: 'd2', entries: [] },
      ],
    };
    expect(carriedOver(view, [], 'boat', ['d1', 'd2'])).toEqual([{ dayId: 'd1', fishIds: ['a'] }]);
    const gone = entry({ kind: 'released', fishId: 'a', reason: 'weighed-in', airSeconds: null });
    expect(carriedOver(view, [waiting('d1', [gone])], 'boat', ['d1'])).toEqual([]);
  });

  it('name the last one that can be taken back', () => {
    const undo = entry({ kind: 'undone', entryId: own.entryId });
    expect(lastDone([heard, own, undo], new Set([own.entryId]))).toEqual(heard);
    expect(lastDone([], new Set())).toBeNull();
  });
});

describe('words at the well', () => {
  const well = liveWellOf(planWell());
  const weights = wellOutlook(BOAT_CUP_SHEET, well);
  if (weights.kind !== 'weight') throw new Error('expected weights');

  it('speak of a fish by its tag, else by its kind, and of the newcomer as such', () => {
    expect(well.fish.map(({ fishId }) => fishWords(well, BOAT_CUP_SHEET, fishId)).sort()).toEqual(['1', '2', '3', '4', '5']); // prettier-ignore
    const two = liveWellOf([entry(fishIn('a', null)), entry(fishIn('b', 'spare'))]);
    expect(['a', 'b', 'x'].map((id) => fishWords(two, BOAT_CUP_SHEET, id))).toEqual([
      'the untagged largemouth bass',
      'the new one',
      'a fish',
    ]);
    expect(tagWords({ tagId: 't', number: null, colour: 'red' })).toBe('red');
    expect(tagWords(null)).toBe('no tag');
  });

  it('say what to let go in one sentence, and the rule of thumb beside it', () => {
    const newcomer: WellAct[] = [
      fishIn('new', 'spare'),
      {
        kind: 'weighed',
        fishId: 'new',
        scaleId: 'hanging-scale',
        readG: 500,
        how: 'typed',
        airSeconds: null,
      },
    ];
    const six = liveWellOf([
      ...planWell(),
      ...newcomer.map((act) => entry(act, Date.parse('2026-06-14T10:40:00Z') + ++serial)),
    ]);
    const outlook = wellOutlook(BOAT_CUP_SHEET, six);
    if (outlook.kind !== 'weight') throw new Error('expected weights');
    expect(adviceWords(outlook.advice, six, BOAT_CUP_SHEET, outlook)).toBe('Let the new one go: over 99 %. No beam needed.'); // prettier-ignore
    expect(thumbWords(outlook, six, BOAT_CUP_SHEET)).toMatch(
      /^Rule of thumb: under a quarter pound apart|^Rule of thumb: a quarter pound or more/,
    );
  });

  it('show weights in the event’s unit, and name each sign and act', () => {
    expect(massUnitOf(BOAT_CUP_SHEET.measure.step)).toBe('lb-oz');
    expect(WELL_SIGNS.every((sign) => SIGN_WORDS[sign].length > 3)).toBe(true);
    for (const { act } of planWell()) expect(actWords(act, well, BOAT_CUP_SHEET)).toMatch(/[a-z]/);
  });
});

describe('what the well asks for on every page', () => {
  const HOUR = 3_600_000;
  const at = (ms: number): string => new Date(ms).toISOString();
  const session = (dayId: string, fromMs: number, toMs: number) => ({ dayId, linesInAt: at(fromMs), linesOutAt: at(toMs) }); // prettier-ignore
  const event = { sessions: [session('d', 0, 2 * HOUR), session('d', 3 * HOUR, 5 * HOUR), session('e', 24 * HOUR, 30 * HOUR)] } as never; // prettier-ignore
  const later = (act: WellAct, atMs: number): WellEntry => ({ ...entry(act), atMs });
  const kinds = (entries: WellEntry[], nowMs: number, carried = 0): string[] =>
    troublesNow(event, 'd', BOAT_CUP_SHEET, liveWellOf(entries), carried, nowMs).map(({ kind }) => kind);

  it('lines are out after the day’s last session, not between two', () => {
    expect(areLinesOut(event, 'd', 2.5 * HOUR)).toBe(false);
    expect(areLinesOut(event, 'd', 5 * HOUR)).toBe(false);
    expect(areLinesOut(event, 'd', 5 * HOUR + 1)).toBe(true);
    expect(areLinesOut(event, 'no such day', 99 * HOUR)).toBe(false);
  });

  it('six aboard stop the fishing; fish that nobody looked at for long are named', () => {
    const six = ['a', 'b', 'c', 'd', 'e', 'f'].map((fishId, i) => later(fishIn(fishId, i < 5 ? `tag-${i + 1}` : 'spare'), HOUR + i)); // prettier-ignore
    expect(kinds(six, HOUR + 10)).toContain('over-limit');
    expect(kinds(six.slice(0, 5), HOUR + 10)).not.toContain('over-limit');
    expect(kinds(six.slice(0, 5), HOUR + 10)).not.toContain('unlooked');
    expect(kinds(six.slice(0, 5), 3 * HOUR)).toContain('unlooked');
  });

  it('after lines-out the fish are to be counted, and those of an earlier day are told', () => {
    const one = [later(fishIn('a', 'tag-1'), HOUR)];
    expect(kinds(one, 6 * HOUR)).toContain('not-counted');
    expect(kinds([...one, later({ kind: 'declared', count: 1 }, 6 * HOUR)], 6 * HOUR)).not.toContain('not-counted'); // prettier-ignore
    expect(kinds(one, 2 * HOUR, countCarried([{ fishIds: ['x', 'y'] }, { fishIds: ['z'] }]))).toContain('carried-over'); // prettier-ignore
    expect(countCarried([{ fishIds: ['x', 'y'] }, { fishIds: ['z'] }])).toBe(3);
  });
});
