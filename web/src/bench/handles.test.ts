import { describe, expect, it } from 'vitest';
import { checkQuad } from '@lauta/vision';
import { HANDLES, firstMarks, handlePoint, keyStep, moveHandle, scaleMarks } from './handles.ts';

describe('handles', () => {
  const marks = firstMarks(1600, 1200);

  it('lie as a board that can be read before anyone has set them', () => {
    expect(checkQuad(marks.corners).ok).toBe(true);
    expect(marks.tail[0]).toBeGreaterThan(marks.nose[0]);
  });

  it.each(HANDLES)('%s moves alone', (id) => {
    const moved = moveHandle(marks, id, [12.34, 56.78]);
    expect(handlePoint(moved, id)).toEqual([12.3, 56.8]);
    for (const other of HANDLES.filter((one) => one !== id)) {
      expect(handlePoint(moved, other)).toEqual(handlePoint(marks, other));
    }
  });

  it('lie at the same place of a smaller copy', () => {
    const half = scaleMarks(marks, 0.5);
    for (const id of HANDLES) {
      expect(handlePoint(half, id)).toEqual(handlePoint(marks, id).map((value) => value / 2));
    }
    expect(scaleMarks(marks, 1)).toBe(marks);
  });

  it('move by one pixel a key, by ten with shift', () => {
    expect(keyStep('ArrowLeft', false)).toEqual([-1, 0]);
    expect(keyStep('ArrowDown', true)).toEqual([0, 10]);
    expect(keyStep('a', false)).toBeNull();
  });
});
