export { catchState, needsJudge, type CatchMark, type CatchState } from './catchState.ts';
