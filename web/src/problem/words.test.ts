import { describe, expect, it } from 'vitest';
import { PROBLEM_STATUS, type ProblemType } from '@lauta/contract';
import { ApiProblem } from '../door/ask.ts';
import { SignInGivenUp } from '../door/askToSignIn.ts';
import { problemWords, readingRefusalWords } from './words.ts';

const TYPES = Object.keys(PROBLEM_STATUS) as ProblemType[];
const wordsOf = (type: string, fields?: Record<string, unknown>) =>
  problemWords(new ApiProblem({ type, title: type, status: 400, ...(fields ? { fields } : {}) }));

describe('everything that can be refused', () => {
  it.each(TYPES)('%s is told in a sentence of the trade', (type) => {
    const words = wordsOf(type, { why: 'crossed' });
    expect(words).toMatch(/^[A-Z].*[.]$/);
    expect(words).not.toContain(type.includes('-') ? type : `“${type}”`);
  });

  it('tells different troubles apart, save those with the same remedy', () => {
    const told = new Set(TYPES.map((type) => wordsOf(type)));
    expect(told.size).toBeGreaterThanOrEqual(TYPES.length - 2);
  });

  it('says of a reading what is wrong with the handles', () => {
    expect(wordsOf('reading-refused', { why: 'crossed' })).toBe(readingRefusalWords('crossed'));
    expect(readingRefusalWords('something new')).toMatch(/Set them again|can be read/);
  });

  it('has words for what it does not know, and for a sign-in that was given up', () => {
    expect(wordsOf('a-type-to-come')).toBe(wordsOf('server-fault'));
    expect(problemWords(new SignInGivenUp('x'))).toMatch(/still here/);
    expect(problemWords(new Error('x'))).toMatch(/Reload/);
  });

  it('says that nothing is lost wherever something was typed', () => {
    for (const type of ['network', 'database-away', 'server-fault'])
      expect(wordsOf(type)).toMatch(/still here/);
  });
});
