import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { BagsView, WeighInView } from '@lauta/contract';
import { instantsAfter } from '@lauta/core/act-list';
import type { WeightSheet } from '@lauta/core/rules';
import {
  weighInOf,
  weighInRefusal,
  type WeighIn,
  type WeighInAct,
  type WeighInEntry,
  type WeighInRefusal,
} from '@lauta/core/weigh-in';
import { appNow } from '../clock/appClock.ts';
import { getJson } from '../door/ask.ts';
import { askedJson, type Asked } from './askedJson.ts';
import { outbox, useKeptCommands } from './outbox.ts';
import type { KeptCommand } from './sentStore.ts';
import { useEntryList } from './useEntryList.ts';
import type { AccountId, DayId, EventId } from '@lauta/core/ids';

const keyOf = (eventId: EventId) => ['event', eventId, 'weigh-in'] as const;

export function useWeighInView(eventId: EventId) {
  return useQuery({
    queryKey: keyOf(eventId),
    queryFn: ({ signal }) => askedJson<WeighInView>(`/api/events/${eventId}/weigh-in`, signal),
  });
}

export function useBags(eventId: EventId, isWanted: boolean) {
  return useQuery({
    queryKey: ['event', eventId, 'bags'],
    enabled: isWanted,
    queryFn: ({ signal }) => getJson<BagsView>(`/api/events/${eventId}/bags`, signal),
  });
}

/** What a command of this device enters at an event's scale: it was done by whoever kept it. */
function entriesOfKept({ command, accountId }: KeptCommand, eventId: EventId): WeighInEntry[] {
  if (command.kind !== 'weigh-in.enter' || command.eventId !== eventId) return [];
  const { entries } = command.body as { entries: Omit<WeighInEntry, 'accountId'>[] };
  return entries.map((entry): WeighInEntry => ({ ...entry, accountId }));
}

const NONE: readonly WeighInEntry[] = [];

export interface WeighInOnPage {
  weighIn: WeighIn;
  entries: WeighInEntry[];
  /** Does acts in one go, or none of them: gives back why not. */
  enter: (acts: readonly WeighInAct[]) => WeighInRefusal | null;
  error: unknown;
}

/** The weigh-in of an event, with what was done on this device since. */
export function useWeighIn(eventId: EventId, sheet: WeightSheet, accountId: AccountId) {
  const view = useWeighInView(eventId);
  const kept = useKeptCommands(view.data?.askedAtMs);
  const client = useQueryClient();
  const here = useMemo(() => kept.flatMap((one) => entriesOfKept(one, eventId)), [kept, eventId]);
  const { entries, latest, keep, error } = useEntryList(view.data?.entries ?? NONE, here);
  const weighIn = useMemo(() => weighInOf(entries), [entries]);
  const enter = (acts: readonly WeighInAct[]): WeighInRefusal | null => {
    let so = latest();
    for (const [i, act] of acts.entries()) {
      const refusal = weighInRefusal(sheet, weighInOf(so), act, accountId);
      if (refusal) return refusal;
      so = [...so, { entryId: `tried-${i}`, atMs: Number.MAX_SAFE_INTEGER, accountId, act }];
    }
    const instants = instantsAfter(latest(), appNow().getTime(), acts.length);
    const own = acts.map((act, i): WeighInEntry => ({
      entryId: uuidv7(),
      atMs: instants[i] ?? appNow().getTime(),
      accountId,
      act,
    }));
    keep(own, async () => {
      // Who did it is whoever sends it.
      const sent = own.map(({ entryId, atMs, act }) => ({ entryId, atMs, act }));
      await outbox.keep('weigh-in.enter', eventId, { entries: sent });
      client.setQueryData<Asked<WeighInView>>(keyOf(eventId), (heard) =>
        heard ? { ...heard, entries: [...heard.entries, ...own] } : heard,
      );
    });
    return null;
  };
  const onPage: WeighInOnPage = { weighIn, entries, enter, error };
  return { view, onPage };
}

/** The next free number of a day. */
export function nextNumber({ tickets }: WeighIn, dayId: DayId): number {
  return 1 + Math.max(0, ...tickets.filter((ticket) => ticket.dayId === dayId).map(({ number }) => number));
}
