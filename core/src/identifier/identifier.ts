/**
 * The identifier: the day's code on an ID-1 card (ISO/IEC 7810) that proves the day.
 * The QR payload is `lauta:1:EVENT:ENTRANT:CODE`.
 */
export interface Identifier {
  eventCode: string;
  entrantNumber: number;
  code: string;
}

/** Without I, O and U, which are read as 1, 0 and V. */
const LETTERS = '0123456789ABCDEFGHJKLMNPQRSTVWXYZ';
const CODE = /^[0-9A-HJ-NP-TV-Z]{1,12}$/;

export function formatPayload({ eventCode, entrantNumber, code }: Identifier): string {
  return `lauta:1:${eventCode}:${entrantNumber}:${code}`;
}

/** Null for any text that is not an identifier's payload. */
export function parsePayload(text: string): Identifier | null {
  const [scheme, version, eventCode, entrant, code, ...rest] = text.split(':');
  if (scheme !== 'lauta' || version !== '1' || rest.length > 0) return null;
  if (!eventCode || !CODE.test(eventCode) || !code || !CODE.test(code)) return null;
  if (!entrant || !/^\d{1,6}$/.test(entrant)) return null;
  return { eventCode, entrantNumber: Number(entrant), code };
}

/** Letters that a wet card makes alike stand for one another. */
const LOOK_ALIKE: Record<string, string> = { D: '0', Q: '0', S: '5', B: '8', Z: '2' };

/**
 * Codes for one day: any two differ in at least two places even when look-alikes are taken for the same letter,
 * and never only by a swap of neighbours.
 * @param random draws from [0, 1)
 * @throws RangeError when so many codes of that length cannot be told apart
 */
export function issueCodes(count: number, random: () => number, length = 4): string[] {
  return extendCodes([], count, random, length);
}

/**
 * `count` further codes for a day that has some already, as far from those as from each other.
 * @throws RangeError as `issueCodes` does
 */
export function extendCodes(
  issued: readonly string[],
  count: number,
  random: () => number,
  length = 4,
): string[] {
  const codes: string[] = [];
  const shapes = issued.map(shapeOf);
  // A code rules out at most length·32 neighbours, so far fewer tries than these find a free one.
  let triesLeft = 200 * count + 1000;
  while (codes.length < count) {
    if (triesLeft-- <= 0)
      throw new RangeError(`count: expected fewer codes of length ${length}, got ${count}`);
    const code = Array.from({ length }, () => LETTERS[Math.floor(random() * LETTERS.length)]).join('');
    const shape = shapeOf(code);
    if (shapes.some((other) => tooAlike(shape, other))) continue;
    codes.push(code);
    shapes.push(shape);
  }
  return codes;
}

function shapeOf(code: string): string {
  return [...code].map((letter) => LOOK_ALIKE[letter] ?? letter).join('');
}

function tooAlike(a: string, b: string): boolean {
  const places = [...a].flatMap((letter, place) => (letter === b[place] ? [] : [place]));
  if (places.length < 2) return true;
  const [first = 0, second = 0] = places;
  return places.length === 2 && second === first + 1 && a[first] === b[second] && a[second] === b[first];
}
