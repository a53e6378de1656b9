import { describe, expect, it } from 'vitest';
import {
  HAZARDS,
  SCHOOLS,
  SCHOOL_PLACES,
  airLimitSeconds,
  clockState,
  fightLimitSeconds,
  hazardOf,
  hookAdvice,
  isBoardHot,
  isLiftForbidden,
  judgeVitality,
  restSeconds,
  schoolsAt,
  schoolsFirstAt,
  sideOf,
} from './index.ts';
import { G_PER_POUND } from '../units/index.ts';
import { HAZARD_IDS } from './hazards.ts';

const MILD = { waterCelsius: 15, airCelsius: 18 };

describe('rest', () => {
  const sound = hookAdvice('lip', false);
  it('is wanted before each lift by the one school, only after the first by the other (common practice)', () => {
    expect([0, 1].map((lifts) => restSeconds('rest', sound, lifts))).toEqual([30, 30]);
    expect([0, 1].map((lifts) => restSeconds('tire', sound, lifts))).toEqual([null, 30]);
  });
  it('of a hurt fish is asked by both', () => {
    const hurt = hookAdvice('gills', true);
    expect(restSeconds('tire', hurt, 0)).toBe(hurt.restSeconds);
    expect(hurt.restSeconds).toBeGreaterThan(sound.restSeconds);
  });
});

describe('air and fight', () => {
  it('hold the schools’ figures in mild water (common practice, no source)', () => {
    expect(airLimitSeconds('six-seconds', MILD)).toBe(6);
    expect(airLimitSeconds('thirty-seconds', MILD)).toBe(30);
    expect(airLimitSeconds('breath', MILD)).toBeLessThan(30);
  });

  it('are shortened by warm water, never lengthened by cold (direction: Gingerich et al. 2007)', () => {
    const at = (waterCelsius: number | null): number =>
      airLimitSeconds('thirty-seconds', { waterCelsius, airCelsius: 18 });
    expect([at(null), at(4), at(20), at(24), at(28), at(33)]).toEqual([30, 30, 30, 23, 15, 15]);
  });

  it('follow the event’s sheet where it is stricter', () => {
    expect(airLimitSeconds('thirty-seconds', MILD, 10)).toBe(10);
    expect(airLimitSeconds('six-seconds', MILD, 10)).toBe(6);
  });

  it('forbid the lift below freezing, and only there (common practice: eyes and gills freeze)', () => {
    expect(isLiftForbidden({ waterCelsius: 3, airCelsius: -0.1 })).toBe(true);
    expect(isLiftForbidden({ waterCelsius: 3, airCelsius: 0 })).toBe(false);
    expect(isLiftForbidden({ waterCelsius: 3, airCelsius: null })).toBe(false);
    expect(airLimitSeconds('thirty-seconds', { waterCelsius: 3, airCelsius: -2 })).toBe(0);
    expect(isBoardHot({ waterCelsius: 24, airCelsius: 31 })).toBe(true);
  });

  it('give a pound a minute: a fish of 10 to 12 lb, usually in after 7 to 8 minutes, is inside (common practice)', () => {
    expect(fightLimitSeconds(10 * G_PER_POUND, MILD)).toBe(600);
    expect(fightLimitSeconds(12 * G_PER_POUND, MILD)).toBeGreaterThan(8 * 60);
    expect(fightLimitSeconds(0.2 * G_PER_POUND, MILD)).toBe(60);
  });

  it('turn from good over soon to over', () => {
    expect([4.1, 4.2, 6, 6.1].map((seconds) => clockState(seconds, 6))).toEqual([
      'good',
      'soon',
      'soon',
      'over',
    ]);
  });
});

describe('hazards and holds', () => {
  it('cover every kind once', () => {
    expect(HAZARDS.map(({ id }) => id)).toEqual([...HAZARD_IDS]);
  });

  it.each([
    ['Largemouth bass', 'bass'],
    ['Smallmouth bass', 'small-mouthed-bass'],
    ['Striped bass', 'striped-bass'],
    ['Spotted seatrout', 'sea-trout'],
    ['Rainbow trout', 'trout'],
    ['Northern pike', 'pike'],
    ['Walleye', 'perch'],
    ['Zander', 'perch'],
    ['White crappie', 'perch'],
    ['Muskellunge', 'pike'],
    ['Atlantic salmon', 'salmon'],
    ['Common carp', 'carp'],
    ['Red snapper', 'snapper'],
    ['Sheepshead', 'sheepshead'],
    ['Smooth dogfish', 'shark'],
    ['Sea catfish', 'sea-catfish'],
  ])('%s is a %s', (name, id) => {
    expect(hazardOf(name)?.id).toBe(id);
  });

  it('say nothing of a fish that nobody described', () => {
    expect(hazardOf('Lungfish')).toBeNull();
  });

  it('of a hook that sits deep, or of blood: no tag, a longer rest, and why', () => {
    expect(hookAdvice('lip', false)).toMatchObject({ mayBeTagged: true, codes: [] });
    expect(hookAdvice('gills', true).codes).toEqual(['bleeds', 'no-tag', 'hook-left']);
    expect(hookAdvice('deep', false).codes).toEqual(['deep', 'no-tag', 'hook-left']);
    for (const [place, bleeds] of [
      ['deep', false],
      ['gills', false],
      ['lip', true],
      [null, true],
    ] as const)
      // prettier-ignore
      expect(hookAdvice(place, bleeds)).toMatchObject({ mayBeTagged: false, restSeconds: 60 });
  });
});

describe('vitality', () => {
  it('is impaired over tested, doubtful counting as impaired (RAMP: Davis 2010; 0/5, 2/5 and 2/4 by hand)', () => {
    const all = { upright: 'yes', gills: 'yes', 'tail-grab': 'yes', fins: 'yes', pulls: 'yes' } as const;
    expect(judgeVitality(all)).toMatchObject({ share: 0, state: 'lively' });
    expect(judgeVitality({ ...all, fins: 'no', pulls: 'doubtful' })).toMatchObject({
      share: 0.4,
      state: 'weak',
    });
    expect(judgeVitality({ upright: 'yes', gills: 'no', fins: 'no', pulls: 'yes' }).share).toBe(0.5);
  });

  it('is unknown when nobody looked', () => {
    expect(judgeVitality({})).toMatchObject({ share: null, state: 'unknown' });
  });
});

describe('schools', () => {
  it('are each a question with at least two sides, the usual one among them, shown somewhere', () => {
    expect(new Set(SCHOOLS.map(({ id }) => id)).size).toBe(18);
    for (const { sides, usual, shownAt } of SCHOOLS) {
      expect(sides.length).toBeGreaterThanOrEqual(2);
      expect(sides).toContain(usual);
      expect(shownAt.length).toBeGreaterThan(0);
    }
    for (const place of SCHOOL_PLACES) expect(schoolsAt(place).length).toBeGreaterThan(0);
  });

  it('are each asked once, where they first come up', () => {
    const asked = SCHOOL_PLACES.flatMap((place) => schoolsFirstAt(place).map(({ id }) => id));
    expect(asked.toSorted()).toEqual(SCHOOLS.map(({ id }) => id as string).toSorted());
    expect(schoolsFirstAt('judging').map(({ id }) => id)).not.toContain('tail');
    expect(schoolsAt('judging').map(({ id }) => id)).toContain('tail');
  });

  it('go by the person, else as usual', () => {
    expect(sideOf('tail', {})).toBe('untouched');
    expect(sideOf('tail', { tail: 'pinched' })).toBe('pinched');
  });

  it('promise nothing that is decided elsewhere, or that changes nothing', () => {
    // Ties, who sees photographs, what proves the day: a sheet's or an installation's business, when it is anybody's.
    const ids: string[] = SCHOOLS.map(({ id }) => id);
    for (const gone of ['ties', 'who-sees', 'proof-of-day']) expect(ids).not.toContain(gone);
  });

  it('pass over what an older version stored and nobody knows any more', () => {
    expect(sideOf('hand', { hand: 'two-hands' })).toBe('none');
  });
});
