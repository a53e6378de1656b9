import type { PrepareItemId } from '@lauta/core/planning';

/** One thing to have ready, why, and how to check it (common practice, no source). */
export interface PrepareWords {
  what: string;
  why: string;
  how: string;
}

export const PREPARE_WORDS: Record<PrepareItemId, PrepareWords> = {
  'strong-line': {
    what: 'Line and rod strong enough for a short fight',
    why: 'A fish that is landed fresh needs the least reviving.',
    how: 'Pull the knot by hand; retie after every snag.',
  },
  barbs: {
    what: 'Barbs flattened, single hooks where the lure allows',
    why: 'The hook is out in seconds, and out of a hand as well.',
    how: 'Draw each hook through a cloth: it must not catch.',
  },
  'long-tools': {
    what: 'Long forceps, a disgorger, side cutters',
    why: 'A hook deeper than fingers reach is turned out or cut, not torn.',
    how: 'Each hangs on its cord within reach of the seat.',
  },
  unhooking: {
    what: 'Unhooking practised',
    why: 'The first try should not be on a fish.',
    how: 'Take a hook out of a piece of foam with wet gloves on.',
  },
  net: {
    what: 'Deep knotless rubber net, its handle fits the craft',
    why: 'The fish rests in it under water while you make ready.',
    how: 'Hang it over the side: the bag must be under water by itself.',
  },
  'net-tether': {
    what: 'Net and board on a leash',
    why: 'What goes overboard is gone, with the day.',
    how: 'Drop each once at the ramp.',
  },
  'wet-surface': {
    what: 'A wet place for the fish, in shade',
    why: 'Hot boards and carpets burn slime and skin.',
    how: 'Lay a hand on it for five seconds: it must feel cool.',
  },
  mat: {
    what: 'Unhooking mat and a bucket of water',
    why: 'On the bank nothing else keeps a fish off the ground.',
    how: 'The mat is wet and lies where you will kneel.',
  },
  board: {
    what: 'An approved board, its lines dark, stop tight',
    why: 'Another kind, or a line that cannot be read, costs the fish.',
    how: 'Compare its name with the rules below; shake the stop.',
  },
  'stop-mark': {
    what: 'A contrasting mark on the stop',
    why: 'Nose and stop must be told apart in the picture.',
    how: 'Look at a picture of the empty board in shade.',
  },
  card: {
    what: 'The day’s code on a matt card, written or printed',
    why: 'Without it the picture proves no day.',
    how: 'Compare it letter by letter with the code on this page.',
  },
  'card-leash': {
    what: 'Card on a leash or in the board’s pocket, clear of the tail',
    why: 'It is forgotten, blown away, or hides the reading.',
    how: 'Lay a ruler as long as your best fish: the card stays free.',
  },
  tape: {
    what: 'A tape, and the grip’s offset known',
    why: 'A fish too large for the board is measured in the water.',
    how: 'Measure from the grip’s edge to where the nose will lie.',
  },
  'test-photo': {
    what: 'A test photograph that holds time, offset and position',
    why: 'Time or place silently missing is found by the judge, hours later.',
    how: 'Take one with the camera that you will use, and open it above.',
  },
  lens: {
    what: 'Lens wiped, wide lens chosen, flash off',
    why: 'Arms are short: only the wide lens sees the whole board.',
    how: 'Photograph the whole board, held as you will hold it.',
  },
  mount: {
    what: 'Mount and timer tried',
    why: 'Alone, the first try takes a minute.',
    how: 'One picture with the ten-second timer, hands free.',
  },
  battery: {
    what: 'Battery for the day, a spare within reach',
    why: 'A dead phone holds the only proof.',
    how: 'Half full at launch, or a power bank with its cable.',
  },
  storage: {
    what: 'Room for all photographs',
    why: 'A full phone refuses the fish of the day.',
    how: 'Delete films, not photographs.',
  },
  clock: {
    what: 'The phone’s clock is right',
    why: 'A catch counts within the event’s hours only.',
    how: 'Let the phone set its time by itself.',
  },
  'at-hand': {
    what: 'Event, rules, boards and code on this device',
    why: 'The lake has no signal.',
    how: 'Open this page once where there is a network.',
  },
  well: {
    what: 'Well filled with the lake’s own water, pump tried',
    why: 'Tap water harms; a pump that stands still kills.',
    how: 'Fill it at the ramp, listen to the pump for a minute.',
  },
  tags: {
    what: 'Cull tags in the order of their numbers, the odd one apart',
    why: 'Tags mixed up are fish mixed up.',
    how: 'Hang them from one to five; the sixth elsewhere.',
  },
  scale: {
    what: 'Scale’s memories emptied, fresh battery, zero tried',
    why: 'Yesterday’s weights look like today’s.',
    how: 'Weigh a full bottle: a litre of water is a kilogram.',
  },
  beam: {
    what: 'Beam level and free',
    why: 'It decides what the scale cannot tell.',
    how: 'It hangs level empty, and with two equal bottles.',
  },
  vest: {
    what: 'Life vest worn, kill cord clipped where there is one',
    why: 'Cold water takes the breath first.',
    how: 'Pull the vest up at the shoulders: it must not slide.',
  },
  plan: {
    what: 'Someone knows where you are and when you are back',
    why: 'Alone on the water nobody else will look.',
    how: 'Send it now.',
  },
  'first-aid': {
    what: 'Plaster, cutters for hooks, gloves',
    why: 'Spines, teeth and hooks infect. Deep ones belong to a doctor.',
    how: 'They lie where one hand finds them.',
  },
  weather: {
    what: 'Weather looked at; when to turn back agreed',
    why: 'Wind and lightning end a day, not a rule.',
    how: 'Local warnings first, then your own eyes.',
  },
};
