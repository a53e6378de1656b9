export { captureTime, type CaptureTime } from './captureTime.ts';
export { claimMarks, isInSession, type CapturedWhen, type ClaimFacts } from './claimMarks.ts';
export { catchState, needsJudge, type CatchMark, type CatchState } from './catchState.ts';
