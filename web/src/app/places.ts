import type { Measure } from '@lauta/core/rules';
import type { PlaceInEvent } from '../session/who.ts';

/** For whom an event's places are, and what stands beside their names. */
export interface PlacesOf {
  place: Pick<PlaceInEvent, 'may' | 'entrantId'>;
  /** Null as long as no sheet is published. */
  measure: Measure['kind'] | null;
  /** Own catches that a judge sent back. */
  sentBack: number;
  undecided: number;
}

interface Place {
  /** Path beneath the event's. */
  to: string;
  name: string;
  /** Of the day, in its order, or beneath a line. */
  group: 'day' | 'under';
  isFor: (of: PlacesOf) => boolean;
  /** On a phone at the bottom of the screen, not behind "More". */
  isAtHand: (of: PlacesOf) => boolean;
  /** How many wait there. */
  waiting?: (of: PlacesOf) => number;
}

const anyone = (): boolean => true;
const nobody = (): boolean => false;
const entrants = ({ place }: PlacesOf): boolean => place.entrantId !== null;
// Where weight counts nothing is claimed, and nothing judged, by its photograph.
const byPhotograph = ({ measure }: PlacesOf): boolean => measure !== 'weight';

/** Every place of an event: rail, tabs and "More" all come from here. */
const PLACES: readonly Place[] = [
  { to: 'prepare', name: 'Prepare', group: 'day', isFor: entrants, isAtHand: nobody },
  {
    to: 'water',
    name: 'Water',
    group: 'day',
    isFor: (of) => entrants(of) && byPhotograph(of),
    isAtHand: anyone,
    waiting: ({ sentBack }) => sentBack,
  },
  { to: 'well', name: 'Well', group: 'day', isFor: entrants, isAtHand: anyone },
  {
    to: 'weigh-in',
    name: 'Weigh-in',
    group: 'day',
    isFor: ({ measure }) => measure === 'weight',
    isAtHand: ({ place }) => place.entrantId === null,
  },
  {
    to: 'judge',
    name: 'Judge',
    group: 'day',
    isFor: (of) => of.place.may('see-queue') && byPhotograph(of),
    isAtHand: anyone,
    waiting: ({ undecided }) => undecided,
  },
  { to: 'standings', name: 'Standings', group: 'day', isFor: anyone, isAtHand: anyone },
  { to: 'records', name: 'Records', group: 'day', isFor: anyone, isAtHand: nobody },
  {
    to: 'specimens',
    name: 'Specimens',
    group: 'under',
    isFor: (of) => entrants(of) || of.place.may('see-specimens'),
    isAtHand: nobody,
  },
  { to: '.', name: 'Event', group: 'under', isFor: anyone, isAtHand: nobody },
  { to: 'settings', name: 'Settings', group: 'under', isFor: entrants, isAtHand: nobody },
];

export interface ShownPlace extends Pick<Place, 'to' | 'name' | 'group'> {
  isAtHand: boolean;
  /** Stands beside the name; null where nothing waits. */
  note: string | null;
}

/** The places that one may enter, in the order of the day. */
export function placesFor(of: PlacesOf): ShownPlace[] {
  return PLACES.filter(({ isFor }) => isFor(of)).map(({ to, name, group, isAtHand, waiting }) => {
    const count = waiting?.(of) ?? 0;
    return { to, name, group, isAtHand: isAtHand(of), note: count > 0 ? String(count) : null };
  });
}
