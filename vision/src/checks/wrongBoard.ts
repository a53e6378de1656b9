import { findingOf } from '../findings/findings.ts';
import type { Check } from './check.ts';

/** The board that was found, against those that the rules approve. */
export const wrongBoard: Check<'board'> = {
  ids: ['wrong-board'],
  live: null,
  judge: ({ board, isApproved, seenShare }) => [
    findingOf('wrong-board', isApproved ? 'clear' : 'fault', Math.min(0.98, 0.5 + seenShare / 2), {
      code: isApproved ? 'board-approved' : 'board-of-another-kind',
      board: board.name,
    }),
  ],
};
