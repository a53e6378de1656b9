export { dayAt, linesOutOfDay } from './day.ts';
export { placeInSchedule, type PlaceInSchedule, type SessionTimes } from './session.ts';
export {
  isKnownZone,
  resolveWallTime,
  wallTimeOf,
  type ResolvedWallTime,
  type WallTimeRefusal,
} from './zone.ts';
