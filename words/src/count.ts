const ENGLISH = new Intl.PluralRules('en');

/** `1 fish`, `2 fish`; `1 field is`, `3 fields are`: a number with the form of its noun that belongs to it. */
export function countWords(count: number, one: string, other: string): string {
  return `${count} ${ENGLISH.select(count) === 'one' ? one : other}`;
}
