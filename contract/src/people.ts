import { z } from 'zod';
import { ROLES } from '@lauta/core/people';
import { line, prose } from './text.ts';
import type { EventId, PairingId } from '@lauta/core/ids';
import { ID } from './ids.ts';

export const passwordSchema = z.string().min(10, 'at least ten characters').max(200);

export const signInSchema = z.strictObject({
  email: z.string().min(1).max(120),
  password: z.string().min(1).max(200),
});
export const demoSignInSchema = z.strictObject({ role: z.enum(ROLES) });
export const setUpSchema = z.strictObject({
  name: line(80),
  email: z.email().max(120),
  password: passwordSchema,
});
export const acceptInvitationSchema = z.strictObject({
  token: z.string().min(20).max(100),
  password: passwordSchema,
});

/** Chooses a password by the one-time code of a renewal. */
export const acceptRenewalSchema = acceptInvitationSchema;
export const lookAtLinkSchema = z.strictObject({ token: z.string().min(20).max(100) });
export interface LinkView {
  kind: 'invitation' | 'renewal';
  eventId: EventId | null;
  eventName: string | null;
  /** The account was opened before: its owner signs in to take the roles up. */
  hasPassword: boolean;
}

export const changePasswordSchema = z.strictObject({
  current: z.string().min(1).max(200),
  next: passwordSchema,
});
export const suspendSchema = z.strictObject({ isSuspended: z.boolean(), why: prose(300) });

/** A browser that is signed in to one's own account. */
export interface SignInView {
  signInId: string;
  browser: string;
  createdAt: string;
  expiresAt: string;
  isThis: boolean;
  isPaired: boolean;
}

/** One spelling of an address: what looks alike is alike (NFKC), and nothing invisible stands in it. */
export function normalEmail(text: string): string {
  return text
    .normalize('NFKC')
    .replaceAll(/[\p{Cf}\p{Cc}\s]/gu, '')
    .toLowerCase();
}

/** What a partner's phone does for the entrant. */
export const PAIRED_JOBS = ['camera', 'timer'] as const;
export type PairedJob = (typeof PAIRED_JOBS)[number];

export const offerPairingSchema = z.strictObject({
  pairingId: ID.pairing,
  eventId: ID.event,
  entrantId: ID.entrant,
  job: z.enum(PAIRED_JOBS),
});
export const acceptPairingSchema = z.strictObject({ token: z.string().min(20).max(100) });

/** A phone that acts for an entrant, or may as soon as it has read the code. */
export interface PairingView {
  pairingId: PairingId;
  job: PairedJob;
  createdAt: string;
  usedAt: string | null;
}

export const whoSchema = z.object({
  /** False until the first director of a new installation exists. */
  isSetUp: z.boolean(),
  isDemo: z.boolean(),
  /** Application time: real time plus this. */
  clockOffsetMs: z.number(),
  frozenAt: z.iso.datetime().nullable(),
  account: z
    .object({
      accountId: ID.account,
      name: z.string(),
      founder: z.boolean(),
      roles: z.array(z.object({ eventId: ID.event, role: z.enum(ROLES) })),
      entrants: z.array(z.object({ eventId: ID.event, entrantId: ID.entrant })),
      /** Set on a partner's phone. */
      pairing: z
        .object({ pairingId: ID.pairing, eventId: ID.event, entrantId: ID.entrant, job: z.enum(PAIRED_JOBS) })
        .nullable(),
    })
    .nullable(),
});
export type Who = z.infer<typeof whoSchema>;

export const personViewSchema = z.object({
  accountId: ID.account,
  name: z.string(),
  email: z.string(),
  roles: z.array(z.enum(ROLES)),
  entrantNumber: z.int().nullable(),
  hasPassword: z.boolean(),
  /** Every role was taken up by its person: none counts before. */
  isAccepted: z.boolean(),
  isSuspended: z.boolean(),
  /** This event's director may offer a new password, and keep the account out. */
  isInvitedHere: z.boolean(),
});
export type PersonView = z.infer<typeof personViewSchema>;
