import { describe, expect, it } from 'vitest';
import { fitView, panInto, toPhoto, zoomView } from './view.ts';

const photo = { width: 1600, height: 1200 };
const frame = { width: 800, height: 500 };

describe('a photograph in its window', () => {
  it('fits whole and centred', () => {
    const view = fitView(photo, frame);
    expect(view.scale).toBeCloseTo(500 / 1200, 12);
    expect(view.x).toBeCloseTo((800 - 1600 * view.scale) / 2, 9);
    expect(view.y).toBe(0);
  });

  it('keeps the place under the finger when it is zoomed', () => {
    const before = { scale: 1, x: -300, y: -200 };
    const after = zoomView(before, 2, [400, 250], photo, frame);
    const [x0, y0] = toPhoto(before, [400, 250]);
    const [x1, y1] = toPhoto(after, [400, 250]);
    expect(x1).toBeCloseTo(x0, 9);
    expect(y1).toBeCloseTo(y0, 9);
  });

  it('is never smaller than its window and never larger than eight times', () => {
    const view = fitView(photo, frame);
    expect(zoomView(view, 0.1, [0, 0], photo, frame).scale).toBeCloseTo(view.scale, 12);
    expect(zoomView(view, 1000, [0, 0], photo, frame).scale).toBe(8);
  });

  it('can’t be pulled out of its window', () => {
    expect(panInto({ scale: 1, x: 900, y: -5000 }, photo, frame)).toEqual({ scale: 1, x: 0, y: -700 });
  });
});
