export type Vector = readonly [number, number, number];

export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const norm = (a: Vector): number => Math.hypot(a[0], a[1], a[2]);
export const times = (a: Vector, by: number): Vector => [a[0] * by, a[1] * by, a[2] * by];
export const plus = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const unit = (a: Vector): Vector => times(a, 1 / norm(a));
export const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** The right-angled unit axes nearest to two directions: their bisector, turned by 45° to both sides. */
export function rightAngled(a: Vector, b: Vector): [Vector, Vector] {
  const sum = unit(plus(unit(a), unit(b)));
  const difference = unit(plus(unit(a), times(unit(b), -1)));
  return [times(plus(sum, difference), Math.SQRT1_2), times(plus(sum, times(difference, -1)), Math.SQRT1_2)];
}
