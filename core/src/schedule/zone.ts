import { TZDate, tzOffset } from '@date-fns/tz';

export type WallTimeRefusal = 'unknown-zone' | 'not-a-wall-time' | 'wall-time-skipped';
export type ResolvedWallTime =
  | { ok: true; instantMs: number; /** The clock shows this time twice that night; the first one is meant. */ repeated: boolean }
  | { ok: false; code: WallTimeRefusal }; // prettier-ignore

const WALL_TIME = /^(\d{4})-(\d{2})-(\d{2})T(\d{2}):(\d{2})(?::(\d{2}))?$/;

export function isKnownZone(zone: string): boolean {
  return Number.isFinite(tzOffset(zone, new Date(0)));
}

/**
 * The instant of a wall time `YYYY-MM-DDTHH:MM[:SS]` in an IANA zone.
 * A time that the spring change skips is refused; of one that the autumn change shows twice the first is taken.
 */
export function resolveWallTime(local: string, zone: string): ResolvedWallTime {
  if (!isKnownZone(zone)) return { ok: false, code: 'unknown-zone' };
  const fields = WALL_TIME.exec(local)
    ?.slice(1)
    .map((field) => Number(field ?? 0));
  if (!fields) return { ok: false, code: 'not-a-wall-time' };
  const [year = 0, month = 0, day = 0, hour = 0, minute = 0, second = 0] = fields;
  const asUtcMs = Date.UTC(year, month - 1, day, hour, minute, second);
  if (new Date(asUtcMs).toISOString().slice(0, 16) !== local.slice(0, 16))
    return { ok: false, code: 'not-a-wall-time' };
  // An instant fits when its own offset leads back to the wall time. A day before and after brackets any change.
  const offsets = [-86_400_000, 86_400_000].map((shift) => tzOffset(zone, new Date(asUtcMs + shift)));
  const fitting = [...new Set(offsets.map((minutes) => asUtcMs - minutes * 60_000))]
    .filter((instantMs) => instantMs + tzOffset(zone, new Date(instantMs)) * 60_000 === asUtcMs)
    .sort((a, b) => a - b);
  const [instantMs] = fitting;
  if (instantMs === undefined) return { ok: false, code: 'wall-time-skipped' };
  return { ok: true, instantMs, repeated: fitting.length > 1 };
}

/** An instant as wall time `YYYY-MM-DDTHH:MM:SS` in a zone, and its offset `+hh:mm` there. */
export function wallTimeOf(instantMs: number, zone: string): { local: string; offset: string } {
  const there = new TZDate(instantMs, zone);
  const pad = (value: number, length = 2): string => String(value).padStart(length, '0');
  const minutes = tzOffset(zone, new Date(instantMs));
  const local =
    `${pad(there.getFullYear(), 4)}-${pad(there.getMonth() + 1)}-${pad(there.getDate())}` +
    `T${pad(there.getHours())}:${pad(there.getMinutes())}:${pad(there.getSeconds())}`;
  const sign = minutes < 0 ? '-' : '+';
  const size = Math.abs(minutes);
  return { local, offset: `${sign}${pad(Math.floor(size / 60))}:${pad(size % 60)}` };
}
