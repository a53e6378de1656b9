import { describe, expect, it } from 'vitest';
import { NO_FISH, parseRunningCatch } from './runningCatch.ts';

describe('the fish that is on', () => {
  it('comes back as it was stored', () => {
    const stored = { ...NO_FISH, events: [{ step: 'hooked', atMs: 5 }], hookPlace: 'tongue', bleeds: true };
    expect(parseRunningCatch(JSON.stringify(stored))).toEqual(stored);
  });

  it('is none where the store holds nothing, or what no version wrote', () => {
    for (const text of [null, '{', '{"events":[{"step":"danced","atMs":1}]}', '12'])
      expect(parseRunningCatch(text)).toEqual(NO_FISH);
  });
});
