export { placeInSchedule, type PlaceInSchedule, type SessionTimes } from './session.ts';
