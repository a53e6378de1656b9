import { mapQuad, type BoardMarks, type Point } from '@lauta/vision';

export const HANDLES = ['zero-far', 'end-far', 'end-near', 'zero-near', 'nose', 'tail'] as const;
export type HandleId = (typeof HANDLES)[number];

export type HandleWords = Record<HandleId, { short: string; where: string }>;

export const HANDLE_WORDS: HandleWords = {
  'zero-far': { short: 'Zero, far', where: 'where the face meets the stop, away from you' },
  'end-far': { short: 'End, far', where: 'where the ruled face ends, away from you' },
  'end-near': { short: 'End, near', where: 'where the ruled face ends, near you' },
  'zero-near': { short: 'Zero, near', where: 'where the face meets the stop, near you' },
  nose: { short: 'Nose', where: 'the foremost point of the closed mouth' },
  tail: { short: 'Tail', where: 'the farthest point of the tail' },
};

const CORNERS: readonly HandleId[] = ['zero-far', 'end-far', 'end-near', 'zero-near'];

export function handlePoint(marks: BoardMarks, id: HandleId): Point {
  if (id === 'nose' || id === 'tail') return marks[id];
  return marks.corners[CORNERS.indexOf(id) as 0 | 1 | 2 | 3];
}

/** Marks with one handle elsewhere, kept to a tenth of a pixel. */
export function moveHandle(marks: BoardMarks, id: HandleId, to: Point): BoardMarks {
  const point: Point = [Math.round(to[0] * 10) / 10, Math.round(to[1] * 10) / 10];
  if (id === 'nose' || id === 'tail') return { ...marks, [id]: point };
  const at = CORNERS.indexOf(id);
  return { ...marks, corners: mapQuad(marks.corners, (one, i) => (i === at ? point : one)) };
}

/** The same marks on a copy of the picture that is `ratio` times as large. */
export function scaleMarks(marks: BoardMarks, ratio: number): BoardMarks {
  if (ratio === 1) return marks;
  const scaled = ([x, y]: Point): Point => [x * ratio, y * ratio];
  return {
    corners: mapQuad(marks.corners, scaled),
    nose: scaled(marks.nose),
    tail: scaled(marks.tail),
  };
}

/** Where the handles lie before anyone has set them: a board as most photographs show it. */
export function firstMarks(widthPx: number, heightPx: number): BoardMarks {
  const at = (x: number, y: number): Point => [Math.round(widthPx * x), Math.round(heightPx * y)];
  return {
    corners: [at(0.1, 0.38), at(0.9, 0.38), at(0.9, 0.62), at(0.1, 0.62)],
    nose: at(0.1, 0.5),
    tail: at(0.6, 0.5),
  };
}

/** The step that a key moves the chosen handle by, px of the photograph; null for any other key. */
export function keyStep(key: string, withShift: boolean): Point | null {
  const by = withShift ? 10 : 1;
  switch (key) {
    case 'ArrowLeft':
      return [-by, 0];
    case 'ArrowRight':
      return [by, 0];
    case 'ArrowUp':
      return [0, -by];
    case 'ArrowDown':
      return [0, by];
    default:
      return null;
  }
}
