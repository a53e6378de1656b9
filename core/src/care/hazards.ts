import { speciesKey } from '../species.ts';

/** A kind of fish that hands must know; what it does to them is in words (common practice, no published source). */
export interface Hazard {
  id: HazardId;
  /** Needs more than a bare hand. */
  needsTool: boolean;
  /** Words in keys of species that mean this kind. */
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
  { id: 'bass', needsTool: false, names: ['bass', 'largemouth'] },
  { id: 'small-mouthed-bass', needsTool: false, names: ['smallmouth', 'small mouthed', 'spotted bass'] },
  { id: 'pike', needsTool: true, names: ['pike', 'muskellunge', 'musky', 'muskie', 'pickerel'] },
  { id: 'trout', needsTool: false, names: ['trout', 'grayling', 'char'] },
  { id: 'salmon', needsTool: false, names: ['salmon'] },
  { id: 'striped-bass', needsTool: true, names: ['striped bass', 'striper', 'hybrid bass'] },
  { id: 'carp', needsTool: false, names: ['carp', 'buffalo', 'tench'] },
  { id: 'snapper', needsTool: true, names: ['snapper'] },
  { id: 'sea-trout', needsTool: true, names: ['sea trout', 'seatrout'] },
  { id: 'sea-catfish', needsTool: true, names: ['sea catfish', 'hardhead', 'gafftopsail'] },
  { id: 'sheepshead', needsTool: true, names: ['sheepshead'] },
  { id: 'shark', needsTool: true, names: ['shark', 'dogfish'] },
  {
    id: 'perch',
    needsTool: false,
    names: ['walleye', 'perch', 'bluegill', 'sunfish', 'crappie', 'panfish', 'sauger', 'zander'],
  },
];

/** The kind that a species' name means: the longest word that fits decides, so that a striped bass is no bass. */
export function hazardOf(speciesName: string): Hazard | null {
  const name = speciesKey(speciesName);
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

export const HOOK_ADVICE_CODES = ['bleeds', 'deep', 'no-tag', 'hook-left'] as const;
export type HookAdviceCode = (typeof HOOK_ADVICE_CODES)[number];

/** What hook and blood mean for the fish's way on. */
export interface HookAdvice {
  /** Whether a tag may pierce or clip it. */
  mayBeTagged: boolean;
  /** Seconds of rest in the net before a lift, at least. */
  restSeconds: number;
  codes: readonly HookAdviceCode[];
}

const USUAL_REST_SECONDS = 30;

/** Advice for tag, rest and release. Common practice, no source. */
export function hookAdvice(place: HookPlace | null, bleeds: boolean): HookAdvice {
  const isBad = place === 'deep' || place === 'gills' || bleeds;
  if (!isBad) return { mayBeTagged: true, restSeconds: USUAL_REST_SECONDS, codes: [] };
  const isDeep = place === 'deep' || place === 'gills';
  return {
    mayBeTagged: false,
    restSeconds: 2 * USUAL_REST_SECONDS,
    codes: [bleeds ? 'bleeds' : 'deep', 'no-tag', ...(isDeep ? (['hook-left'] as const) : [])],
  };
}
