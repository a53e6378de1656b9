/**
 * A glyph as closed polygons, y up from the baseline.
 * @param {{ advanceWidth?: number | undefined, path: { commands: readonly any[] } }} glyph of opentype.js
 * @param {number} height font units that are one
 * @param {{ decimals: number, pieces: number }} as decimals kept, and straight pieces that a curve becomes
 * @returns {{ advance: number, contours: number[][] }}
 */
export function outlineOf(glyph, height, { decimals, pieces }) {
  const round = (/** @type {number} */ value) => Number((value / height).toFixed(decimals));
  /** @type {number[][]} */
  const contours = [];
  /** @type {number[]} */
  let contour = [];
  let [x, y] = [0, 0];
  for (const step of glyph.path.commands) {
    if (step.type === 'M') contour = [round(step.x), round(step.y)];
    else if (step.type === 'L') contour.push(round(step.x), round(step.y));
    else if (step.type === 'Q' || step.type === 'C') {
      for (let i = 1; i <= pieces; i++) contour.push(...curve([x, y], step, i / pieces).map(round));
    } else if (step.type === 'Z') contours.push(contour);
    if (step.type !== 'Z') [x, y] = [step.x, step.y];
  }
  return { advance: round(glyph.advanceWidth ?? 0), contours };
}

/**
 * A point of a Bézier curve, quadratic or cubic.
 * @param {[number, number]} from
 * @param {any} step
 * @param {number} t
 */
function curve([x, y], step, t) {
  const u = 1 - t;
  if (step.type === 'Q')
    return [
      u * u * x + 2 * u * t * step.x1 + t * t * step.x,
      u * u * y + 2 * u * t * step.y1 + t * t * step.y,
    ];
  const at = (
    /** @type {number} */ a,
    /** @type {number} */ b,
    /** @type {number} */ c,
    /** @type {number} */ d,
  ) => u ** 3 * a + 3 * u * u * t * b + 3 * u * t * t * c + t ** 3 * d;
  return [at(x, step.x1, step.x2, step.x), at(y, step.y1, step.y2, step.y)];
}
