import { describe, expect, it } from 'vitest';
import { inOrder, instantsAfter, undoneOf, type Acted } from './index.ts';

const entry = (entryId: string, atMs: number, act: Acted['act'] = { kind: 'looked' }): Acted => ({ entryId, atMs, act }); // prettier-ignore

describe('a list of acts', () => {
  it('has one order, whatever came first, and each entry once', () => {
    const [a, b, c] = [entry('a', 10), entry('b', 10), entry('c', 5)];
    expect(inOrder([b, a, c, a]).map(({ entryId }) => entryId)).toEqual(['c', 'a', 'b']);
  });

  it('goes on after what is known, however far the clock was set back', () => {
    const known = [entry('a', 5000), entry('b', 9000)];
    expect(instantsAfter(known, 1000, 3)).toEqual([9001, 9002, 9003]);
    expect(instantsAfter(known, 20_000, 2)).toEqual([20_000, 20_001]);
    expect(instantsAfter([], 7, 1)).toEqual([7]);
    // Ids that a clock set back would sort before the others change nothing.
    const [atMs = 0] = instantsAfter(known, 1000, 1);
    expect(inOrder([entry('0', atMs), ...known]).at(-1)?.entryId).toBe('0');
  });

  it('takes an undo back by another', () => {
    const undo = (id: string, atMs: number, of: string): Acted =>
      entry(id, atMs, { kind: 'undone', entryId: of });
    const [a, b, c] = [entry('a', 1), undo('b', 2, 'a'), undo('c', 3, 'b')];
    expect([...undoneOf([a, b])]).toEqual(['a']);
    expect([...undoneOf([a, b, c])]).toEqual(['b']);
  });
});
