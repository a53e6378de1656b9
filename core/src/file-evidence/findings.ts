import { distanceM, type Finding, type Position, type Tone } from '../evidence/index.ts';
import type { PlaceOnWaters } from '../waters/index.ts';
import type { PhotoExif } from './photoExif.ts';

/** Checks of the file, beside those of the picture; ids are stable. */
export const FILE_CHECKS = [
  'time-missing',
  'time-outside',
  'place-missing',
  'place-outside',
  'clock-off',
  'resaved',
  'same-photo',
  'same-fish',
  'too-far-too-soon',
] as const;
export type FileCheck = (typeof FILE_CHECKS)[number];

/** A sign that a program has stored the file again. */
export type ResavedSign =
  | { code: 'thumbnail-proportions' | 'changed-later' | 'no-camera' }
  | { code: 'program-tables'; quality: number };

/** Why a check of the file says what it says, with the facts of each. */
export interface FileReasons {
  'no-time': unknown;
  'no-offset': unknown;
  'own-time': unknown;
  'within-session': unknown;
  'outside-sessions': unknown;
  'before-claim': unknown;
  'after-claim': { byMs: number };
  'no-position': unknown;
  'own-position': unknown;
  'on-waters': unknown;
  'closed-area': { area: string | null };
  'outside-waters': { awayM: number };
  'way-possible': unknown;
  'way-too-far': { wayM: number; apartMs: number };
  'other-thumbnail': unknown;
  'stored-once': unknown;
  'may-be-resaved': { signs: readonly ResavedSign[] };
}

export type FileFinding = Finding<FileCheck, FileReasons>;

/** What is known of a file and of its catch. Times are ms since 1970, UTC. */
export interface FileFacts {
  exif: PhotoExif;
  /** When the file says that it was changed last; null when it does not say. */
  modifiedAtLocal: string | null;
  startsWithJfif: boolean;
  /** Quality of the standard's tables; null for a camera's own. */
  standardQuality: number | null;
  /** How alike the embedded thumbnail and the picture are, −1 to 1; null without a thumbnail. */
  thumbnailAlike: number | null;
  /** Width over height of thumbnail and picture. */
  thumbnailAspect: number | null;
  pictureAspect: number;
  /** Sessions of the event. */
  sessions: readonly { fromMs: number; toMs: number }[];
  /** When the server first heard of the catch. */
  receivedAtMs: number;
  /** When the device made the claim, by its own clock set right. */
  madeAtMs: number;
  /** Where a place lies on the event's waters; null when nobody has drawn them. */
  placeOn: ((position: Position) => PlaceOnWaters) | null;
  /** The same entrant's capture before this one. */
  former: { atMs: number; position: Position } | null;
}

/** Phones' clocks differ from the server's by seconds; a minute is a wrong clock. */
export const CLOCK_SLACK_MS = 60_000;
/** Nobody on the water is faster than this, m/s: a boat at 70 knots. */
export const FASTEST_M_S = 36;
export const POSITION_SLACK_M = 200;
const ALIKE_THUMBNAIL = 0.75;
const ASPECT_SLACK = 0.04;

/** What a file says for and against itself. A finding informs: phones lose positions, and clocks are wrong. */
export function fileFindings(facts: FileFacts): FileFinding[] {
  return [...timeFindings(facts), ...placeFindings(facts), resavedFinding(facts)];
}

function timeFindings({ exif, sessions, receivedAtMs, madeAtMs }: FileFacts): FileFinding[] {
  const takenMs = exif.takenAt === null ? NaN : Date.parse(exif.takenAt);
  if (exif.takenAtLocal === null) return [finding('time-missing', 'look', 0.9, { code: 'no-time' })];
  if (Number.isNaN(takenMs)) return [finding('time-missing', 'look', 0.8, { code: 'no-offset' })];
  const has = finding('time-missing', 'clear', 0.95, { code: 'own-time' });
  const inside = sessions.some(({ fromMs, toMs }) => takenMs >= fromMs && takenMs <= toMs);
  const outside = inside
    ? finding('time-outside', 'clear', 0.95, { code: 'within-session' })
    : finding('time-outside', 'fault', 0.85, { code: 'outside-sessions' });
  const aheadMs = takenMs - Math.min(receivedAtMs, madeAtMs);
  const clock =
    aheadMs > CLOCK_SLACK_MS
      ? finding('clock-off', 'fault', 0.9, { code: 'after-claim', byMs: aheadMs })
      : finding('clock-off', 'clear', 0.7, { code: 'before-claim' });
  return [has, outside, clock];
}

function placeFindings({ exif, placeOn, former }: FileFacts): FileFinding[] {
  const { position, takenAt } = exif;
  if (!position) return [finding('place-missing', 'look', 0.9, { code: 'no-position' })];
  const found = [finding('place-missing', 'clear', 0.95, { code: 'own-position' })];
  const place = placeOn?.(position);
  if (place)
    found.push(
      place.where !== 'open' && place.awayM > POSITION_SLACK_M
        ? finding(
            'place-outside',
            'fault',
            0.85,
            place.where === 'closed'
              ? { code: 'closed-area', area: place.name }
              : { code: 'outside-waters', awayM: place.awayM },
          )
        : finding('place-outside', 'clear', 0.9, { code: 'on-waters' }),
    );
  const takenMs = takenAt === null ? NaN : Date.parse(takenAt);
  if (former && !Number.isNaN(takenMs)) {
    const wayM = Math.max(0, distanceM(position, former.position) - POSITION_SLACK_M);
    const seconds = Math.max(1, Math.abs(takenMs - former.atMs) / 1000);
    found.push(
      wayM / seconds > FASTEST_M_S
        ? finding('too-far-too-soon', 'fault', 0.8, { code: 'way-too-far', wayM, apartMs: 1000 * seconds })
        : finding('too-far-too-soon', 'clear', 0.8, { code: 'way-possible' }),
    );
  }
  return found;
}

function resavedFinding(facts: FileFacts): FileFinding {
  const {
    exif,
    modifiedAtLocal,
    startsWithJfif,
    standardQuality,
    thumbnailAlike,
    thumbnailAspect,
    pictureAspect,
  } = facts;
  if (thumbnailAlike !== null && thumbnailAlike < ALIKE_THUMBNAIL)
    return finding('resaved', 'fault', 0.85, { code: 'other-thumbnail' });
  const signs: ResavedSign[] = [];
  if (thumbnailAspect !== null && Math.abs(thumbnailAspect / pictureAspect - 1) > ASPECT_SLACK)
    signs.push({ code: 'thumbnail-proportions' });
  if (modifiedAtLocal !== null && exif.takenAtLocal !== null && modifiedAtLocal > exif.takenAtLocal)
    signs.push({ code: 'changed-later' });
  if (exif.device === null && startsWithJfif) signs.push({ code: 'no-camera' });
  if (exif.device === null && standardQuality !== null)
    signs.push({ code: 'program-tables', quality: standardQuality });
  if (signs.length === 0) return finding('resaved', 'clear', 0.7, { code: 'stored-once' });
  return finding('resaved', 'look', Math.min(0.8, 0.4 + 0.2 * signs.length), {
    code: 'may-be-resaved',
    signs,
  });
}

/** How alike a picture and its thumbnail are: correlation of their grey values on one grid, −1 to 1. */
export function alikeGreys(a: readonly number[], b: readonly number[]): number {
  if (a.length !== b.length || a.length === 0)
    throw new RangeError(`greys: expected two of one length, got ${a.length} and ${b.length}`);
  const mean = (values: readonly number[]): number =>
    values.reduce((sum, value) => sum + value, 0) / values.length;
  const [ma, mb] = [mean(a), mean(b)];
  let [ab, aa, bb] = [0, 0, 0];
  a.forEach((value, i) => {
    const [p, q] = [value - ma, (b[i] ?? 0) - mb];
    ab += p * q;
    aa += p * p;
    bb += q * q;
  });
  return aa > 0 && bb > 0 ? ab / Math.sqrt(aa * bb) : 1;
}

function finding(
  check: FileCheck,
  tone: Tone,
  confidence: number,
  reason: FileFinding['reason'],
): FileFinding {
  return { check, tone, confidence, reason };
}
