import { describe, expect, it } from 'vitest';
import { NO_EXIF, type PhotoExif } from '../file-evidence/index.ts';
import {
  type CRAFTS,
  GATE_STEPS,
  PREPARE_GROUPS,
  PREPARE_ITEMS,
  judgeTestShot,
  movedStep,
  prepareList,
  readinessOf,
  routineOf,
} from './index.ts';

const ids = (format: 'length' | 'weight', craft: (typeof CRAFTS)[number]) =>
  prepareList(format, craft).map(({ id }) => id);

describe('the list before launch', () => {
  it('has every group for a boat that keeps its fish, in order, and each item once', () => {
    const list = prepareList('weight', 'boat');
    expect([...new Set(list.map(({ group }) => group))]).toEqual([...PREPARE_GROUPS]);
    expect(new Set(PREPARE_ITEMS.map(({ id }) => id)).size).toBe(PREPARE_ITEMS.length);
  });

  it.each([
    ['kayak', 'length', ['net-tether', 'vest', 'board'], ['mat', 'well', 'tags']],
    ['bank', 'weight', ['mat', 'scale', 'tags'], ['vest', 'well', 'board']],
    ['boat', 'weight', ['well', 'beam', 'vest'], ['net-tether', 'board', 'mat']],
  ] as const)('for a %s and %s has %j and not %j', (craft, format, has, hasNot) => {
    const list = ids(format, craft);
    expect(list).toEqual(expect.arrayContaining([...has]));
    for (const id of hasNot) expect(list).not.toContain(id);
  });
});

describe('readiness', () => {
  const list = prepareList('length', 'kayak');
  const all = new Set(list.map(({ id }) => id));

  it('is whole when all is ticked or seen', () => {
    expect(readinessOf(list, all, {})).toMatchObject({ done: list.length, isReady: true, failed: [] });
    const allButBattery = new Set([...all].filter((id) => id !== 'battery'));
    expect(readinessOf(list, allButBattery, {}).isReady).toBe(false);
    expect(readinessOf(list, allButBattery, { battery: true }).isReady).toBe(true);
  });

  it('is not, whatever is ticked, while a check of Lauta’s own fails', () => {
    expect(readinessOf(list, all, { clock: false })).toMatchObject({ isReady: false, failed: ['clock'] });
  });

  it('counts no tick of another list', () => {
    expect(readinessOf(list, new Set(['well', 'tags']), {}).done).toBe(0);
  });
});

describe('each person’s routine', () => {
  it('keeps its order, takes each step once, and adds what it lacks', () => {
    expect(routineOf(['hands-wet', 'board-wet', 'hands-wet', 'whistle'])).toEqual([
      'hands-wet',
      'board-wet',
      'card-down',
      'camera-open',
    ]);
    expect(routineOf([])).toEqual([...GATE_STEPS]);
  });

  it('moves a step by one, never over its ends', () => {
    expect(movedStep(GATE_STEPS, 'card-down', -1)).toEqual([
      'card-down',
      'board-wet',
      'camera-open',
      'hands-wet',
    ]);
    expect(movedStep(GATE_STEPS, 'board-wet', -1)).toEqual([...GATE_STEPS]);
    expect(movedStep(GATE_STEPS, 'hands-wet', 1)).toEqual([...GATE_STEPS]);
  });
});

describe('a test photograph', () => {
  const nowMs = Date.parse('2026-06-14T04:30:00Z');
  const exif: PhotoExif = {
    ...NO_EXIF,
    takenAtLocal: '2026-06-14T06:29:00',
    offset: '+02:00',
    takenAt: '2026-06-14T04:29:00Z',
    focal35Mm: 24,
    position: { latitude: 1, longitude: 2 },
  };
  const light = { mean: 120, whiteShare: 0.02 };

  it('is good when time, offset and position are in it, it is fresh, and light suffices', () => {
    expect(judgeTestShot(exif, light, nowMs)).toEqual({
      hasTime: true,
      hasOffset: true,
      hasPosition: true,
      offBySeconds: 60,
      lens: 'wide',
      light: 'good',
      isGood: true,
    });
  });

  it.each([
    ['no position', { position: null }, light],
    ['no offset', { offset: null, takenAt: null }, light],
    ['a time of yesterday', { takenAt: '2026-06-13T04:29:00Z' }, light],
    ['a time of tomorrow', { takenAt: '2026-06-15T04:29:00Z' }, light],
    ['a dark picture', {}, { mean: 20, whiteShare: 0 }],
    ['a picture that is blown out', {}, { mean: 190, whiteShare: 0.4 }],
  ])('with %s is not', (_, change, pixels) => {
    expect(judgeTestShot({ ...exif, ...change }, pixels, nowMs).isGood).toBe(false);
  });

  // A horizontal field of view of 72° needs 25 mm, one of 40° 50 mm: f = 18 / tan(field / 2) on a 36 mm wide frame.
  it.each([
    [25, 'wide'],
    [35, 'normal'],
    [50, 'long'],
    [null, 'unknown'],
  ])('tells a lens of %s mm as %s', (focal35Mm, lens) => {
    expect(judgeTestShot({ ...exif, focal35Mm }, light, nowMs).lens).toBe(lens);
  });
});
