import { wallTimeOf } from '@lauta/core/schedule';

/** `12:46` or `12:46:07` in the event's zone. */
export function clockTime(instant: string | Date, zone: string, withSeconds = false): string {
  const { local } = wallTimeOf(new Date(instant).getTime(), zone);
  return local.slice(11, withSeconds ? 19 : 16);
}

/** `13 June, 12:46`. */
export function dayAndTime(instant: string | Date, zone: string): string {
  const { local } = wallTimeOf(new Date(instant).getTime(), zone);
  return `${dayWords(local.slice(0, 10))}, ${local.slice(11, 16)}`;
}

const MONTHS = ['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September', 'October', 'November', 'December']; // prettier-ignore

export function dayWords(date: string): string {
  return `${Number(date.slice(8, 10))} ${MONTHS[Number(date.slice(5, 7)) - 1] ?? ''}`;
}

/** `2 h 14 min`, `14 min`, `under a minute`. */
export function duration(ms: number): string {
  const minutes = Math.floor(ms / 60_000);
  if (minutes < 1) return 'under a minute';
  const hours = Math.floor(minutes / 60);
  return hours === 0 ? `${minutes} min` : `${hours} h ${minutes % 60} min`;
}
