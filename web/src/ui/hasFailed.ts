import type { QueryObserverLoadingErrorResult, UseQueryResult } from '@tanstack/react-query';
import { ApiProblem } from '../door/ask.ts';

/**
 * Whether a page must say that it could not fetch something. Without a network it goes on showing what was known; what
 * the server refuses is not shown any more.
 */
export function hasFailed<T>(query: UseQueryResult<T>): query is QueryObserverLoadingErrorResult<T> {
  const { isError, data, error } = query;
  return isError && (data === undefined || !(error instanceof ApiProblem && error.isPassing));
}
