const BROWSERS: [RegExp, string][] = [
  [/Edg\//, 'Edge'],
  [/Firefox\//, 'Firefox'],
  [/Chrome\//, 'Chrome'],
  [/Safari\//, 'Safari'],
];
const SYSTEMS: [RegExp, string][] = [
  [/Android/, 'Android'],
  [/iPhone/, 'iPhone'],
  [/iPad/, 'iPad'],
  [/Windows/, 'Windows'],
  [/Mac OS X/, 'Mac'],
  [/Linux/, 'Linux'],
];

/** What a browser says it is, in so few words that a person knows the own phone from the desk's machine. */
export function browserName(userAgent: string | undefined): string {
  const named = (names: [RegExp, string][]): string | undefined =>
    names.find(([sign]) => sign.test(userAgent ?? ''))?.[1];
  return [named(BROWSERS), named(SYSTEMS)].filter((part) => part !== undefined).join(' on ');
}
