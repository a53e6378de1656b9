import type { EventView } from '@lauta/contract';
import { linesOutOfDay } from '@lauta/core/schedule';
import { sessionTimes } from '../../event/dayOfNow.ts';
import type { RuleSheet } from '@lauta/core/rules';
import { ROUND_MINUTES, wellTroubles, type LiveWell, type WellTrouble } from '@lauta/core/well';
import type { DayId, FishId } from '@lauta/core/ids';

/** Whether the day's last session has ended. */
export function areLinesOut(event: Pick<EventView, 'sessions'>, dayId: DayId, nowMs: number): boolean {
  return nowMs > linesOutOfDay(sessionTimes(event), dayId);
}

/** What is wrong aboard now. */
export function troublesNow(
  event: Pick<EventView, 'sessions'>,
  dayId: DayId,
  sheet: RuleSheet,
  well: LiveWell,
  carriedOver: number,
  nowMs: number,
): WellTrouble[] {
  return wellTroubles(sheet, well, {
    nowMs,
    isOver: areLinesOut(event, dayId, nowMs),
    carriedOver,
    roundMinutes: ROUND_MINUTES,
  });
}

export const countCarried = (carried: readonly { fishIds: readonly FishId[] }[]): number =>
  carried.reduce((sum, { fishIds }) => sum + fishIds.length, 0);
