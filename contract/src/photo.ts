import type { PhotoExif } from '@lauta/core/file-evidence';
import { z } from 'zod';
import type { FileFinding } from '@lauta/core/file-evidence';
import type { Likeness, SameVerdict } from '@lauta/vision/same-fish';
import { MARK_NAMES, type BenchNotes, type BoardMarks, type PhotoAnalysis } from '@lauta/vision';
import type { CatchId, FileId } from '@lauta/core/ids';
import { ID } from './ids.ts';

const coordinate = z.number().min(-100_000).max(100_000);
const point = z.tuple([coordinate, coordinate]).readonly();

export const marksSchema = z.strictObject({
  corners: z.tuple([point, point, point, point]).readonly(),
  nose: point,
  tail: point,
});
export const marksFitCore = (marks: z.infer<typeof marksSchema>): BoardMarks => marks;

export const benchNotesSchema = z.strictObject({
  lens: z.strictObject({ focalPx: z.number().min(50).max(100_000), k1: z.number().min(-0.3).max(0.3) }),
  byHand: z.array(z.enum(MARK_NAMES)).max(MARK_NAMES.length),
  tipSigmaMm: z.number().min(0.05).max(30),
});
export const notesFitCore = (notes: z.infer<typeof benchNotesSchema>): BenchNotes => notes;

/** Another catch of the event that may show the same fish. */
export interface AlikeCatch {
  catchId: CatchId;
  photographId: FileId;
  /** The photograph of the catch that was asked about. */
  ownPhotographId: FileId;
  entrant: { number: number; name: string };
  capturedAt: string;
  lengthMm: number;
  /** 0 to 1: how likely it is the same fish. */
  score: number;
  answer: SameVerdict;
  /** One photograph, cut or stored anew. */
  isSamePhoto: boolean;
  reason: Likeness['reason'];
  /** Pairs of places that match: px of this photograph, px of the other. */
  places: (readonly [readonly [number, number], readonly [number, number]])[];
}

/** What the server itself reads off a stored original, and how far that is from what was claimed. */
export interface BenchReadingView {
  analysis: PhotoAnalysis;
  isTruncated: boolean;
  /** Server's apparent length less the claim's reading, mm; null when the server read none. */
  differenceMm: number | null;
  /** Whether that is more than both uncertainties explain (twice the combined standard uncertainty). */
  isDifferent: boolean;
  /** What the file says for and against itself; for judges alone. */
  evidence: FileFinding[];
  /** Catches that may show the same fish; for judges alone. */
  alike: AlikeCatch[];
  /** Earlier fish of this kind and length that are still to be compared. */
  alikeUnread: number;
}

/** Bounds of an upload; the server checks them by content. */
export const PHOTOGRAPH_LIMITS = {
  maxBytes: 24 * 1024 * 1024,
  chunkBytes: 512 * 1024,
  maxSidePx: 12_000,
  maxPixels: 50_000_000,
  minSidePx: 64,
} as const;

/** Bounds of the clip of a release; its length is kept by who takes it. */
export const CLIP_LIMITS = { maxBytes: 12 * 1024 * 1024, maxSeconds: 10 } as const;

export const MEDIA_TYPES = ['image/jpeg', 'video/webm', 'video/mp4'] as const;
export type MediaType = (typeof MEDIA_TYPES)[number];

export const isClip = (mediaType: MediaType): boolean => mediaType !== 'image/jpeg';

export const declarePhotographSchema = z
  .strictObject({
    photographId: ID.file,
    eventId: ID.event,
    byteLength: z.int().min(1).max(PHOTOGRAPH_LIMITS.maxBytes),
    sha256: z.string().regex(/^[0-9a-f]{64}$/),
    /** A clip of the release travels as photographs do; absent in what versions without clips send. */
    mediaType: z.enum(MEDIA_TYPES).default('image/jpeg'),
  })
  .refine(({ mediaType, byteLength }) => !isClip(mediaType) || byteLength <= CLIP_LIMITS.maxBytes, {
    message: `a clip has at most ${CLIP_LIMITS.maxBytes} bytes`,
    path: ['byteLength'],
  });
export type DeclarePhotograph = z.infer<typeof declarePhotographSchema>;

export const photographStateSchema = z.object({
  photographId: ID.file,
  state: z.enum(['receiving', 'complete']),
  chunkBytes: z.int(),
  /** Chunks that have arrived, so that a broken upload goes on where it was. */
  received: z.array(z.int()),
});
export type PhotographState = z.infer<typeof photographStateSchema>;

/** What the file tells of itself; kept apart from the picture. */
export const exifSchema = z.object({
  takenAtLocal: z.string().nullable(),
  offset: z.string().nullable(),
  takenAt: z.iso.datetime().nullable(),
  focal35Mm: z.number().nullable(),
  orientation: z.int().nullable(),
  device: z.string().nullable(),
  software: z.string().nullable(),
  hasPosition: z.boolean(),
});
export type ExifView = z.infer<typeof exifSchema>;

/** What may be shown of a file's own word: everything but the exact place. */
export function exifView({ position, ...rest }: PhotoExif): ExifView {
  return { ...rest, hasPosition: position !== null };
}

export const PHOTOGRAPH_VARIANTS = ['original', 'screen', 'thumb'] as const;
export type PhotographVariant = (typeof PHOTOGRAPH_VARIANTS)[number];
