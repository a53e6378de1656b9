export {
  SIGNERS,
  type Signature,
  type Signer,
  type TicketAct,
  type WeighInAct,
  type WeighInEntry,
} from './acts.ts';
export {
  doubledNumbers,
  weighInOf,
  type BagCheck,
  type BagWeight,
  type Ticket,
  type TicketSignature,
  type WeighIn,
  type WeighInContradiction,
} from './tickets.ts';
export {
  TICKET_STATES,
  minutesLate,
  scoreTicket,
  ticketState,
  type TicketPenalty,
  type TicketPenaltyKind,
  type TicketScore,
  type TicketState,
} from './score.ts';
export { scaleDoubts, type ScaleDoubt } from './scaleDoubts.ts';
export { weighInRefusal, type WeighInRefusal } from './refusal.ts';
