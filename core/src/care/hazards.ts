/**
 * What each kind of fish does to a hand, and how it is held. Common practice, no published source and not reviewed by a
 * clinician: whoever shows it says so, and sends bites, stings and hooks in the hand to medical care.
 */
export interface Hazard {
  id: HazardId;
  name: string;
  /** Two lines for the moment before the lift. */
  hazard: string;
  hold: string;
  never: string;
  /** Needs more than a bare hand. */
  needsTool: boolean;
  /** What lies ready for it. */
  tools: readonly string[];
  /** Words in names of species that mean this kind, lower case. */
  names: readonly string[];
}

export const HAZARD_IDS = [
  'bass',
  'small-mouthed-bass',
  'pike',
  'trout',
  'salmon',
  'striped-bass',
  'carp',
  'snapper',
  'sea-trout',
  'sea-catfish',
  'sheepshead',
  'shark',
  'perch',
] as const;
export type HazardId = (typeof HAZARD_IDS)[number];

export const HAZARDS: readonly Hazard[] = [
  {
    id: 'bass',
    name: 'bass',
    hazard: 'Hooks of the lure, fine teeth, spines of the fins.',
    hold: 'Thumb and finger on the lower jaw, straight down, or with the belly supported.',
    never: 'Never lever the jaw sideways.',
    needsTool: false,
    tools: ['forceps'],
    names: ['bass', 'largemouth'],
  },
  {
    id: 'small-mouthed-bass',
    name: 'small-mouthed bass',
    hazard: 'Hooks of the lure, fine teeth, spines of the fins.',
    hold: 'Thumb and finger on the lower jaw, belly supported; it needs room to work its mouth.',
    never: 'Never leave a tight clip unobserved.',
    needsTool: false,
    tools: ['forceps'],
    names: ['smallmouth', 'small-mouthed', 'spotted bass'],
  },
  {
    id: 'pike',
    name: 'pike and its kin',
    hazard: 'Teeth and gill rakers cut deep.',
    hold: 'From the side under the edge of the gill cover into the Y of the jaw, touching no gill; belly supported.',
    never: 'Never a finger in its mouth, even when it is dead; never a long hang.',
    needsTool: true,
    tools: ['long pliers', 'jaw spreader', 'wide flat grip'],
    names: ['pike', 'muskellunge', 'musky', 'muskie', 'pickerel'],
  },
  {
    id: 'trout',
    name: 'trout and stream fish',
    hazard: 'It hurts you little; dry hands and squeezing hurt it.',
    hold: 'Wet hands, in the net: the wrist of the tail and a carrying hand.',
    never: 'Never squeeze it or fold a fin under it.',
    needsTool: false,
    tools: ['forceps'],
    names: ['trout', 'grayling', 'char'],
  },
  {
    id: 'salmon',
    name: 'salmon',
    hazard: 'Silver fish lose their scales at a touch.',
    hold: 'Two hands under it, in the water.',
    never: 'Never lift it by the tail, never beach it.',
    needsTool: false,
    tools: ['forceps'],
    names: ['salmon'],
  },
  {
    id: 'striped-bass',
    name: 'striped bass',
    hazard: 'Rough jaws scrape, spines of the fins prick.',
    hold: 'Gloves and a locking grip; a circle hook sits in the corner.',
    never: 'Never pump it back and forth.',
    needsTool: true,
    tools: ['gloves', 'locking grip'],
    names: ['striped bass', 'striper', 'hybrid bass'],
  },
  {
    id: 'carp',
    name: 'carp',
    hazard: 'A strong kick.',
    hold: 'Four fingers round anal and pectoral fins, elbow on the knee, over a wet mat.',
    never: 'Never by lips or gills.',
    needsTool: false,
    tools: ['wet mat'],
    names: ['carp', 'buffalo', 'tench'],
  },
  {
    id: 'snapper',
    name: 'snappers',
    hazard: 'Gill plates, needle fins and teeth: it bites.',
    hold: 'Pliers or a glove.',
    never: 'Never with the bare hand.',
    needsTool: true,
    tools: ['pliers', 'gloves'],
    names: ['snapper'],
  },
  {
    id: 'sea-trout',
    name: 'sea trout on treble lures',
    hazard: 'It slips like soap, and the trebles swing free.',
    hold: 'Secure the lure first, then hold the fish with a tool.',
    never: 'Never grab it with trebles hanging.',
    needsTool: true,
    tools: ['long pliers', 'grip'],
    names: ['sea trout', 'seatrout'],
  },
  {
    id: 'sea-catfish',
    name: 'sea catfish',
    hazard: 'Venomous spines.',
    hold: 'Pin it with a tool and use pliers.',
    never: 'Never touch it with bare hands.',
    needsTool: true,
    tools: ['pliers', 'pinning tool'],
    names: ['sea catfish', 'hardhead', 'gafftopsail'],
  },
  {
    id: 'sheepshead',
    name: 'sheepshead',
    hazard: 'Spines all round, and a crushing bite.',
    hold: 'Glove and tool.',
    never: 'Never a finger near its mouth.',
    needsTool: true,
    tools: ['gloves', 'pliers'],
    names: ['sheepshead'],
  },
  {
    id: 'shark',
    name: 'small sharks',
    hazard: 'It turns and bites behind whatever you hold.',
    hold: 'Behind the head, turned over.',
    never: 'Never by tail or body.',
    needsTool: true,
    tools: ['long pliers', 'line cutter'],
    names: ['shark', 'dogfish'],
  },
  {
    id: 'perch',
    name: 'walleye, perch and panfish',
    hazard: 'Edges of the gill covers, spines and teeth.',
    hold: 'Fold the spines down from the head backwards.',
    never: 'Never squeeze it from behind.',
    needsTool: false,
    tools: ['forceps'],
    names: ['walleye', 'perch', 'bluegill', 'sunfish', 'crappie', 'panfish', 'sauger', 'zander'],
  },
];

/** A treble hook that hangs free is the same danger with any fish. */
export const FREE_TREBLE = {
  hazard: 'A free treble takes hand and fish together when it kicks.',
  hold: 'Secure or cut off the lure before a hand goes near.',
} as const;

/** Said below every hazard. */
export const HAZARD_CAUTION =
  'Spines, teeth and hooks infect. Common practice, reviewed by no clinician: with a bite, a sting or a hook in the hand seek medical care.';

/** The kind that a species' name means: the longest word that fits decides, so that a striped bass is no bass. */
export function hazardOf(speciesName: string): Hazard | null {
  const name = speciesName.toLowerCase();
  let best: { hazard: Hazard; letters: number } | null = null;
  for (const hazard of HAZARDS) {
    for (const word of hazard.names) {
      if (name.includes(word) && word.length > (best?.letters ?? 0)) best = { hazard, letters: word.length };
    }
  }
  return best?.hazard ?? null;
}

/** Where the hook sits, as one tap tells it. */
export const HOOK_PLACES = ['lip', 'tongue', 'deep', 'gills', 'outside'] as const;
export type HookPlace = (typeof HOOK_PLACES)[number];

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

/** What hook and blood mean for the fish's way on. */
export interface HookAdvice {
  /** Whether a tag may pierce or clip it. */
  mayBeTagged: boolean;
  /** Seconds of rest in the net before a lift, at least. */
  restSeconds: number;
  words: readonly string[];
}

const USUAL_REST_SECONDS = 30;

/** Advice for tag, rest and release. Common practice, no source. */
export function hookAdvice(place: HookPlace | null, bleeds: boolean): HookAdvice {
  const isBad = place === 'deep' || place === 'gills' || bleeds;
  if (!isBad) return { mayBeTagged: true, restSeconds: USUAL_REST_SECONDS, words: [] };
  const words = [
    bleeds ? 'It bleeds: keep it under water, one short lift or none.' : 'Hooked deep: keep the lift short.',
    'No tag on it: its tag lies loose with it, and it is looked at first.',
  ];
  if (place === 'deep' || place === 'gills')
    words.push('Hook left in? Cut the leader and note it at the release.');
  return { mayBeTagged: false, restSeconds: 2 * USUAL_REST_SECONDS, words };
}
