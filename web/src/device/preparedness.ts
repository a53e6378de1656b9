import { useCallback, useMemo } from 'react';
import { z } from 'zod';
import {
  CRAFTS,
  SELF_CHECKS,
  routineOf,
  type Craft,
  type GateStep,
  type SelfCheck,
} from '@lauta/core/planning';
import { jsonOf, readStored, useStored, writeStored, type Preference } from './stored.ts';
import type { DayId, EventId } from '@lauta/core/ids';

/** What a person has ticked for one day, and what Lauta saw; it stays on the device. */
export interface Preparedness {
  craft: Craft;
  ticked: readonly string[];
  checks: Readonly<Partial<Record<SelfCheck, boolean>>>;
}

const NOTHING: Preparedness = { craft: 'kayak', ticked: [], checks: {} };

const preparednessSchema = z.object({
  craft: z.enum(CRAFTS).catch(NOTHING.craft),
  ticked: z
    .array(z.unknown())
    .catch([])
    .transform((all) => all.filter((one) => typeof one === 'string')),
  checks: z
    .record(z.string(), z.unknown())
    .catch({})
    .transform((seen) =>
      Object.fromEntries(
        SELF_CHECKS.flatMap((check) => (typeof seen[check] === 'boolean' ? [[check, seen[check]]] : [])),
      ),
    ),
});

/** What is stored, as far as it fits. */
export function parsePreparedness(text: string | null): Preparedness {
  const found = preparednessSchema.safeParse(jsonOf(text));
  return found.success ? found.data : NOTHING;
}

const readinessFor = (eventId: EventId, dayId: DayId): Preference<Preparedness> => ({
  key: `lauta-ready-${eventId}-${dayId}`,
  parse: parsePreparedness,
});

/** How ready a person is for a day. */
export function usePreparedness(eventId: EventId, dayId: DayId) {
  const stored = useMemo(() => readinessFor(eventId, dayId), [eventId, dayId]);
  const prepared = useStored(stored);
  const change = useCallback(
    (part: Partial<Preparedness>) => writeStored(stored, { ...readStored(stored), ...part }),
    [stored],
  );
  const see = useCallback(
    (check: SelfCheck, isGood: boolean | null) => {
      const former = readStored(stored);
      if (isGood === null || former.checks[check] === isGood) return;
      writeStored(stored, { ...former, checks: { ...former.checks, [check]: isGood } });
    },
    [stored],
  );
  return { prepared, change, see };
}

const ROUTINE: Preference<readonly GateStep[]> = {
  key: 'lauta-routine',
  parse: (text) => routineOf(z.array(z.string()).catch([]).parse(jsonOf(text))),
};

/** Each person's own order before a lift. */
export function useRoutine() {
  const routine = useStored(ROUTINE);
  return { routine, setRoutine: (next: readonly GateStep[]) => writeStored(ROUTINE, next) };
}

const CLOCK_OFFSET: Preference<number | null> = {
  key: 'lauta-clock-offset',
  parse: (text) => (text !== null && Number.isFinite(Number(text)) ? Math.round(Number(text)) : null),
};

/** The device's clock less the server's, ms, as it was measured last; null before. */
export function lastClockOffset(): number | null {
  return readStored(CLOCK_OFFSET);
}

export function keepClockOffset(offsetMs: number): void {
  writeStored(CLOCK_OFFSET, Math.round(offsetMs));
}
