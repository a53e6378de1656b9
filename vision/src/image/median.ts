/** The middle of some values (the upper one of two); 0 for none. Sorts them where they are. */
export function medianOf(values: number[]): number {
  values.sort((a, b) => a - b);
  return values.length ? values[values.length >> 1] : 0;
}
