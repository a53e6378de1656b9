import { z } from 'zod';
import {
  CAPTURE_KINDS,
  type CaptureStatement,
  type CustodyFinding,
  type Fix,
  type PublicKey,
} from '@lauta/core/custody';
import type { PlaceOnWaters } from '@lauta/core/waters';
import type { CaptureId, CatchId, DeviceId, EntrantId, FileId, KeyId, SpeciesId } from '@lauta/core/ids';
import { ID } from './ids.ts';

const sha256 = z.string().regex(/^[0-9a-f]{64}$/, 'a SHA-256 in hex');
/** Base64url of so many bytes, without padding (RFC 4648, 5). */
const base64url = (byteLength: number) =>
  z.string().regex(new RegExp(`^[A-Za-z0-9_-]{${Math.ceil((byteLength * 4) / 3)}}$`), 'base64url');

const wholeMs = z.number().min(-1e13).max(1e13);

export const fixSchema = z.strictObject({
  latitude: z.number().min(-90).max(90),
  longitude: z.number().min(-180).max(180),
  accuracyM: z.number().min(0).max(1e7),
  at: z.iso.datetime(),
});

export const captureStatementSchema = z.strictObject({
  v: z.literal(1),
  captureId: ID.capture,
  eventId: ID.event,
  entrantId: ID.entrant,
  catchId: ID.catch,
  keyId: sha256,
  kind: z.enum(CAPTURE_KINDS),
  seq: z.int().min(1).max(1_000_000),
  former: sha256,
  photographSha256: sha256,
  at: z.iso.datetime(),
  runId: z.uuid(),
  monotonicMs: wholeMs,
  clockOffsetMs: wholeMs.nullable(),
  position: fixSchema.nullable(),
  identifierCode: z.string().max(12).nullable(),
});
export const statementFitsCore = (statement: z.infer<typeof captureStatementSchema>): CaptureStatement =>
  statement;
export const fixFitsCore = (fix: z.infer<typeof fixSchema>): Fix => fix;

export const signedCaptureSchema = z.strictObject({
  statement: captureStatementSchema,
  /** ECDSA, r and s of 32 bytes each (IEEE P1363, as Web Crypto gives it). */
  signature: base64url(64),
});
export type SignedCapture = z.infer<typeof signedCaptureSchema>;

/** A burst has twelve. */
export const MOST_CAPTURES_TOLD = 24;

/** Tells what the device signed, in the order in which it did. */
export const tellCapturesSchema = z.strictObject({
  entrantId: ID.entrant,
  captures: z.array(signedCaptureSchema).min(1).max(MOST_CAPTURES_TOLD),
});

/** The small thing that goes ahead of a claim's megabytes. */
export const announceCatchSchema = z.strictObject({
  catchId: ID.catch,
  entrantId: ID.entrant,
  speciesId: z.string().trim().min(1).max(40),
  capturedAt: z.iso.datetime(),
  claimedSteps: z.int().min(0).max(100_000),
  identifierCode: z.string().trim().toUpperCase().max(12).nullable(),
  photographs: z
    .array(z.strictObject({ photographId: ID.file, sha256, byteLength: z.int().min(1) }))
    .min(1)
    .max(12),
});
export type Announcement = z.infer<typeof announceCatchSchema>;

/** A judge wants frames that were signed and stayed on the device. */
export const askFramesSchema = z.strictObject({
  catchId: ID.catch,
  captureIds: z.array(ID.capture).min(1).max(MOST_CAPTURES_TOLD),
});

/** The device's answer for one of them; without a photograph it has the frame no more. */
export const sendFrameSchema = z.strictObject({
  catchId: ID.catch,
  captureId: ID.capture,
  photographId: ID.file.nullable(),
});

export const publicKeySchema = z.strictObject({
  kty: z.literal('EC'),
  crv: z.literal('P-256'),
  x: base64url(32),
  y: base64url(32),
});
export const keyFitsCore = (key: z.infer<typeof publicKeySchema>): PublicKey => key;

export const registerKeySchema = z.strictObject({
  publicKey: publicKeySchema,
  deviceId: ID.device,
  /** Signature over `registrationBytes`: who registers a key holds it. */
  proof: base64url(64),
});

export const REVOKED_WHY = ['lost', 'given-away'] as const;
export const revokeKeySchema = z.strictObject({ why: z.enum(REVOKED_WHY) });

/** A device of one's own account. */
export interface OwnKeyView {
  keyId: KeyId;
  deviceId: DeviceId;
  registeredAt: string;
  revokedAt: string | null;
  revokedWhy: (typeof REVOKED_WHY)[number] | null;
}

/** One signed capture of a catch, as a judge sees it. */
export interface CaptureView {
  captureId: CaptureId;
  kind: CaptureStatement['kind'];
  at: string;
  photographSha256: string;
  /** The claim's photograph of these bytes, or the frame that was sent when a judge asked. */
  photographId: FileId | null;
  isClaimed: boolean;
  /** `asked` waits for the device; `gone` is what the device has no more. */
  frame: 'on-device' | 'asked' | 'sent' | 'gone';
  position: Fix | null;
}

/** How a catch came from its capture to the server; for judges alone. */
export interface CustodyView {
  heardAt: string;
  arrivedAt: string;
  findings: CustodyFinding[];
  captures: CaptureView[];
  /** Where the claimed photograph was taken; null without a position. */
  position: Fix | null;
  place: PlaceOnWaters | null;
}

/** A catch that the server has heard of and whose photographs are on their way. */
export interface AnnouncedView {
  catchId: CatchId;
  entrant: { entrantId: EntrantId; number: number; name: string };
  speciesId: SpeciesId;
  capturedAt: string;
  claimedSteps: number;
  heardAt: string;
  bytes: number;
}

/** A frame that a judge waits for, asked of whoever's device has it. */
export interface AskedFrameView {
  catchId: CatchId;
  captureId: CaptureId;
  photographSha256: string;
}
