import { accounts, pairings } from '../storage/schema.ts'; // prettier-ignore

export const accountColumns = {
  accountId: accounts.accountId,
  name: accounts.name,
  email: accounts.email,
  passwordHash: accounts.passwordHash,
  founder: accounts.founder,
  invitedByEventId: accounts.invitedByEventId,
  suspendedAt: accounts.suspendedAt,
};

export const pairingColumns = {
  pairingId: pairings.pairingId,
  eventId: pairings.eventId,
  entrantId: pairings.entrantId,
  accountId: pairings.accountId,
  job: pairings.job,
  createdAt: pairings.createdAt,
  usedAt: pairings.usedAt,
  endedAt: pairings.endedAt,
};
