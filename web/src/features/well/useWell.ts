import { useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { EventView, WellView } from '@lauta/contract';
import { instantsAfter } from '@lauta/core/act-list';
import type { RuleSheet } from '@lauta/core/rules';
import { SCALE_KINDS } from '@lauta/core/scale';
import {
  inOrder,
  liveWellOf,
  refusalOf,
  wellOutlook,
  type LiveWell,
  type WellAct,
  type WellEntry,
  type WellOutlook,
  type WellRefusal,
} from '@lauta/core/well';
import { appNow } from '../../clock/appClock.ts';
import type { Asked } from '../../outbox/askedJson.ts';
import { outbox, useKeptCommands } from '../../outbox/outbox.ts';
import { useEntryList } from '../../outbox/useEntryList.ts';
import { useWellView, wellKey } from '../../queries/wells.ts';
import { carriedOver, entriesOfCommand, entriesOfDay, lastDone, withEntries } from './entriesOfDay.ts';
import type { DayId, EntrantId, FishId, ScaleId } from '@lauta/core/ids';

export interface WellOnPage {
  well: LiveWell;
  outlook: WellOutlook;
  entries: WellEntry[];
  carried: { dayId: DayId; fishIds: FishId[] }[];
  /** The last thing that can be taken back. */
  last: WellEntry | null;
  /** Does acts in one go, or none of them: gives back why not. */
  enter: (acts: readonly WellAct[]) => WellRefusal | null;
  /** The scale that weights are read off, described where nobody did. */
  scaleId: ScaleId;
  /** Lets go what an earlier day's list still holds. */
  emptyEarlierDays: () => void;
  /** What went wrong when something was to be kept. */
  error: unknown;
}

export const USUAL_SCALE_ID = 'hanging-scale';

/** The well of an entrant on a day: what the server heard and what this device put there since. */
export function useWellList(
  { eventId, days }: Pick<EventView, 'eventId' | 'days'>,
  entrantId: EntrantId,
  dayId: DayId,
) {
  const view = useWellView(eventId, entrantId);
  const kept = useKeptCommands(view.data?.askedAtMs);
  const commands = useMemo(() => kept.map(({ command }) => command), [kept]);
  const heard = useMemo(() => entriesOfDay(view.data, [], entrantId, dayId), [view.data, entrantId, dayId]);
  const here = useMemo(
    () => commands.flatMap((command) => entriesOfCommand(command, entrantId, dayId)),
    [commands, entrantId, dayId],
  );
  const list = useEntryList(heard, here);
  const entries = useMemo(() => inOrder(list.entries), [list.entries]);
  const well = useMemo(() => liveWellOf(entries), [entries]);
  const carried = useMemo(
    () => carriedOver(view.data, commands, entrantId, daysBefore(days, dayId)),
    [view.data, commands, entrantId, days, dayId],
  );
  return { view, commands, list, entries, well, carried };
}

/** That well with what follows from it, and the one way to add to it. */
export function useWell(
  event: Pick<EventView, 'eventId' | 'days'>,
  entrantId: EntrantId,
  dayId: DayId,
  sheet: RuleSheet,
) {
  const { eventId } = event;
  const { view, commands, list, entries, well, carried } = useWellList(event, entrantId, dayId);
  const client = useQueryClient();
  const outlook = useMemo(() => wellOutlook(sheet, well), [sheet, well]);
  const made = (known: readonly WellEntry[], acts: readonly WellAct[]): WellEntry[] => {
    const instants = instantsAfter(known, appNow().getTime(), acts.length);
    return acts.map((act, i) => ({ entryId: uuidv7(), atMs: instants[i] ?? appNow().getTime(), act }));
  };
  const write = async (day: string, own: WellEntry[]): Promise<void> => {
    await outbox.keep('well.enter', eventId, { entrantId, dayId: day, entries: own });
    client.setQueryData<Asked<WellView>>(wellKey(eventId, entrantId), (heard) =>
      withEntries(heard, day, own),
    );
  };
  const enter = (acts: readonly WellAct[]): WellRefusal | null => {
    const described = withScale(liveWellOf(list.latest()), acts);
    let so = list.latest();
    for (const [i, act] of described.entries()) {
      const refusal = refusalOf(sheet, liveWellOf(so), act);
      if (refusal) return refusal;
      so = [...so, { entryId: `tried-${i}`, atMs: Number.MAX_SAFE_INTEGER, act }];
    }
    const own = made(list.latest(), described);
    list.keep(own, () => write(dayId, own));
    return null;
  };
  const [error, setError] = useState<unknown>(null);
  const emptyEarlierDays = (): void => {
    for (const { dayId: day, fishIds } of carried) {
      const own = made(
        entriesOfDay(view.data, commands, entrantId, day),
        fishIds.map((fishId) => ({ kind: 'released', fishId, reason: 'weighed-in', airSeconds: null })),
      );
      void write(day, own).catch(setError);
    }
  };
  const onPage: WellOnPage = {
    well,
    outlook,
    entries,
    carried,
    last: lastDone(entries, well.undone),
    enter,
    scaleId: [...well.scales.keys()].at(-1) ?? USUAL_SCALE_ID,
    emptyEarlierDays,
    error: list.error ?? error,
  };
  return { view, onPage };
}

/** A first weight needs a scale; until somebody describes it, it is one that is honest to an ounce or so. */
function withScale(well: LiveWell, acts: readonly WellAct[]): WellAct[] {
  const isNeeded = acts.some(
    (act) =>
      'scaleId' in act &&
      act.kind !== 'scale' &&
      act.scaleId === USUAL_SCALE_ID &&
      !well.scales.has(act.scaleId),
  );
  const scale: WellAct = { kind: 'scale', scaleId: USUAL_SCALE_ID, name: 'Hanging scale', scale: SCALE_KINDS.usual }; // prettier-ignore
  return isNeeded ? [scale, ...acts] : [...acts];
}

function daysBefore(days: EventView['days'], dayId: DayId): string[] {
  const seq = days.find((day) => day.dayId === dayId)?.seq ?? 0;
  return days.filter((day) => day.seq < seq).map((day) => day.dayId);
}
