/**
 * The one key by which tables of the trade know a species: its name in plain words, lower case. A sheet's id and its
 * name give the same: `smallmouth-bass` and `Smallmouth bass`.
 */
export function speciesKey(idOrName: string): string {
  return idOrName.trim().toLowerCase().replaceAll('-', ' ').replace(/\s+/g, ' ');
}

/** Smallmouth bass suffer first in a well and from the hook. */
export function isSmallMouthed(idOrName: string): boolean {
  return /^small ?mouth/.test(speciesKey(idOrName));
}
