import { describe, expect, it } from 'vitest';
import { freshCatch, parseRunningCatch, parseWaiting } from './runningCatch.ts';

describe('the fish that is on', () => {
  it('comes back as it was stored', () => {
    const stored = {
      ...freshCatch(),
      events: [{ step: 'hooked', atMs: 5 }],
      hookPlace: 'tongue',
      bleeds: true,
    };
    expect(parseRunningCatch(JSON.stringify(stored))).toEqual(stored);
  });

  it('of a version that gave it no id gets one, and keeps its taps', () => {
    const former = { ...freshCatch(), catchId: undefined, isClaimed: undefined };
    const found = parseRunningCatch(JSON.stringify({ ...former, events: [{ step: 'netted', atMs: 7 }] }));
    expect(found.events).toEqual([{ step: 'netted', atMs: 7 }]);
    expect(found.catchId).toMatch(/^[0-9a-f-]{36}$/);
  });

  it('is none where the store holds nothing, or what no version wrote', () => {
    for (const text of [null, '{', '{"events":[{"step":"danced","atMs":1}]}', '12'])
      expect(parseRunningCatch(text)).toMatchObject({ events: [], bleeds: false, isClaimed: false });
  });

  it('has an id of its own each time', () => {
    expect(freshCatch().catchId).not.toBe(freshCatch().catchId);
  });
});

describe('fish that wait in the net', () => {
  it('come back as they were stored, and what cannot be read is left out', () => {
    const one = { ...freshCatch(), events: [{ step: 'netted', atMs: 3 }] };
    expect(parseWaiting(JSON.stringify([one, { mood: 'bad' }, 7]))).toEqual([one]);
    for (const text of [null, '{', '{}', '3']) expect(parseWaiting(text)).toEqual([]);
  });
});
