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

/** One thing to have ready, why, and how to check it (common practice, no source). */
export interface PrepareItem {
  id: string;
  group: PrepareGroup;
  what: string;
  why: string;
  how: string;
  /** Whom it concerns; everyone where it is absent. */
  crafts?: readonly Craft[];
  /** Only where fish are photographed on a board, or kept and weighed; both where it is absent. */
  format?: 'length' | 'weight';
  /** Lauta ticks it by what it sees. */
  check?: SelfCheck;
}

const AFLOAT = ['kayak', 'boat'] as const;

export const PREPARE_ITEMS: readonly PrepareItem[] = [
  { id: 'strong-line', group: 'hook-and-line', what: 'Line and rod strong enough for a short fight', why: 'A fish that is landed fresh needs the least reviving.', how: 'Pull the knot by hand; retie after every snag.' },
  { id: 'barbs', group: 'hook-and-line', what: 'Barbs flattened, single hooks where the lure allows', why: 'The hook is out in seconds, and out of a hand as well.', how: 'Draw each hook through a cloth: it must not catch.' },
  { id: 'long-tools', group: 'hook-and-line', what: 'Long forceps, a disgorger, side cutters', why: 'A hook deeper than fingers reach is turned out or cut, not torn.', how: 'Each hangs on its cord within reach of the seat.' },
  { id: 'unhooking', group: 'hook-and-line', what: 'Unhooking practised', why: 'The first try should not be on a fish.', how: 'Take a hook out of a piece of foam with wet gloves on.' },
  { id: 'net', group: 'landing', what: 'Deep knotless rubber net, its handle fits the craft', why: 'The fish rests in it under water while you make ready.', how: 'Hang it over the side: the bag must be under water by itself.' },
  { id: 'net-tether', group: 'landing', what: 'Net and board on a leash', why: 'What goes overboard is gone, with the day.', how: 'Drop each once at the ramp.', crafts: ['kayak'] },
  { id: 'wet-surface', group: 'landing', what: 'A wet place for the fish, in shade', why: 'Hot boards and carpets burn slime and skin.', how: 'Lay a hand on it for five seconds: it must feel cool.' },
  { id: 'mat', group: 'landing', what: 'Unhooking mat and a bucket of water', why: 'On the bank nothing else keeps a fish off the ground.', how: 'The mat is wet and lies where you will kneel.', crafts: ['bank'] },
  { id: 'board', group: 'measuring', what: 'An approved board, its lines dark, stop tight', why: 'Another kind, or a line that cannot be read, costs the fish.', how: 'Compare its name with the rules below; shake the stop.', format: 'length' },
  { id: 'stop-mark', group: 'measuring', what: 'A contrasting mark on the stop', why: 'Nose and stop must be told apart in the picture.', how: 'Look at a picture of the empty board in shade.', format: 'length' },
  { id: 'card', group: 'measuring', what: 'The day’s code on a matt card, written or printed', why: 'Without it the picture proves no day.', how: 'Compare it letter by letter with the code on this page.', check: 'code' },
  { id: 'card-leash', group: 'measuring', what: 'Card on a leash or in the board’s pocket, clear of the tail', why: 'It is forgotten, blown away, or hides the reading.', how: 'Lay a ruler as long as your best fish: the card stays free.', format: 'length' },
  { id: 'tape', group: 'measuring', what: 'A tape, and the grip’s offset known', why: 'A fish too large for the board is measured in the water.', how: 'Measure from the grip’s edge to where the nose will lie.' },
  { id: 'test-photo', group: 'photographing', what: 'A test photograph that holds time, offset and position', why: 'Time or place silently missing is found by the judge, hours later.', how: 'Take one with the camera that you will use, and open it above.', check: 'test-photo' },
  { id: 'lens', group: 'photographing', what: 'Lens wiped, wide lens chosen, flash off', why: 'Arms are short: only the wide lens sees the whole board.', how: 'Photograph the whole board, held as you will hold it.' },
  { id: 'mount', group: 'photographing', what: 'Mount and timer tried', why: 'Alone, the first try takes a minute.', how: 'One picture with the ten-second timer, hands free.' },
  { id: 'battery', group: 'photographing', what: 'Battery for the day, a spare within reach', why: 'A dead phone holds the only proof.', how: 'Half full at launch, or a power bank with its cable.', check: 'battery' },
  { id: 'storage', group: 'photographing', what: 'Room for all photographs', why: 'A full phone refuses the fish of the day.', how: 'Delete films, not photographs.', check: 'storage' },
  { id: 'clock', group: 'photographing', what: 'The phone’s clock is right', why: 'A catch counts within the event’s hours only.', how: 'Let the phone set its time by itself.', check: 'clock' },
  { id: 'at-hand', group: 'photographing', what: 'Event, rules, boards and code on this device', why: 'The lake has no signal.', how: 'Open this page once where there is a network.', check: 'at-hand' },
  { id: 'well', group: 'well-and-scale', what: 'Well filled with the lake’s own water, pump tried', why: 'Tap water harms; a pump that stands still kills.', how: 'Fill it at the ramp, listen to the pump for a minute.', crafts: ['boat'], format: 'weight' },
  { id: 'tags', group: 'well-and-scale', what: 'Cull tags in the order of their numbers, the odd one apart', why: 'Tags mixed up are fish mixed up.', how: 'Hang them from one to five; the sixth elsewhere.', format: 'weight' },
  { id: 'scale', group: 'well-and-scale', what: 'Scale’s memories emptied, fresh battery, zero tried', why: 'Yesterday’s weights look like today’s.', how: 'Weigh a full bottle: a litre of water is a kilogram.', format: 'weight' },
  { id: 'beam', group: 'well-and-scale', what: 'Beam level and free', why: 'It decides what the scale cannot tell.', how: 'It hangs level empty, and with two equal bottles.', format: 'weight' },
  { id: 'vest', group: 'safety', what: 'Life vest worn, kill cord clipped where there is one', why: 'Cold water takes the breath first.', how: 'Pull the vest up at the shoulders: it must not slide.', crafts: AFLOAT },
  { id: 'plan', group: 'safety', what: 'Someone knows where you are and when you are back', why: 'Alone on the water nobody else will look.', how: 'Send it now.' },
  { id: 'first-aid', group: 'safety', what: 'Plaster, cutters for hooks, gloves', why: 'Spines, teeth and hooks infect. Deep ones belong to a doctor.', how: 'They lie where one hand finds them.' },
  { id: 'weather', group: 'safety', what: 'Weather looked at; when to turn back agreed', why: 'Wind and lightning end a day, not a rule.', how: 'Local warnings first, then your own eyes.' },
]; // prettier-ignore

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
  const known = stored.filter((step): step is GateStep => (GATE_STEPS as readonly string[]).includes(step));
  return [...new Set([...known, ...GATE_STEPS])];
}

/** The routine with one step moved up or down by one. */
export function movedStep(routine: readonly GateStep[], step: GateStep, by: -1 | 1): GateStep[] {
  const from = routine.indexOf(step);
  const to = from + by;
  if (from < 0 || to < 0 || to >= routine.length) return [...routine];
  const next = [...routine];
  [next[from], next[to]] = [next[to] as GateStep, next[from] as GateStep];
  return next;
}
