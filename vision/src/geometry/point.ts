/** A place in a picture (px, x to the right, y down) or on the ruled face (mm, board coordinates), as [x, y]. */
export type Point = readonly [x: number, y: number];
/** Corners in the order zero/far, end/far, end/near, zero/near. */
export type Quad = readonly [Point, Point, Point, Point];

/** Each corner in its turn. */
export function mapQuad([a, b, c, d]: Quad, to: (corner: Point, index: number) => Point): Quad {
  return [to(a, 0), to(b, 1), to(c, 2), to(d, 3)];
}

/** The same place in px of a picture that is `by` times as large: a px's middle is its place. */
export function scalePx([x, y]: Point, by: number): Point {
  return [(x + 0.5) * by - 0.5, (y + 0.5) * by - 0.5];
}

/** Twice the signed area of the triangle; positive when a→b→c turns clockwise on a screen (y down). */
export function turn(a: Point, b: Point, c: Point): number {
  return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
}
