import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { weightSheet } from '../rules/exampleSheet.test-data.ts';
import type { WeighInRules } from '../rules/index.ts';
import { rankTickets } from '../scoring/index.ts';
import { kindOfClass, type NamedScale } from '../scale/index.ts';
import { G_PER_OUNCE, G_PER_POUND } from '../units/index.ts';
import {
  doubledNumbers,
  minutesLate,
  scaleDoubts,
  scoreTicket,
  ticketState,
  weighInOf,
  weighInRefusal,
  type Ticket,
  type WeighInAct,
  type WeighInEntry,
} from './index.ts';

const OUT_MS = 1_000_000_000;
const MINUTE = 60_000;
let serial = 0;
const entry = (act: WeighInAct, accountId = 'one', atMs?: number): WeighInEntry => {
  serial += 1;
  return {
    entryId: `e${String(serial).padStart(5, '0')}`,
    atMs: atMs ?? OUT_MS - 3_600_000 + serial,
    accountId,
    act,
  };
};
const queued = (ticketId = 't', entrantId = 'boat', atMs?: number): WeighInEntry =>
  entry({ kind: 'queued', ticketId, entrantId, dayId: 'day', number: serial }, 'one', atMs);
const checked = (
  alive: number,
  dead = 0,
  short = 0,
  reason: string | null = null,
  ticketId = 't',
): WeighInAct => ({
  kind: 'checked',
  ticketId,
  alive,
  dead,
  short,
  reason,
});
const weighed = (
  grossG: number,
  tareG = 0,
  reason: string | null = null,
  ticketId = 't',
): Extract<WeighInAct, { kind: 'weighed' }> => ({
  kind: 'weighed',
  ticketId,
  grossG,
  tareG,
  how: 'typed',
  reason,
});
const sign = (signer: 'angler' | 'weigh-master', ticketId = 't'): WeighInAct => ({
  kind: 'signed',
  ticketId,
  signer,
  signature: { kind: 'typed', name: 'N. N.' },
});
const ticketOf = (entries: readonly WeighInEntry[]): Ticket => {
  const [ticket] = weighInOf(entries).tickets;
  if (!ticket) throw new Error('expected a ticket');
  return ticket;
};
const rules = (change: Partial<WeighInRules> = {}) => {
  const sheet = weightSheet();
  if (!sheet.weighIn) throw new Error('expected rules');
  return { ...sheet, weighIn: { ...sheet.weighIn, ...change } };
};
/** A bag of 15 lb and what its scale's rules make of it. */
const bag = (alive: number, dead = 0, short = 0, atMs = OUT_MS) =>
  ticketOf([queued('t', 'boat', atMs), entry(checked(alive, dead, short), 'one', atMs + 1), entry(weighed(15 * G_PER_POUND), 'one', atMs + 2)]); // prettier-ignore

describe('a bag’s weight', () => {
  it('is gross less the wet bag, in the event’s steps, down', () => {
    const ticket = ticketOf([
      queued(),
      entry(checked(5)),
      entry(weighed(18 * G_PER_POUND + 1, 3 * G_PER_POUND)),
    ]);
    expect(scoreTicket(rules(), ticket, OUT_MS)).toMatchObject({
      netSteps: 240,
      totalSteps: 240,
      penalties: [],
    });
    // A thousandth of a gram under the ounce is the ounce before.
    const light = ticketOf([queued(), entry(checked(5)), entry(weighed(240 * G_PER_OUNCE - 0.001))]);
    expect(scoreTicket(rules(), light, OUT_MS).netSteps).toBe(239);
  });

  it.each<[string, Ticket, Partial<WeighInRules>, number]>([
    ['five alive', bag(5), {}, 240],
    ['one dead of five: a quarter pound', bag(4, 1), {}, 236],
    ['two dead', bag(3, 2), {}, 232],
    ['a dead one that is not counted', bag(4, 1), { deadFish: { kind: 'not-counted', steps: 0 } }, 240],
    ['a dead one that costs the bag', bag(4, 1), { deadFish: { kind: 'disqualification' } }, 0],
    ['a short one: out of the bag, a pound off', bag(5, 0, 1), {}, 224],
    ['one over the limit: out, nothing off', bag(6), {}, 240],
    [
      'two over the limit at a pound',
      bag(7),
      { overLimit: { penalty: { kind: 'not-counted', steps: 16 }, takenOut: 'largest' } },
      208,
    ],
    ['more off than it weighs', bag(0, 5), { deadFish: { kind: 'deduction', steps: 100 } }, 0],
  ])('%s', (_, ticket, change, totalSteps) => {
    expect(scoreTicket(rules(change), ticket, OUT_MS).totalSteps).toBe(totalSteps);
  });

  it.each([
    [-1, 0, 240],
    [0, 0, 240],
    [1, 1, 224],
    [MINUTE, 1, 224],
    [MINUTE + 1, 2, 208],
    [15 * MINUTE, 15, 0],
    [15 * MINUTE + 1, 16, 0],
  ])('%d ms late is %d minutes begun', (lateMs, minutes, totalSteps) => {
    expect(minutesLate(OUT_MS + lateMs, OUT_MS)).toBe(minutes);
    const score = scoreTicket(rules(), bag(5, 0, 0, OUT_MS + lateMs), OUT_MS);
    expect(score.totalSteps).toBe(totalSteps);
    expect(score.isDisqualified).toBe(minutes > 15);
  });

  it('with grace: minutes within it cost nothing, the first after it costs one', () => {
    const late = { graceMinutes: 2, stepsPerMinute: 16, refusedAfterMinutes: null };
    const at = (minutes: number) =>
      scoreTicket(rules({ late }), bag(5, 0, 0, OUT_MS + minutes * MINUTE), OUT_MS).totalSteps;
    expect([at(2), at(3), at(100)]).toEqual([240, 224, 0]);
  });

  it('counts the fish that should be in the bag when it is weighed', () => {
    expect(scoreTicket(rules(), bag(5, 1, 0), OUT_MS)).toMatchObject({ fishWeighed: 5, takenOut: 1 });
    expect(scoreTicket(rules(), bag(4, 0, 1), OUT_MS)).toMatchObject({ fishWeighed: 3, takenOut: 1 });
  });
});

describe('a ticket on its way', () => {
  it('is waiting, called, checked, weighed, confirmed by another, signed by both', () => {
    const steps: [WeighInEntry, string][] = [[queued(), 'waiting']];
    const weight = entry(weighed(5000));
    steps.push(
      [entry({ kind: 'called', ticketId: 't' }), 'called'],
      [entry(checked(5)), 'checked'],
      [weight, 'weighed'],
      [entry({ kind: 'confirmed', ticketId: 't', weighedId: weight.entryId }, 'one'), 'weighed'],
      [entry({ kind: 'confirmed', ticketId: 't', weighedId: weight.entryId }, 'two'), 'confirmed'],
      [entry(sign('angler')), 'confirmed'],
      [entry(sign('weigh-master')), 'signed'],
    );
    // The weight was entered before its confirmations, whatever the order of making here.
    const entries = steps.map(([one], i) => ({ ...one, atMs: 1000 + i }));
    steps.forEach(([, state], i) => {
      expect(ticketState(rules(), ticketOf(entries.slice(0, i + 1)))).toBe(state);
    });
    const alone = entries.filter(({ act }) => act.kind !== 'confirmed');
    expect(ticketState(rules({ twoPeople: false }), ticketOf(alone))).toBe('signed');
  });

  it('changed after signing is a correction with its reason, and is signed anew', () => {
    const before = [
      queued(),
      entry(checked(5)),
      entry(weighed(5000)),
      entry(sign('angler')),
      entry(sign('weigh-master')),
    ];
    const after = ticketOf([...before, entry(weighed(5100, 0, 'the bag still held water'), 'two')]);
    expect(after.signatures).toEqual({});
    expect(after.corrections).toMatchObject([
      { byId: 'two', what: 'weighed', reason: 'the bag still held water' },
    ]);
    expect(ticketState(rules({ twoPeople: false }), after)).toBe('confirmed');
    const refused = weighInRefusal(rules(), weighInOf(before), weighed(5100), 'two');
    expect(refused).toBe('reason-wanted');
  });

  it('signed, then its weight taken back by another hand: the names fall with it', () => {
    const first = entry(weighed(5000));
    const second = entry(weighed(5200));
    const signed = [queued(), entry(checked(5)), first, second, entry(sign('angler')), entry(sign('weigh-master'))]
      .map((one, i) => ({ ...one, atMs: 1000 + i })); // prettier-ignore
    expect(ticketState(rules({ twoPeople: false }), ticketOf(signed))).toBe('signed');
    const undo = { ...entry({ kind: 'undone', entryId: second.entryId }), atMs: 2000 };
    const after = weighInOf([...signed, undo]);
    expect(after.tickets[0]).toMatchObject({ signatures: {}, weight: { grossG: 5000 } });
    expect(after.contradictions.map(({ why }) => why)).toEqual([
      'signed-what-is-gone',
      'signed-what-is-gone',
    ]);
  });

  it('a figure that was taken back before the names were set lets them stand', () => {
    const big = entry({ kind: 'big-fish', ticketId: 't', massG: 900, reason: null });
    const acts = [queued(), entry(checked(5)), entry(weighed(5000)), big, entry({ kind: 'undone', entryId: big.entryId }), entry(sign('angler')), entry(sign('weigh-master'))]; // prettier-ignore
    const { tickets, contradictions } = weighInOf(acts.map((one, i) => ({ ...one, atMs: 1000 + i })));
    expect(contradictions).toEqual([]);
    expect(tickets[0]).toMatchObject({ bigFishG: null, signatures: { angler: {}, 'weigh-master': {} } });
  });

  it('is the same in whatever order its entries arrive', () => {
    const entries = [queued(), entry(checked(4, 1)), entry(weighed(5000)), entry(sign('angler'))];
    fc.assert(
      fc.property(fc.shuffledSubarray(entries, { minLength: entries.length }), (shuffled) => {
        expect(weighInOf([...shuffled, ...shuffled])).toEqual(weighInOf(entries));
      }),
      { seed: 4310, numRuns: 20 },
    );
  });

  const bench = entry({ kind: 'scale', scaleId: 's', name: 'Bench', scale: kindOfClass('III', 5, 15_000), accuracyClass: 'III' }); // prettier-ignore
  const open = [queued('t', 'boat'), entry(checked(5)), entry(weighed(5000))];
  it.each<[string, WeighInEntry[], WeighInAct, string | null]>([
    [
      'a boat queued twice',
      open,
      { kind: 'queued', ticketId: 'u', entrantId: 'boat', dayId: 'day', number: 9 },
      'entrant-queued',
    ],
    ['weighed before it was checked', [queued()], weighed(5000), 'not-checked'],
    ['a tare over the gross', open, weighed(1000, 1001), 'tare-over-gross'],
    ['a bag that weighs as much as its tare', open, weighed(1000, 1000), null],
    ['a negative weight', open, weighed(-1), 'bad-weight'],
    [
      'a bag over the scale’s capacity',
      [...open, bench],
      { ...weighed(15_001), scaleId: 's' },
      'over-capacity',
    ],
    ['a bag of exactly its capacity', [...open, bench], { ...weighed(15_000), scaleId: 's' }, null],
    ['a bag on a scale nobody described', open, { ...weighed(5000), scaleId: 's' }, 'no-such-scale'],
    [
      'a check of a scale nobody described',
      open,
      { kind: 'scale-check', scaleId: 's', trueG: 0, readG: 0 },
      'no-such-scale',
    ],
    ['more short fish than fish', open, checked(2, 0, 3), 'bad-count'],
    ['half a fish', open, checked(2.5), 'bad-count'],
    [
      'a big fish heavier than its bag',
      open,
      { kind: 'big-fish', ticketId: 't', massG: 5001, reason: null },
      'big-fish-over-bag',
    ],
    [
      'a confirmation by the same person',
      open,
      { kind: 'confirmed', ticketId: 't', weighedId: 'x' },
      'same-person',
    ],
    ['a signature before the second person', open, sign('angler'), 'not-confirmed'],
    ['a ticket nobody knows', open, weighed(1, 0, null, 'x'), 'no-such-ticket'],
  ])('refused when it is tried: %s', (_, entries, act, refusal) => {
    expect(weighInRefusal(rules(), weighInOf(entries), act, 'one')).toBe(refusal);
  });

  it('with an empty signature is not signed', () => {
    const confirmed = [
      ...open,
      entry({ kind: 'confirmed', ticketId: 't', weighedId: open[2]?.entryId ?? '' }, 'two'),
    ];
    const ask = (signature: Extract<WeighInAct, { kind: 'signed' }>['signature']) =>
      weighInRefusal(rules(), weighInOf(confirmed), { kind: 'signed', ticketId: 't', signer: 'angler', signature }, 'one'); // prettier-ignore
    expect(ask({ kind: 'drawn', strokes: [[0.1, 0.1]] })).toBe('empty-signature');
    expect(ask({ kind: 'typed', name: '  ' })).toBe('empty-signature');
    expect(ask({ kind: 'drawn', strokes: [[0.1, 0.1, 0.2, 0.2]] })).toBeNull();
  });
});

describe('numbers of the queue', () => {
  it('given twice by two stations are told, of that day alone', () => {
    const bag = (dayId: string, number: number) => ({ dayId, number });
    const bags = [bag('one', 7), bag('one', 3), bag('two', 9), bag('one', 7), bag('one', 3), bag('one', 7)];
    expect(doubledNumbers(bags, 'one')).toEqual([3, 7]);
    expect(doubledNumbers(bags, 'two')).toEqual([]);
  });
});

describe('standings by weight', () => {
  const outs = new Map([['day', OUT_MS]]);
  const full = (boat: string, grossG: number, bigG: number, dead = 0): WeighInEntry[] => [
    entry({ kind: 'queued', ticketId: boat, entrantId: boat, dayId: 'day', number: serial }),
    entry(checked(5 - dead, dead, 0, null, boat)),
    entry(weighed(grossG, 0, null, boat)),
    entry({ kind: 'big-fish', ticketId: boat, massG: bigG, reason: null }),
  ];
  const rank = (entries: WeighInEntry[], include: 'all' | 'official' = 'all') =>
    rankTickets(
      rules({ twoPeople: false }),
      () => rules({ twoPeople: false }),
      ['a', 'b', 'c', 'd'],
      weighInOf(entries).tickets,
      outs,
      {
        include,
      },
    );

  it('put the heaviest first; equal bags go by the big fish, then share', () => {
    const pound = G_PER_POUND;
    const ranked = rank([
      ...full('a', 15 * pound, 4 * pound),
      ...full('b', 15 * pound, 5 * pound),
      ...full('c', 16 * pound, 4 * pound),
    ]);
    expect(ranked.map(({ entrantId, rank: place }) => [entrantId, place])).toEqual([
      ['c', 1],
      ['b', 2],
      ['a', 3],
      ['d', 4],
    ]);
    expect(ranked[1]?.tieBreak).toEqual({ rule: 'biggest-fish', entrantIds: ['a'] });
    const equal = rank([...full('a', 15 * pound, 4 * pound), ...full('b', 15 * pound, 4 * pound)]);
    expect(equal.slice(0, 2).map((one) => one.rank)).toEqual([1, 1]);
    expect(equal[0]?.sharedWith).toEqual(['b']);
  });

  it('of equal totals and big fish: more alive stands first', () => {
    const pound = G_PER_POUND;
    const ranked = rank([...full('a', 15.25 * pound, 4 * pound, 1), ...full('b', 15 * pound, 4 * pound)]);
    expect(ranked.map(({ entrantId, score }) => [entrantId, score.steps]).slice(0, 2)).toEqual([
      ['b', 240],
      ['a', 240],
    ]);
    expect(ranked[0]?.tieBreak?.rule).toBe('more-alive');
  });

  it('score each bag by the sheet that held when it arrived', () => {
    const entries = [
      ...full('a', 15 * G_PER_POUND, 4 * G_PER_POUND, 1),
      ...full('b', 15 * G_PER_POUND, 4 * G_PER_POUND, 1),
    ];
    const { tickets } = weighInOf(entries);
    const [early, late] = [
      rules({ deadFish: { kind: 'deduction', steps: 4 } }),
      rules({ deadFish: { kind: 'deduction', steps: 8 } }),
    ];
    const ranked = rankTickets(
      late,
      ({ entrantId }) => (entrantId === 'a' ? early : late),
      ['a', 'b'],
      tickets,
      outs,
      { include: 'all' },
    );
    expect(ranked.map(({ entrantId, score }) => [entrantId, score.steps])).toEqual([
      ['a', 236],
      ['b', 232],
    ]);
  });

  it('count one bag of a boat and day: the first that was weighed, and the second is told', () => {
    const first = entry({ kind: 'queued', ticketId: 'first', entrantId: 'a', dayId: 'day', number: 1 });
    const entries = [first, ...full('a', 15 * G_PER_POUND, 4 * G_PER_POUND)];
    expect(weighInOf(entries).contradictions.map(({ why }) => why)).toEqual(['entrant-queued-twice']);
    expect(rank(entries)[0]).toMatchObject({ score: { steps: 240 }, tickets: [{ ticketId: 'a' }] });
    const both = [
      ...entries,
      entry(checked(5, 0, 0, null, 'first')),
      entry(weighed(10 * G_PER_POUND, 0, null, 'first')),
    ];
    expect(rank(both)[0]).toMatchObject({ score: { steps: 160 }, tickets: [{ ticketId: 'first' }] });
  });

  it('unsigned bags are provisional, and not in the official ones', () => {
    const entries = full('a', 15 * G_PER_POUND, 4 * G_PER_POUND);
    expect(rank(entries)[0]).toMatchObject({ provisionalSteps: 240, score: { steps: 240 } });
    expect(rank(entries, 'official')[0]).toMatchObject({ score: { steps: 0 }, tickets: [] });
    const signed = [...entries, entry(sign('angler', 'a')), entry(sign('weigh-master', 'a'))];
    expect(rank(signed, 'official')[0]).toMatchObject({ provisionalSteps: 0, score: { steps: 240 } });
  });
});

describe('the scale of the weigh-in', () => {
  const HOUR = 60 * MINUTE;
  const scale: NamedScale = { name: 'Bench', accuracyClass: 'III', kind: kindOfClass('III', 5, 15_000), checks: [], repeats: [] }; // prettier-ignore
  const at = (atMs: number, trueG: number, readG: number) => ({ atMs, trueG, readG });

  it('has its logbook among the entries, and a weight says which scale it was', () => {
    const bench = entry({ kind: 'scale', scaleId: 's', name: 'Bench', scale: scale.kind, accuracyClass: 'III' }); // prettier-ignore
    const check = entry({ kind: 'scale-check', scaleId: 's', trueG: 5000, readG: 5005 });
    const slip = entry({ kind: 'scale-check', scaleId: 's', trueG: 5000, readG: 500 });
    const entries = [queued(), bench, check, slip, entry({ kind: 'undone', entryId: slip.entryId }), entry(checked(5)), entry({ ...weighed(5000), scaleId: 's' })]; // prettier-ignore
    const { scales, tickets, contradictions } = weighInOf(entries);
    expect(scales.get('s')).toMatchObject({ name: 'Bench', checks: [{ trueG: 5000, readG: 5005 }] });
    expect(tickets[0]?.weight?.scaleId).toBe('s');
    expect(contradictions).toEqual([]);
  });

  it('that is not named leaves the weight as it was written before scales were named', () => {
    expect(ticketOf([queued(), entry(checked(5)), entry(weighed(5000))]).weight).not.toHaveProperty('scaleId'); // prettier-ignore
  });

  it('is doubted while nobody described or checked it, and again half a day later', () => {
    expect(scaleDoubts(undefined, null, 0)).toEqual(['unknown']);
    expect(scaleDoubts(scale, null, 0)).toEqual(['unchecked']);
    const good = { ...scale, checks: [at(0, 0, 0), at(0, 5000, 5005)] };
    expect(scaleDoubts(good, 5000, HOUR)).toEqual([]);
    expect(scaleDoubts(good, 5000, 13 * HOUR)).toEqual(['unchecked']);
  });

  it('is doubted when the last known weight on it was off, until a later one is right', () => {
    // 1000 divisions: two of them are allowed (NIST Handbook 44, 2.20, table 6).
    const off = { ...scale, checks: [at(0, 5000, 5015)] };
    expect(scaleDoubts(off, 5000, HOUR)).toEqual(['outside-tolerance']);
    // Half a day later it is due as well, but that it was off comes first.
    expect(scaleDoubts(off, 5000, 13 * HOUR)).toEqual(['outside-tolerance', 'unchecked']);
    const mended = { ...off, checks: [...off.checks, at(HOUR, 0, 0), at(HOUR, 5000, 5010)] };
    expect(scaleDoubts(mended, 5000, 2 * HOUR)).toEqual([]);
    expect(scaleDoubts({ ...off, accuracyClass: null }, 5000, HOUR)).toEqual([]);
  });

  it('is doubted under its smallest load', () => {
    const good = { ...scale, checks: [at(0, 5000, 5000)] };
    // 20 divisions of 5 g (NIST Handbook 44, 2.20, table 8).
    expect(scaleDoubts(good, 99, 0)).toEqual(['under-least-load']);
    expect(scaleDoubts(good, 100, 0)).toEqual([]);
  });
});
