import type { EventView, SessionView } from '@lauta/contract';
import { wallTimeOf } from '@lauta/core/schedule';
import { duration } from '@lauta/words/clock';
import type { HourMark } from '../ui/RuledEdge.tsx';

export interface DayClock {
  /** `day 2 of 2`. */
  day: string;
  /** `to lines-out` and `2 h 14 min`. */
  label: string;
  value: string;
  hours: HourMark[];
  nowShare: number | null;
}

const HOUR_MS = 3_600_000;

/** Where the event's day stands: the session that runs, else the next one, else the last one. */
export function dayClock(event: EventView, nowMs: number): DayClock {
  const sessions = event.sessions;
  const running = sessions.find(
    (one) => Date.parse(one.linesInAt) <= nowMs && nowMs <= Date.parse(one.linesOutAt),
  );
  const next = sessions.find((one) => Date.parse(one.linesInAt) > nowMs);
  const session = running ?? next ?? sessions.at(-1);
  if (!session) return { day: '', label: 'no session', value: '', hours: [], nowShare: null };
  const fromMs = Date.parse(session.linesInAt);
  const toMs = Date.parse(session.linesOutAt);
  const seq = event.days.find((day) => day.dayId === session.dayId)?.seq ?? 1;
  const day = `day ${seq} of ${event.days.length}`;
  const hours = hourMarks(session, event.zone);
  if (running) {
    const nowShare = (nowMs - fromMs) / (toMs - fromMs);
    return { day, label: 'to lines-out', value: duration(toMs - nowMs), hours, nowShare };
  }
  if (next) return { day, label: 'to lines-in', value: duration(fromMs - nowMs), hours, nowShare: 0 };
  return { day, label: 'lines are out', value: '', hours, nowShare: 1 };
}

/** Lines-in, every full hour after it, and lines-out. */
function hourMarks(session: SessionView, zone: string): HourMark[] {
  const fromMs = Date.parse(session.linesInAt);
  const toMs = Date.parse(session.linesOutAt);
  const at = (ms: number): HourMark => ({
    share: (ms - fromMs) / (toMs - fromMs),
    hour: String(Number(wallTimeOf(ms, zone).local.slice(11, 13))),
  });
  const marks = [at(fromMs)];
  const count = (toMs - fromMs) / HOUR_MS;
  const every = count > 13 ? Math.ceil(count / 12) : 1;
  for (let ms = fromMs + every * HOUR_MS; ms < toMs - HOUR_MS / 4; ms += every * HOUR_MS) marks.push(at(ms));
  marks.push(at(toMs));
  return marks;
}
