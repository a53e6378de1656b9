import { useCallback } from 'react';
import {
  CRAFTS,
  SELF_CHECKS,
  routineOf,
  type Craft,
  type GateStep,
  type SelfCheck,
} from '@lauta/core/planning';
import { readStored, useStored, writeStored } from './stored.ts';

/** What a person has ticked for one day, and what Lauta saw; it stays on the device. */
export interface Preparedness {
  craft: Craft;
  ticked: readonly string[];
  checks: Readonly<Partial<Record<SelfCheck, boolean>>>;
}

const NOTHING: Preparedness = { craft: 'kayak', ticked: [], checks: {} };

/** What is stored, as far as it fits. */
export function parsePreparedness(text: string | null): Preparedness {
  let stored: unknown;
  try {
    stored = JSON.parse(text ?? '{}');
  } catch {
    return NOTHING;
  }
  if (typeof stored !== 'object' || stored === null) return NOTHING;
  const { craft, ticked, checks } = stored as Record<string, unknown>;
  const seen = typeof checks === 'object' && checks !== null ? (checks as Record<string, unknown>) : {};
  return {
    craft: CRAFTS.find((one) => one === craft) ?? NOTHING.craft,
    ticked: Array.isArray(ticked) ? ticked.filter((one): one is string => typeof one === 'string') : [],
    checks: Object.fromEntries(
      SELF_CHECKS.flatMap((check) => (typeof seen[check] === 'boolean' ? [[check, seen[check]]] : [])),
    ),
  };
}

const keyOf = (eventId: string, dayId: string): string => `lauta-ready-${eventId}-${dayId}`;

/** How ready a person is for a day. */
export function usePreparedness(eventId: string, dayId: string) {
  const key = keyOf(eventId, dayId);
  const prepared = useStored(key, parsePreparedness);
  const change = useCallback(
    (part: Partial<Preparedness>) => writeStored(key, { ...readStored(key, parsePreparedness), ...part }),
    [key],
  );
  const see = useCallback(
    (check: SelfCheck, isGood: boolean | null) => {
      const former = readStored(key, parsePreparedness);
      if (isGood === null || former.checks[check] === isGood) return;
      writeStored(key, { ...former, checks: { ...former.checks, [check]: isGood } });
    },
    [key],
  );
  return { prepared, change, see };
}

const ROUTINE_KEY = 'lauta-routine';

function parseRoutine(text: string | null): GateStep[] {
  try {
    const stored: unknown = JSON.parse(text ?? '[]');
    return routineOf(
      Array.isArray(stored) ? stored.filter((one): one is string => typeof one === 'string') : [],
    );
  } catch {
    return routineOf([]);
  }
}

/** Each person's own order before a lift. */
export function useRoutine() {
  const routine = useStored(ROUTINE_KEY, parseRoutine);
  return { routine, setRoutine: (next: readonly GateStep[]) => writeStored(ROUTINE_KEY, next) };
}

const CLOCK_KEY = 'lauta-clock-offset';

function parseOffset(text: string | null): number | null {
  const offsetMs = Number(text ?? NaN);
  return Number.isFinite(offsetMs) ? Math.round(offsetMs) : null;
}

/** The device's clock less the server's, ms, as it was measured last; null before. */
export function lastClockOffset(): number | null {
  return parseOffset(localStorage.getItem(CLOCK_KEY));
}

export function keepClockOffset(offsetMs: number): void {
  localStorage.setItem(CLOCK_KEY, String(Math.round(offsetMs)));
}
