/**
 * The line protocol that a scale speaks to Lauta, over Web Serial or any other stream of bytes. Lines of ASCII end with
 * CR LF; fields are separated by single spaces; `*` and two hexadecimal digits close the line: all bytes before it,
 * combined by exclusive or, as NMEA 0183 has it (from memory).
 *
 *     R 12345 1474.5 5 87*HH   a reading: ms since it was switched on, grams, its division in grams, battery in percent
 *     O 12345*HH               overload: more hangs on it than it can weigh
 *     Z*HH                     from Lauta: zero now; answered by readings about nothing
 */
export type ScaleLine =
  | { kind: 'reading'; atMs: number; massG: number; divisionG: number; batteryPercent: number }
  | { kind: 'overload'; atMs: number }
  | { kind: 'zero' };

export function formatScaleLine(line: ScaleLine): string {
  const body =
    line.kind === 'reading'
      ? `R ${Math.round(line.atMs)} ${line.massG.toFixed(1)} ${Number(line.divisionG.toFixed(6))} ${Math.round(line.batteryPercent)}`
      : line.kind === 'overload'
        ? `O ${Math.round(line.atMs)}`
        : 'Z';
  return `${body}*${checksum(body)}\r\n`;
}

/** Null for whatever is no line of a scale: half a line, noise, another device. */
export function parseScaleLine(text: string): ScaleLine | null {
  const parts = /^([A-Z][ -)+-~]*)\*([0-9A-F]{2})\r?\n?$/.exec(text);
  if (!parts || checksum(parts[1] ?? '') !== parts[2]) return null;
  const [letter, ...fields] = (parts[1] ?? '').split(' ');
  const numbers = fields.map((field) => (/^-?\d{1,12}(\.\d{1,6})?$/.test(field) ? Number(field) : NaN));
  if (numbers.some(Number.isNaN)) return null;
  const [atMs = NaN, massG = NaN, divisionG = NaN, batteryPercent = NaN] = numbers;
  if (letter === 'R' && numbers.length === 4 && divisionG > 0)
    return { kind: 'reading', atMs, massG, divisionG, batteryPercent };
  if (letter === 'O' && numbers.length === 1) return { kind: 'overload', atMs };
  return letter === 'Z' && numbers.length === 0 ? { kind: 'zero' } : null;
}

function checksum(body: string): string {
  let sum = 0;
  for (let i = 0; i < body.length; i++) sum ^= body.charCodeAt(i);
  return sum.toString(16).toUpperCase().padStart(2, '0');
}

/** Lines out of pieces of a stream, which may break anywhere. */
export function lineSplitter(onLine: (line: string) => void): (piece: string) => void {
  let rest = '';
  return (piece) => {
    rest += piece;
    for (let end = rest.indexOf('\n'); end >= 0; end = rest.indexOf('\n')) {
      onLine(rest.slice(0, end + 1));
      rest = rest.slice(end + 1);
    }
    // Noise without an end of line must not grow for ever.
    if (rest.length > LONGEST_LINE) rest = '';
  };
}

const LONGEST_LINE = 200;
