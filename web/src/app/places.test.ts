import { describe, expect, it } from 'vitest';
import type { Capability } from '@lauta/core/people';
import { placesFor, type PlacesOf } from './places.ts';

const of = (part: Partial<PlacesOf> & { entrantId?: string; may?: Capability[] }): PlacesOf => ({
  place: {
    entrantId: part.entrantId ?? null,
    may: (capability) => part.may?.includes(capability) ?? false,
  },
  measure: part.measure ?? 'length',
  sentBack: part.sentBack ?? 0,
  undecided: part.undecided ?? 0,
});
const namesOf = (who: PlacesOf): string[] => placesFor(who).map(({ name }) => name);
const tabsOf = (who: PlacesOf): string[] => placesFor(who).flatMap((one) => (one.isAtHand ? [one.name] : []));

describe('the places of an event', () => {
  it('are for a spectator what anyone may see', () => {
    expect(namesOf(of({}))).toEqual(['Standings', 'Records', 'Event']);
  });

  it('follow the day of an angler; the three for the water are at hand', () => {
    const angler = of({ entrantId: 'e' });
    expect(namesOf(angler)).toEqual(['Prepare', 'Water', 'Well', 'Standings', 'Records', 'Specimens', 'Event', 'Settings']); // prettier-ignore
    expect(tabsOf(angler)).toEqual(['Water', 'Well', 'Standings']);
  });

  it('have no water and no judging where weight counts, but the scale', () => {
    const both = { entrantId: 'e', may: ['see-queue'] as Capability[], measure: 'weight' as const };
    expect(namesOf(of(both))).not.toContain('Water');
    expect(namesOf(of(both))).not.toContain('Judge');
    // Of a boat the scale is behind "More", of an official at hand.
    expect(tabsOf(of(both))).toEqual(['Well', 'Standings']);
    expect(tabsOf(of({ measure: 'weight' }))).toEqual(['Weigh-in', 'Standings']);
  });

  it('tell what waits there, and nothing where nothing does', () => {
    const notes = placesFor(of({ entrantId: 'e', may: ['see-queue'], sentBack: 2, undecided: 0 }));
    expect(notes.find(({ to }) => to === 'water')?.note).toBe('2');
    expect(notes.find(({ to }) => to === 'judge')?.note).toBeNull();
  });

  it('show a watcher of specimens their page, and an angler theirs', () => {
    expect(namesOf(of({ may: ['see-specimens'] }))).toContain('Specimens');
    expect(namesOf(of({}))).not.toContain('Specimens');
  });
});
