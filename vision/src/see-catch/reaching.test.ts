import { describe, expect, it } from 'vitest';
import { GREEN, SKIN, block, seeDrawn, type Rgb } from './drawnCatch.test-data.ts';
import { seeReaching, type FishBox, type ReachingThing } from './reaching.ts';

const LENGTH_MM = 402;
/** From beyond the angler's edge onto the fish's axis, over so much of the board. */
const arm = (fromMm: number, toMm: number, colour: Rgb = SKIN, untilYMm = 62) => ({
  outlineMm: block(fromMm, toMm, untilYMm, 260),
  colour,
});

const cover = (thing: ReachingThing | undefined, box: Partial<FishBox>): number =>
  thing?.coverOf({ alongFrom: 0.4, alongTo: 0.5, acrossFrom: 0.4, acrossTo: 0.8, ...box }) ?? NaN;

describe('what reaches in over the edge', () => {
  const held = seeDrawn({ lengthMm: LENGTH_MM, things: [arm(170, 240)] });
  const things = seeReaching(held);
  const hand = things.find(({ side }) => side === 'near');

  it('is found where it crosses the edge', () => {
    expect(Math.abs((hand?.fromMm ?? NaN) - 170)).toBeLessThan(8);
    expect(Math.abs((hand?.toMm ?? NaN) - 240)).toBeLessThan(8);
  });

  it('is told from the fish by its own colour, cell by cell', () => {
    expect(cover(hand, { alongFrom: 0.46, alongTo: 0.56 })).toBeGreaterThan(0.85);
    expect(cover(hand, { alongFrom: 0.7, alongTo: 0.8 })).toBeLessThan(0.1);
    expect(cover(hand, { alongFrom: 0.1, alongTo: 0.3 })).toBeLessThan(0.1);
    expect(hand?.hides(205, 0.6)).toBe(true);
    expect(hand?.hides(320, 0.6)).toBe(false);
  });

  it('lies over the fish as far along as it was drawn', () => {
    const [from, to] = hand?.overMm ?? [NaN, NaN];
    expect(Math.abs(from - 170)).toBeLessThan(14);
    expect(Math.abs(to - 240)).toBeLessThan(14);
  });

  it('is told from a deep fish’s belly that hides the edge beside it, by what goes on outside', () => {
    const belly = { outlineMm: block(30, 330, 100, 152), colour: GREEN };
    const beside = seeReaching(seeDrawn({ lengthMm: LENGTH_MM, things: [belly, arm(60, 130)] }));
    const hand = beside.find(({ side, toMm }) => side === 'near' && toMm < 160);
    expect(Math.abs((hand?.fromMm ?? NaN) - 60)).toBeLessThan(14);
    expect(Math.abs((hand?.toMm ?? NaN) - 130)).toBeLessThan(14);
    // Without the arm nothing of it goes on outside.
    expect(seeReaching(seeDrawn({ lengthMm: LENGTH_MM, things: [belly] }))).toEqual([]);
  });

  it('is nothing on a free fish', () => {
    expect(seeReaching(seeDrawn({ lengthMm: LENGTH_MM }))).toEqual([]);
  });

  it('is found by hidden lines too, when it has the board’s own colour', () => {
    const glove = seeDrawn({
      lengthMm: LENGTH_MM,
      boardId: 'slate-75cm',
      colour: [168, 172, 150],
      things: [arm(60, 130, [38, 46, 54], 30)],
    });
    const found = seeReaching(glove).find(({ side }) => side === 'near');
    expect(found?.fromMm).toBeLessThan(75);
    expect(found?.toMm).toBeGreaterThan(110);
  });
});
