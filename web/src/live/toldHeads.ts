import { useEffect } from 'react';
import { z } from 'zod';
import { compareHead, keepHead, type BrokenPromise, type LedgerHead } from '@lauta/core/ledger';
import { appClockOffsetMs, onceClockSet } from '../clock/appClock.ts';
import { getJson } from '../door/ask.ts';
import { jsonOf, readStored, useStored, writeStored, type Preference } from '../device/stored.ts';
import { useWho } from '../session/who.ts';
import type { EventId } from '@lauta/core/ids';

const head = z.object({ seq: z.int(), hash: z.string() });
const keptSchema = z.object({
  told: z.array(head).readonly(),
  broken: head.extend({ now: z.string().nullable() }).nullable(),
});
type Kept = z.infer<typeof keptSchema>;

const NOTHING: Kept = { told: [], broken: null };

/** A demo that begins anew is another record under the same id: its clock was set off at another moment. */
const headsOf = (eventId: EventId): Preference<Kept> => ({
  key: `lauta-heads ${eventId} ${appClockOffsetMs()}`,
  parse: (text) => keptSchema.catch(NOTHING).parse(jsonOf(text)),
});

/** Keeps where the server said that an event's ledger ended; a stream may tell it before the server's time is known. */
export function rememberHead(
  eventId: EventId,
  { seq, hash }: { seq: number; hash?: string | undefined },
): void {
  if (hash !== undefined) onceClockSet(() => keep(eventId, { seq, hash }));
}

function keep(eventId: EventId, { seq, hash }: LedgerHead): void {
  const kept = readStored(headsOf(eventId));
  const told = keepHead(kept.told, { seq, hash });
  if (told === kept.told) return;
  writeStored(headsOf(eventId), { ...kept, told });
}

async function compare(eventId: EventId, told: LedgerHead): Promise<void> {
  const path = `/api/events/${eventId}/ledger/entries/${told.seq}/hash`;
  const { hash } = await getJson<{ hash: string | null }>(path);
  const broken = compareHead(told, hash);
  if (broken) writeStored(headsOf(eventId), { ...readStored(headsOf(eventId)), broken });
}

/**
 * Compares what this device was told with what stands now: the first head and the newest, each time that an event is
 * opened. A record that was cut off or written anew is found by every device that heard of it before.
 * @returns what was told and stands no more; null as long as all does
 */
export function useToldHeads(eventId: EventId): {
  told: readonly LedgerHead[];
  broken: BrokenPromise | null;
} {
  const who = useWho().data;
  const kept = useStored(headsOf(eventId));
  useEffect(() => {
    if (!who) return;
    const { told } = readStored(headsOf(eventId));
    const asked = [told[0], told.at(-1)].filter((one) => one !== undefined);
    // Without a network, or without the right to look, nothing is known and nothing said.
    for (const one of new Set(asked)) void compare(eventId, one).catch(() => undefined);
  }, [eventId, who]);
  return kept;
}
