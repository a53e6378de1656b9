import type { MeasuringBoard } from '../board/board.ts';

const SAME_SPAN = 0.04;
const SAME_WIDTH_SHARE = 0.03;

/** Whether two profiles print the same lines on faces of the same size, so that a photograph could be of either. */
export function isSameKind(
  a: Omit<MeasuringBoard, 'id' | 'name'>,
  b: Omit<MeasuringBoard, 'id' | 'name'>,
): boolean {
  return (
    a.unit === b.unit &&
    a.scaleLength === b.scaleLength &&
    Math.abs(a.widthMm / b.widthMm - 1) < SAME_WIDTH_SHARE &&
    a.lines.length === b.lines.length &&
    a.lines.every((family, i) => {
      const other = b.lines[i];
      return (
        other !== undefined &&
        family.every === other.every &&
        family.spans.length === other.spans.length &&
        family.spans.every((span, j) =>
          span.every((end, k) => Math.abs(end - (other.spans[j]?.[k] ?? Infinity)) < SAME_SPAN),
        )
      );
    })
  );
}
