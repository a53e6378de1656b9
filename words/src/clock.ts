const formats = new Map<string, Intl.DateTimeFormat>();

/** Made once for each: making one takes longer than a hundred uses. */
function formatIn(zone: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = `${zone} ${JSON.stringify(options)}`;
  const known = formats.get(key);
  if (known) return known;
  const made = new Intl.DateTimeFormat('en-GB', { ...options, timeZone: zone });
  formats.set(key, made);
  return made;
}

const TIME = { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' } as const;
const DAY = { day: 'numeric', month: 'long' } as const;

/** `12:46` or `12:46:07` in the event's zone. */
export function clockTime(instant: string | Date, zone: string, withSeconds = false): string {
  const options = withSeconds ? ({ ...TIME, second: '2-digit' } as const) : TIME;
  return formatIn(zone, options).format(new Date(instant));
}

/** `13 June, 12:46`. */
export function dayAndTime(instant: string | Date, zone: string): string {
  return `${formatIn(zone, DAY).format(new Date(instant))}, ${clockTime(instant, zone)}`;
}

/** `13 June` of a date `YYYY-MM-DD`; empty where it is none. */
export function dayWords(date: string): string {
  const instant = new Date(`${date}T00:00:00Z`);
  return Number.isNaN(instant.getTime()) ? '' : formatIn('UTC', DAY).format(instant);
}

/** `2 h 14 min`, `14 min`, `under a minute`. */
export function duration(ms: number): string {
  const minutes = Math.floor(ms / 60_000);
  if (minutes < 1) return 'under a minute';
  const hours = Math.floor(minutes / 60);
  return hours === 0 ? `${minutes} min` : `${hours} h ${minutes % 60} min`;
}

/** A span of time to the second where it is short: `4 s`, `119 s`, `10 min`, `2 h 5 min`. */
export function spanWords(ms: number): string {
  const seconds = Math.round(ms / 1000);
  return seconds < 120 ? `${seconds} s` : duration(60_000 * Math.round(seconds / 60));
}
