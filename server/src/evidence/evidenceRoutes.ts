import { may } from '@lauta/core/people';
import { refuse } from '../base/refusal.ts';
import { catchScope } from '../catch/catchScope.ts';
import { idParameter, type RouteTable } from '../http/routeTable.ts';
import { benchReading } from './benchReading.ts';
import type { AccountId } from '@lauta/core/ids';

/** Of the bench's queue, at once: judges of all events are never behind one angler's readings. */
const MOST_READINGS = { judge: 24, angler: 4 };

export function addEvidenceRoutes(table: RouteTable): void {
  const shares = openShares();

  table.allowed(
    'get',
    '/api/catches/:catchId/bench-reading',
    'see-original',
    catchScope,
    async ({ lauta, request, account }, _scope, subject) => {
      // A judge who fishes learns of the own catch what an angler does.
      const isForJudge = may('judge-catch', subject);
      return shares.take(
        account?.accountId ?? '',
        isForJudge ? MOST_READINGS.judge : MOST_READINGS.angler,
        () =>
          benchReading(lauta, idParameter(request, 'catchId'), {
            isUrgent: isForJudge && request.query['ahead'] !== 'true',
            isForJudge,
          }),
      );
    },
  );
}

/** Counts what each account has under way; more than its share is refused for the moment. */
function openShares() {
  const running = new Map<string, number>();
  return {
    async take<T>(accountId: AccountId, most: number, act: () => Promise<T>): Promise<T> {
      const now = running.get(accountId) ?? 0;
      if (now >= most) refuse('bench-busy');
      running.set(accountId, now + 1);
      try {
        return await act();
      } finally {
        const left = (running.get(accountId) ?? 1) - 1;
        if (left > 0) running.set(accountId, left);
        else running.delete(accountId);
      }
    },
  };
}
