import { describe, expect, it } from 'vitest';
import { firstMarks } from '../../bench/handles.ts';
import { MARKS, MARK_WORDS, wishOf, type Told } from './learnWish.ts';

const marks = firstMarks(2000, 1500);
const told: Told = { unit: 'in', lower: '2', higher: '28', widthMm: '', hasWall: false };
const asked = (part: Partial<Told>) => wishOf({ ...told, ...part }, marks, 24);

describe('what the bench is asked of an empty board', () => {
  it('are both lines with their ends, far and near, the lower first', () => {
    const result = asked({ hasWall: true });
    expect(result).toEqual({
      ok: true,
      wish: {
        unit: 'in',
        lines: [
          { value: 2, far: marks.corners[0], near: marks.corners[3] },
          { value: 28, far: marks.corners[1], near: marks.corners[2] },
        ],
        focal35Mm: 24,
        hasWall: true,
        widthMm: null,
      },
    });
  });

  it.each([
    ['2.5', 2.5],
    ['2,5', 2.5],
    [' 10 ', 10],
    ['0', 0],
  ])('takes %j as a number', (lower, value) => {
    const result = asked({ lower });
    expect(result.ok && result.wish.lines[0].value).toBe(value);
  });

  it.each([
    ['no number', { higher: '' }],
    ['a word', { lower: 'two' }],
    ['a minus', { lower: '-2' }],
    ['an exponent', { higher: '1e3' }],
    ['a fraction', { lower: '1/2' }],
    ['two numbers', { lower: '1 2' }],
  ])('and says that %s is missing or wrong', (_, part) => {
    expect(asked(part)).toEqual({ ok: false, missing: 'Tell the numbers of both marked lines.' });
  });

  it.each([
    ['the same', '2', '2'],
    ['the other way round', '28', '2'],
    ['less than a unit apart', '2', '2.9'],
  ])('and that the numbers are %s', (_, lower, higher) => {
    const result = asked({ lower, higher });
    expect(!result.ok && result.missing).toMatch(/a unit or more above/);
  });

  it.each(['12', '601', 'broad', '0'])('and that a board is not %s mm wide', (widthMm) => {
    const result = asked({ widthMm });
    expect(!result.ok && result.missing).toMatch(/30 to 600/);
  });

  it('takes a breadth by a ruler', () => {
    const result = asked({ widthMm: '152,5' });
    expect(result.ok && result.wish.widthMm).toBe(152.5);
  });
});

describe('the marks', () => {
  it('have a word each, and all different ones', () => {
    const words = MARKS.map((id) => MARK_WORDS[id]);
    expect(new Set(words.map(({ short }) => short)).size).toBe(4);
    for (const { where } of words) expect(where).toMatch(/line meets the edge/);
  });
});
