/** Keeps the noise of the darkest px down. */
const FLOOR = 6;

/** A colour in logs: brightness, red over green, blue over green. Ratios stay in sun and shade. */
export type LogColour = readonly [light: number, warm: number, cool: number];

/** The colour of a cell of a view, three values (0-255) a cell. */
export function logColourAt(rgb: Float32Array, cell: number): LogColour {
  const red = Math.log(rgb[3 * cell] + FLOOR);
  const green = Math.log(rgb[3 * cell + 1] + FLOOR);
  const blue = Math.log(rgb[3 * cell + 2] + FLOOR);
  return [0.3 * red + 0.6 * green + 0.1 * blue, red - green, blue - green];
}
