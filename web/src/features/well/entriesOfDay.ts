import type { Command, WellView } from '@lauta/contract';
import { inOrder, liveWellOf, type WellEntry } from '@lauta/core/well';
import type { Asked } from '../../outbox/askedJson.ts';
import type { DayId, EntrantId, FishId } from '@lauta/core/ids';

type Waiting = Pick<Command, 'kind' | 'body'>;

/** The entries of a day: what the server has heard of and what still waits on this device, each once. */
export function entriesOfDay(
  view: WellView | undefined,
  waiting: readonly Waiting[],
  entrantId: EntrantId,
  dayId: DayId,
): WellEntry[] {
  const heard = view?.days.find((day) => day.dayId === dayId)?.entries ?? [];
  return inOrder([...heard, ...waiting.flatMap((command) => entriesOfCommand(command, entrantId, dayId))]);
}

/** What a command enters at the well of an entrant and day. */
export function entriesOfCommand(command: Waiting, entrantId: EntrantId, dayId: DayId): WellEntry[] {
  if (command.kind !== 'well.enter') return [];
  const body = command.body as { entrantId: EntrantId; dayId: DayId; entries: WellEntry[] };
  return body.entrantId === entrantId && body.dayId === dayId ? body.entries : [];
}

/** A view with entries put to it, as the server will have it. */
export function withEntries(
  view: Asked<WellView> | undefined,
  dayId: DayId,
  entries: readonly WellEntry[],
): Asked<WellView> {
  const days = view?.days ?? [];
  const day = days.find((one) => one.dayId === dayId) ?? { dayId, entries: [] };
  const others = days.filter((one) => one.dayId !== dayId);
  return { ...view, days: [...others, { dayId, entries: inOrder([...day.entries, ...entries]) }] };
}

/** Fish that an earlier day's list still has aboard: they were not let go, or nobody said so. */
export function carriedOver(
  view: WellView | undefined,
  waiting: readonly Waiting[],
  entrantId: EntrantId,
  earlierDayIds: readonly string[],
): { dayId: DayId; fishIds: FishId[] }[] {
  return earlierDayIds.flatMap((dayId) => {
    const { fish } = liveWellOf(entriesOfDay(view, waiting, entrantId, dayId));
    return fish.length === 0 ? [] : [{ dayId, fishIds: fish.map(({ fishId }) => fishId) }];
  });
}

/** The last entry that can be taken back. */
export function lastDone(entries: readonly WellEntry[], undone: ReadonlySet<string>): WellEntry | null {
  return entries.findLast(({ entryId, act }) => act.kind !== 'undone' && !undone.has(entryId)) ?? null;
}
