import { describe, expect, it } from 'vitest';
import { CLIP_LIMITS } from '@lauta/contract';
import { clipRefusal, fittingParts, mediaTypeOf } from './filmClip.ts';

const part = (size: number) => ({ size });

describe('a film', () => {
  it('keeps the parts that fit, from its beginning, and none after one that does not', () => {
    expect(fittingParts([part(4), part(4), part(4), part(1)], 10)).toEqual([part(4), part(4)]);
    expect(fittingParts([part(4), part(6)], 10)).toHaveLength(2);
    expect(fittingParts([part(11)], 10)).toEqual([]);
    expect(fittingParts([], 10)).toEqual([]);
  });

  it('is what its type says, without what follows it', () => {
    expect(mediaTypeOf(new Blob([], { type: 'video/webm;codecs=vp8' }))).toBe('video/webm');
    expect(mediaTypeOf(new Blob([], { type: 'video/mp4' }))).toBe('video/mp4');
    for (const type of ['image/jpeg', 'video/quicktime', '']) expect(mediaTypeOf(new Blob([], { type }))).toBeNull(); // prettier-ignore
  });

  it('that is none, or too long in bytes, is refused before it is kept', async () => {
    expect(await clipRefusal(new Blob(['x'], { type: 'image/png' }))).toBe('type');
    const long = new Blob([new Uint8Array(CLIP_LIMITS.maxBytes + 1)], { type: 'video/mp4' });
    expect(await clipRefusal(long)).toBe('bytes');
  });
});
