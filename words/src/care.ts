import type { ClockPhase, HookPlace, LeftWith, SchoolPlace, SignSeen, WaterStep } from '@lauta/core/care';
import { G_PER_POUND, type LengthUnit } from '@lauta/core/units';

export const PLACE_WORDS: Record<SchoolPlace, string> = {
  prepare: 'Before launch',
  landing: 'At the net',
  lift: 'Out of the water',
  photographs: 'Photographs',
  release: 'Release',
  well: 'The well',
  judging: 'Judging',
};

export const PHASE_WORDS: Record<ClockPhase, string> = {
  idle: 'No fish on',
  fight: 'Fight',
  net: 'Resting in the net',
  air: 'Out of the water',
  over: 'Over',
};

export const STEP_WORDS: Record<WaterStep, string> = {
  hooked: 'Fish on',
  netted: 'In the net',
  lifted: 'Lift',
  returned: 'Back in the water',
  released: 'Released',
  lost: 'It got away',
};

export const HOOK_WORDS: Record<HookPlace, string> = {
  lip: 'lip',
  tongue: 'tongue',
  deep: 'deep',
  gills: 'gills',
  outside: 'outside',
};

export const LEFT_WITH_WORDS: Record<LeftWith, string> = {
  hook: 'hook left in',
  'torn-jaw': 'torn jaw',
  'lost-scales': 'lost scales',
  'hurt-eye': 'hurt eye',
  'dressed-wound': 'wound dressed',
};

export const SEEN_WORDS: Record<SignSeen, string> = { yes: 'yes', no: 'no', doubtful: 'unsure' };

/** A weight to look at, not to score by: pounds and ounces beside inches, kilograms beside centimetres. */
export function massWords(massG: number, unit: LengthUnit): string {
  if (unit !== 'in') return `${(massG / 1000).toFixed(1)} kg`;
  const ounces = Math.round((16 * massG) / G_PER_POUND);
  const pounds = Math.floor(ounces / 16);
  return (
    [pounds > 0 && `${pounds} lb`, ounces % 16 > 0 && `${ounces % 16} oz`].filter(Boolean).join(' ') || '0 oz'
  );
}

/** Minutes and seconds, as a stopwatch shows them. */
export function stopwatch(ms: number): string {
  const seconds = Math.floor(ms / 1000);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}
