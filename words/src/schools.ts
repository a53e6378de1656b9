import type { SchoolId, SideOf } from '@lauta/core/care';

/** Questions on which careful anglers disagree, and both answers. Common practice, no published source. */
const SCHOOL_WORDS: { [Id in SchoolId]: { question: string; sides: Record<SideOf<Id>, string> } } = {
  'air-time': {
    question: 'How long may a fish be out of the water?',
    sides: {
      'six-seconds': 'As little as can be: six seconds a lift.',
      breath: 'No longer than your own held breath.',
      'thirty-seconds': 'Up to thirty seconds between rests in the net.',
    },
  },
  photographs: {
    question: 'How many photographs in one lift?',
    sides: { burst: 'A burst of ten or more in one go, on a wet board.', few: 'One or two, then water.' },
  },
  resting: {
    question: 'Let it tire, or let it rest?',
    sides: {
      rest: 'The net is for recovery: land it fresh, rest it, then lift.',
      tire: 'Let it tire in net or grip until it lies still.',
    },
  },
  tail: {
    question: 'May the tail be touched?',
    sides: {
      untouched: 'The fin must not be touched.',
      pinched: 'It may be pinched or placed to gain length.',
    },
  },
  hand: {
    question: 'May a hand be in the picture?',
    sides: { none: 'Best with no hand in it.', behind: 'Fine behind the gill cover.' },
  },
  'tail-lift': {
    question: 'May a fish be lifted by the tail?',
    sides: {
      never: 'Never by the tail alone: think of the spine.',
      carried: 'Thumb and finger round the wrist of the tail, the other hand carrying.',
    },
  },
  vertical: {
    question: 'May it hang from the jaw?',
    sides: {
      supported: 'Belly supported; never for long, never levering the jaw.',
      hanging: 'By the jaw straight down is fine for bass.',
    },
  },
  reviving: {
    question: 'How is a tired fish revived?',
    sides: {
      still: 'Upright, head into a gentle flow, and wait.',
      'side-to-side': 'Moved from side to side so that water passes the gills; never back and forth.',
    },
  },
  unhooking: {
    question: 'When does the hook come out?',
    sides: {
      'at-once': 'At once, under water.',
      later: 'Just before it leaves, after the photograph; the lure may stay if the contact is seen.',
    },
  },
  barbs: {
    question: 'Which barbs?',
    sides: {
      barbless: 'Barbless or flattened: on a tight line no more are lost.',
      'micro-barb': 'Micro-barb; circle hooks for large mouths.',
    },
  },
  hooks: {
    question: 'Which hooks?',
    sides: { single: 'Single.', double: 'Double; never treble for release.' },
  },
  landing: {
    question: 'How is it landed?',
    sides: { net: 'A deep knotless rubber net.', swung: 'Swung aboard, low, line caught by hand.' },
  },
  gloves: {
    question: 'Gloves or bare hands?',
    sides: {
      bare: 'Wet bare hands, for the fish’s slime.',
      gloves: 'Gloves or a tool, for spines, teeth and rough jaws.',
    },
  },
  tags: {
    question: 'How are tags told apart?',
    sides: { number: 'By number, in catch order.', colour: 'By colour.' },
  },
  tagging: {
    question: 'When is a keeper tagged?',
    sides: { each: 'Each at once: fewer handlings, no miscount.', limit: 'Only at the limit.' },
  },
  'tag-kind': {
    question: 'Which tag?',
    sides: {
      clip: 'A clip that does not pierce.',
      piercing: 'Piercing ones hold better; clips may bruise: log it.',
    },
  },
  'scale-notes': {
    question: 'Where are weights kept?',
    sides: {
      'at-once': 'Entered here as each fish is weighed.',
      memory: 'In the scale’s memory, entered here later; emptied every morning.',
      paper: 'On paper, entered here later.',
    },
  },
  'every-fish': {
    question: 'Is every fish tagged?',
    sides: {
      'not-hurt':
        'Hurt and small-mouthed fish go untagged, their tag loose in that compartment, looked at often.',
      all: 'All, for order.',
    },
  },
};

/** A school's question, and its answers by side. */
export function schoolWords(id: SchoolId): { question: string; sides: Readonly<Record<string, string>> } {
  return SCHOOL_WORDS[id];
}
