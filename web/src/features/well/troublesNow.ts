import type { EventView } from '@lauta/contract';
import type { RuleSheet } from '@lauta/core/rules';
import { ROUND_MINUTES, wellTroubles, type LiveWell, type WellTrouble } from '@lauta/core/well';

/** Whether the day's last session has ended. */
export function areLinesOut(
  { sessions }: Pick<EventView, 'sessions'>,
  dayId: string,
  nowMs: number,
): boolean {
  const outs = sessions.filter((one) => one.dayId === dayId).map(({ linesOutAt }) => Date.parse(linesOutAt));
  return outs.length > 0 && nowMs > Math.max(...outs);
}

/** What is wrong aboard now. */
export function troublesNow(
  event: Pick<EventView, 'sessions'>,
  dayId: string,
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

export const countCarried = (carried: readonly { fishIds: readonly string[] }[]): number =>
  carried.reduce((sum, { fishIds }) => sum + fishIds.length, 0);
