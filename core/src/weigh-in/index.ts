export { SIGNERS, type Signature, type Signer, type WeighInAct, type WeighInEntry } from './acts.ts';
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
export { weighInRefusal, type WeighInMoment, type WeighInRefusal } from './refusal.ts';
