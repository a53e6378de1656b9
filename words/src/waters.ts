import type { PlaceOnWaters, WatersTrouble } from '@lauta/core/waters';

export const TROUBLE_WORDS: Record<WatersTrouble, string> = {
  'no-open-area': 'None of the areas is open.',
  'ring-not-closed': 'An outline does not end where it begins.',
  'ring-crosses-itself': 'An outline crosses itself.',
};

/** Where somebody is, in words. */
export function placeWords({ where, name, awayM }: PlaceOnWaters): string {
  const way = awayM >= 1000 ? `${(awayM / 1000).toFixed(1)} km` : `${Math.round(awayM)} m`;
  switch (where) {
    case 'open':
      return `You are on open waters${name ? `, ${name}` : ''}.`;
    case 'closed':
      return `You are in a closed area${name ? `, ${name}` : ''}, ${way} from its edge.`;
    case 'outside':
      return `You are ${way} outside of the event’s waters.`;
  }
}
