import { describe, expect, it } from 'vitest';
import type { UseQueryResult } from '@tanstack/react-query';
import { ApiProblem } from '../door/ask.ts';
import { hasFailed } from './hasFailed.ts';

const problem = (type: string, status: number) => new ApiProblem({ type, title: '', status });

describe('a page', () => {
  it.each([
    ['goes on with what was known when nothing answers', true, [1], problem('network', 0), false],
    ['goes on while the server comes back', true, [1], problem('server-fault', 502), false],
    ['fails when nothing was known', true, undefined, problem('network', 0), true],
    ['fails when the server refuses, whatever was known', true, [1], problem('not-found', 404), true],
    ['fails after a fault of its own', true, [1], new Error('stumbled'), true],
    ['does not fail otherwise', false, [1], null, false],
  ])('%s', (_what, isError, data, error, failed) => {
    expect(hasFailed({ isError, data, error } as UseQueryResult<unknown>)).toBe(failed);
  });
});
