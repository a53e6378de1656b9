import { describe, expect, it } from 'vitest';
import { INFRACTIONS } from '@lauta/core/rules';
import { findingOf } from '../findings/findings.ts';
import { seeDrawn } from '../see-catch/drawnCatch.test-data.ts';
import { fishSight } from './fishSight.ts';
import { BENCH_CHECKS, liveChecks, runChecks, withUnanswered } from './registry.ts';

describe('the registry of checks', () => {
  it('is that of infractions but for the two that only people answer', () => {
    expect(INFRACTIONS.filter((id) => !BENCH_CHECKS.some((check) => check === id))).toEqual([
      'cord-in-gills',
      'craft-missing',
    ]);
  });

  it('gives one finding of each check that has what it needs, and in a live view of those that a frame can answer', () => {
    const fish = fishSight(seeDrawn({ lengthMm: 402 }), { widthPx: 1200, heightPx: 900 }, []);
    const ids = runChecks({ fish }).map(({ check }) => check);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids).toEqual(expect.arrayContaining(['nose-gap', 'dorsal-near', 'more-fish', 'unsharp']));
    expect(ids).not.toContain('steep-camera');
    expect(runChecks({ fish }, true).map(({ check }) => check)).toEqual([
      'tail-cropped',
      'nose-gap',
      'mouth-open',
      'tail-curled',
      'tail-held',
    ]);
    expect(runChecks({})).toEqual([]);
  });

  it('has a check for each step of a live view that waits for one', () => {
    for (const step of ['straight', 'nose', 'jaws', 'tail'] as const)
      expect(liveChecks(step), step).not.toEqual([]);
    expect(liveChecks('jaws')).toEqual(['mouth-open']);
  });

  it('takes the worse word where two checks answer one infraction', () => {
    const { fish, smooth } = seeDrawn({ lengthMm: 402 });
    expect(fish).toBeTruthy();
    const blurry = { ...smooth, data: smooth.data.map(() => 4) };
    const picture = { photo: { widthPx: 0, heightPx: 0, data: new Uint8ClampedArray() }, hasOwnLines: () => true, edges: blurry }; // prettier-ignore
    const sight = fishSight(seeDrawn({ lengthMm: 402 }), { widthPx: 1200, heightPx: 900 }, []);
    const alone = runChecks({ fish: sight }).find(({ check }) => check === 'unsharp');
    const both = runChecks({ fish: sight, picture }).find(({ check }) => check === 'unsharp');
    expect(alone?.tone).toBe('clear');
    expect(both).toMatchObject({ tone: 'fault', reason: { code: 'all-blurred' } });
  });

  it('is filled with looks where nothing could be asked, and what was found stays', () => {
    const found = findingOf('unsharp', 'fault', 0.7, { code: 'all-blurred' });
    const all = withUnanswered([found], { code: 'no-board-found' });
    expect(all.map(({ check }) => check).toSorted()).toEqual([...BENCH_CHECKS].toSorted());
    expect(all[0]).toBe(found);
    expect(all.slice(1).every((one) => one.tone === 'look' && one.isUnanswered === true)).toBe(true);
  });

  it('tells a place only where there is something to look at', () => {
    expect(findingOf('unsharp', 'clear', 0.9, { code: 'edges-sharp' }, [3, 4]).place).toBeNull();
    expect(findingOf('unsharp', 'look', 0.5, { code: 'may-be-blurred' }, [3, 4]).place).toEqual([3, 4]);
    expect('measure' in findingOf('unsharp', 'look', 0.5, { code: 'may-be-blurred' })).toBe(false);
  });
});
