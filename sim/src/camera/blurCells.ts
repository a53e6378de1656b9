import { clamp } from './rgb.ts';

/** Mean over five by five cells: the sun is a disc, so shadows have soft edges. */
export function blurCells(source: Float32Array, columns: number, rows: number): Float32Array {
  const reach = 2;
  const across = new Float32Array(source.length);
  const out = new Float32Array(source.length);
  const pass = (
    from: Float32Array,
    to: Float32Array,
    stride: number,
    length: number,
    lines: number,
    lineStride: number,
  ): void => {
    for (let line = 0; line < lines; line++) {
      for (let i = 0; i < length; i++) {
        let sum = 0;
        for (let k = -reach; k <= reach; k++)
          sum += from[line * lineStride + clamp(i + k, 0, length - 1) * stride];
        to[line * lineStride + i * stride] = sum / (2 * reach + 1);
      }
    }
  };
  pass(source, across, 1, columns, rows, columns);
  pass(across, out, columns, rows, columns, 1);
  return out;
}
