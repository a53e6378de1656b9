import type { HazardId, HookAdviceCode, HookPlace } from '@lauta/core/care';

/** What a kind of fish does to a hand, and how it is held: common practice, no published source. */
export interface HazardWords {
  name: string;
  /** Two lines for the moment before the lift. */
  hazard: string;
  hold: string;
  never: string;
  /** What lies ready for it. */
  tools: readonly string[];
}

export const HAZARD_WORDS: Record<HazardId, HazardWords> = {
  bass: {
    name: 'bass',
    hazard: 'Hooks of the lure, fine teeth, spines of the fins.',
    hold: 'Thumb and finger on the lower jaw, straight down, or with the belly supported.',
    never: 'Never lever the jaw sideways.',
    tools: ['forceps'],
  },
  'small-mouthed-bass': {
    name: 'small-mouthed bass',
    hazard: 'Hooks of the lure, fine teeth, spines of the fins.',
    hold: 'Thumb and finger on the lower jaw, belly supported; it needs room to work its mouth.',
    never: 'Never leave a tight clip unobserved.',
    tools: ['forceps'],
  },
  pike: {
    name: 'pike and its kin',
    hazard: 'Teeth and gill rakers cut deep.',
    hold: 'From the side under the edge of the gill cover into the Y of the jaw, touching no gill; belly supported.',
    never: 'Never a finger in its mouth, even when it is dead; never a long hang.',
    tools: ['long pliers', 'jaw spreader', 'wide flat grip'],
  },
  trout: {
    name: 'trout and stream fish',
    hazard: 'It hurts you little; dry hands and squeezing hurt it.',
    hold: 'Wet hands, in the net: the wrist of the tail and a carrying hand.',
    never: 'Never squeeze it or fold a fin under it.',
    tools: ['forceps'],
  },
  salmon: {
    name: 'salmon',
    hazard: 'Silver fish lose their scales at a touch.',
    hold: 'Two hands under it, in the water.',
    never: 'Never lift it by the tail, never beach it.',
    tools: ['forceps'],
  },
  'striped-bass': {
    name: 'striped bass',
    hazard: 'Rough jaws scrape, spines of the fins prick.',
    hold: 'Gloves and a locking grip; a circle hook sits in the corner.',
    never: 'Never pump it back and forth.',
    tools: ['gloves', 'locking grip'],
  },
  carp: {
    name: 'carp',
    hazard: 'A strong kick.',
    hold: 'Four fingers round anal and pectoral fins, elbow on the knee, over a wet mat.',
    never: 'Never by lips or gills.',
    tools: ['wet mat'],
  },
  snapper: {
    name: 'snappers',
    hazard: 'Gill plates, needle fins and teeth: it bites.',
    hold: 'Pliers or a glove.',
    never: 'Never with the bare hand.',
    tools: ['pliers', 'gloves'],
  },
  'sea-trout': {
    name: 'sea trout on treble lures',
    hazard: 'It slips like soap, and the trebles swing free.',
    hold: 'Secure the lure first, then hold the fish with a tool.',
    never: 'Never grab it with trebles hanging.',
    tools: ['long pliers', 'grip'],
  },
  'sea-catfish': {
    name: 'sea catfish',
    hazard: 'Venomous spines.',
    hold: 'Pin it with a tool and use pliers.',
    never: 'Never touch it with bare hands.',
    tools: ['pliers', 'pinning tool'],
  },
  sheepshead: {
    name: 'sheepshead',
    hazard: 'Spines all round, and a crushing bite.',
    hold: 'Glove and tool.',
    never: 'Never a finger near its mouth.',
    tools: ['gloves', 'pliers'],
  },
  shark: {
    name: 'small sharks',
    hazard: 'It turns and bites behind whatever you hold.',
    hold: 'Behind the head, turned over.',
    never: 'Never by tail or body.',
    tools: ['long pliers', 'line cutter'],
  },
  perch: {
    name: 'walleye, perch and panfish',
    hazard: 'Edges of the gill covers, spines and teeth.',
    hold: 'Fold the spines down from the head backwards.',
    never: 'Never squeeze it from behind.',
    tools: ['forceps'],
  },
};

/** A treble hook that hangs free is the same danger with any fish. */
export const FREE_TREBLE = {
  hazard: 'A free treble takes hand and fish together when it kicks.',
  hold: 'Secure or cut off the lure before a hand goes near.',
} as const;

/** Said below every hazard. */
export const HAZARD_CAUTION =
  'Spines, teeth and hooks infect. Common practice, reviewed by no clinician: with a bite, a sting or a hook in the hand seek medical care.';

/** How the hook comes out. */
export const UNHOOKING: Record<HookPlace, readonly string[]> = {
  lip: [
    'Under water, fish held firmly without squeezing.',
    'Push the hook back the way it went in, never on through the lip.',
    'Barbless in the net: lift the bend straight up, and the fish falls off.',
  ],
  tongue: [
    'Long forceps at the bend, mouth just open.',
    'Push back the way it went in; one hand works, the other holds.',
  ],
  deep: [
    'Out of sight: line kept tight in the disgorger’s groove, slide to the bend, push gently, draw out.',
    'It bleeds or will not move: cut the leader close to the hook.',
  ],
  gills: [
    'No finger into the gills. If it does not come at the first touch, cut the leader.',
    'Back into the water at once.',
  ],
  outside: [
    'Forceps at the bend, back the way it went in.',
    'Note the place: some waters want a fish hooked outside put back.',
  ],
};

export const HOOK_ADVICE_WORDS: Record<HookAdviceCode, string> = {
  bleeds: 'It bleeds: keep it under water, one short lift or none.',
  deep: 'Hooked deep: keep the lift short.',
  'no-tag': 'No tag on it: its tag lies loose with it, and it is looked at first.',
  'hook-left': 'Hook left in? Cut the leader and note it at the release.',
};
