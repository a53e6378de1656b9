/** What an angler sets out from. */
export const CRAFTS = ['kayak', 'boat', 'bank'] as const;
export type Craft = (typeof CRAFTS)[number];

export const PREPARE_GROUPS = [
  'hook-and-line',
  'landing',
  'measuring',
  'photographing',
  'well-and-scale',
  'safety',
] as const;
export type PrepareGroup = (typeof PREPARE_GROUPS)[number];

/** What Lauta itself can look at before launch. */
export const SELF_CHECKS = ['test-photo', 'battery', 'storage', 'clock', 'at-hand', 'code'] as const;
export type SelfCheck = (typeof SELF_CHECKS)[number];

/** One thing to have ready before launch (common practice, no source). */
interface Definition {
  id: string;
  group: PrepareGroup;
  /** Whom it concerns; everyone where it is absent. */
  crafts?: readonly Craft[];
  /** Only where fish are photographed on a board, or kept and weighed; both where it is absent. */
  format?: 'length' | 'weight';
  /** Lauta ticks it by what it sees. */
  check?: SelfCheck;
}

const AFLOAT = ['kayak', 'boat'] as const;

const ITEMS = [
  { id: 'strong-line', group: 'hook-and-line' },
  { id: 'barbs', group: 'hook-and-line' },
  { id: 'long-tools', group: 'hook-and-line' },
  { id: 'unhooking', group: 'hook-and-line' },
  { id: 'net', group: 'landing' },
  { id: 'net-tether', group: 'landing', crafts: ['kayak'] },
  { id: 'wet-surface', group: 'landing' },
  { id: 'mat', group: 'landing', crafts: ['bank'] },
  { id: 'board', group: 'measuring', format: 'length' },
  { id: 'stop-mark', group: 'measuring', format: 'length' },
  { id: 'card', group: 'measuring', check: 'code' },
  { id: 'card-leash', group: 'measuring', format: 'length' },
  { id: 'tape', group: 'measuring' },
  { id: 'test-photo', group: 'photographing', check: 'test-photo' },
  { id: 'lens', group: 'photographing' },
  { id: 'mount', group: 'photographing' },
  { id: 'battery', group: 'photographing', check: 'battery' },
  { id: 'storage', group: 'photographing', check: 'storage' },
  { id: 'clock', group: 'photographing', check: 'clock' },
  { id: 'at-hand', group: 'photographing', check: 'at-hand' },
  { id: 'well', group: 'well-and-scale', crafts: ['boat'], format: 'weight' },
  { id: 'tags', group: 'well-and-scale', format: 'weight' },
  { id: 'scale', group: 'well-and-scale', format: 'weight' },
  { id: 'beam', group: 'well-and-scale', format: 'weight' },
  { id: 'vest', group: 'safety', crafts: AFLOAT },
  { id: 'plan', group: 'safety' },
  { id: 'first-aid', group: 'safety' },
  { id: 'weather', group: 'safety' },
] as const satisfies readonly Definition[]; // prettier-ignore

export type PrepareItemId = (typeof ITEMS)[number]['id'];
export type PrepareItem = Omit<Definition, 'id'> & { id: PrepareItemId };
export const PREPARE_ITEMS: readonly PrepareItem[] = ITEMS;

/** The list for an event's format and a person's craft, in the order of the groups. */
export function prepareList(format: 'length' | 'weight', craft: Craft): PrepareItem[] {
  return PREPARE_GROUPS.flatMap((group) =>
    PREPARE_ITEMS.filter(
      (item) =>
        item.group === group &&
        (item.crafts?.includes(craft) ?? true) &&
        (item.format === undefined || item.format === format),
    ),
  );
}

export interface Readiness {
  done: number;
  of: number;
  /** Checks of Lauta's own that failed: they weigh more than a tick that is wanting. */
  failed: readonly SelfCheck[];
  isReady: boolean;
}

/**
 * @param ticked ids that the person has ticked
 * @param checks what Lauta saw; absent where it has not looked, or cannot
 */
export function readinessOf(
  list: readonly PrepareItem[],
  ticked: ReadonlySet<string>,
  checks: Readonly<Partial<Record<SelfCheck, boolean>>>,
): Readiness {
  const isDone = ({ id, check }: PrepareItem): boolean =>
    ticked.has(id) || (check !== undefined && checks[check] === true);
  const done = list.filter(isDone).length;
  const failed = SELF_CHECKS.filter((check) => checks[check] === false);
  return { done, of: list.length, failed, isReady: done === list.length && failed.length === 0 };
}

/** What is made ready before each lift; each person's routine is an order of these. */
export const GATE_STEPS = ['board-wet', 'card-down', 'camera-open', 'hands-wet'] as const;
export type GateStep = (typeof GATE_STEPS)[number];

/** A routine as it was stored: each step once, what is missing at the end, what nobody knows left out. */
export function routineOf(stored: readonly string[]): GateStep[] {
  const known = stored.flatMap((step) => GATE_STEPS.find((one) => one === step) ?? []);
  return [...new Set([...known, ...GATE_STEPS])];
}

/** The routine with one step moved up or down by one. */
export function movedStep(routine: readonly GateStep[], step: GateStep, by: -1 | 1): GateStep[] {
  const from = routine.indexOf(step);
  const other = from < 0 ? undefined : routine[from + by];
  if (other === undefined) return [...routine];
  return routine.map((one) => (one === step ? other : one === other ? step : one));
}
