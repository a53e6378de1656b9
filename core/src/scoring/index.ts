export { fillBag, completedAtMs, type Bag } from './bag.ts';
export {
  scoreFish,
  type Decision,
  type FishScore,
  type NotCounting,
  type ScoringCatch,
} from './scoreFish.ts';
export {
  rankEntrants,
  type CatchStanding,
  type RankOptions,
  type Score,
  type StandingOf,
} from './rankEntrants.ts';
export { rankTickets, type TicketLine, type TicketStanding } from './rankTickets.ts';

import type { CatchStanding } from './rankEntrants.ts';
import type { TicketStanding } from './rankTickets.ts';

export type Standing = CatchStanding | TicketStanding;
