/**
 * An extreme over so many cells to both sides of each, at a cost that does not grow with the reach: running extremes from
 * both ends of blocks as long as a window, which lies in two of them (van Herk 1992; Gil and Werman 1993).
 */
export function overRuns(
  cells: Float32Array,
  reach: number,
  extreme: (a: number, b: number) => number,
): Float32Array {
  const count = cells.length;
  const block = 2 * reach + 1;
  const fromStart = cells.slice();
  const fromEnd = cells.slice();
  for (let i = 1; i < count; i++) if (i % block > 0) fromStart[i] = extreme(fromStart[i - 1], fromStart[i]);
  for (let i = count - 2; i >= 0; i--)
    if ((i + 1) % block > 0) fromEnd[i] = extreme(fromEnd[i + 1], fromEnd[i]);
  const out = new Float32Array(count);
  for (let i = 0; i < count; i++) {
    const first = i - reach;
    const last = Math.min(count - 1, i + reach);
    // Cut by the start: the window ends within the first block.
    if (first < 0) out[i] = fromStart[last];
    // Cut by the end within one block: what lies before the window must not count.
    else if (last - first < block - 1 && Math.floor(first / block) === Math.floor(last / block))
      out[i] = fromEnd[first];
    else out[i] = extreme(fromEnd[first], fromStart[last]);
  }
  return out;
}
