import { parsePayload, type Identifier } from '../../identifier/index.ts';
import type { Pattern } from '../board-search/pattern.ts';
import { cellAt } from '../fish-search/faceView.ts';
import type { LineEvidence } from '../fish-search/lineEvidence.ts';
import type { LensPose } from '../lens.ts';
import type { Point, Quad } from '../point.ts';
import type { Raster } from '../rectify.ts';
import { bareBoard } from './bareBoard.ts';
import { GLARE, viewCode, viewSurroundings, type CardView } from './cardView.ts';
import { cardAbout, type CodeSeen } from './codeSeen.ts';
import { findCodes, type CodeCandidate } from './findCodes.ts';
import { findSheets, type Sheet } from './findSheets.ts';
import { codeInOneLight, inOneLight } from './oneLight.ts';

export interface ReadCode {
  text: string;
  identifier: Identifier | null;
  /** The card about it, board coordinates, mm. */
  cardMm: Quad;
  /** Share of the card that is brighter than the picture can tell. */
  glareShare: number;
  /** It could be read only after light and shade on it were evened out. */
  isUneven: boolean;
}

/** What was found of cards. */
export interface IdentifierSeen {
  codes: readonly ReadCode[];
  /** Places that look like codes and could not be read. */
  unread: readonly CodeCandidate[];
  /** White sheets; looked for only when no code was read. */
  sheets: readonly Sheet[];
}

const CODE_SIDE_MM = 60;
/** Scales at which a code is drawn for the decoder, cells a mm: a module is about 1.1 mm. */
const FIRST_SCALE = 8;
const OTHER_SCALES = [12, 5, 16];
/** What is less finely mixed is not worth a try. */
const LEAST_GRAIN = 0.3;
/** So sure a place is a code even when it cannot be read. */
const SURE_GRAIN = 0.5;
const SURE_WHITE = 0.72;

/** Looks for identifier cards; asks for each picture in which a code may be read. */
export function* searchIdentifier(
  photo: Raster,
  pose: LensPose,
  pattern: Pattern,
  evidence: LineEvidence,
): Generator<Raster, IdentifierSeen, readonly CodeSeen[]> {
  const view = viewSurroundings(photo, pose, pattern);
  const isBare = bareBoard(evidence, pattern);
  const candidates = findCodes(photo, pose, view, isBare).filter(({ grain }) => grain > LEAST_GRAIN);
  const codes: ReadCode[] = [];
  const unread: CodeCandidate[] = [];
  for (const candidate of candidates) {
    // Once a card is read only what is surely another is read too.
    if (codes.length > 0 && !isSureCode(candidate)) continue;
    const code = yield* readAt(photo, pose, view, candidate, FIRST_SCALE);
    if (code) codes.push(code);
    else unread.push(candidate);
  }
  for (const candidate of codes.length > 0 ? [] : unread.filter(isSureCode).slice(0, 2)) {
    for (const scale of OTHER_SCALES) {
      const code = yield* readAt(photo, pose, view, candidate, scale);
      if (!code) continue;
      codes.push(code);
      break;
    }
    if (codes.length > 0) break;
  }
  if (codes.length === 0) {
    for (const candidate of findCodes(photo, pose, inOneLight(view), isBare).filter(isSureCode)) {
      const code = yield* readAt(photo, pose, view, candidate, FIRST_SCALE, codeInOneLight);
      if (!code) continue;
      codes.push({ ...code, isUneven: true });
      break;
    }
  }
  return { codes, unread, sheets: codes.length > 0 ? [] : findSheets(view, isBare) };
}

export function isSureCode({ grain, whiteShare }: CodeCandidate): boolean {
  return grain >= SURE_GRAIN && whiteShare >= SURE_WHITE;
}

function* readAt(
  photo: Raster,
  pose: LensPose,
  surroundings: CardView,
  { xMm, yMm }: CodeCandidate,
  cellsPerMm: number,
  developed: (picture: Raster, cellsPerMm: number) => Raster = (picture) => picture,
): Generator<Raster, ReadCode | null, readonly CodeSeen[]> {
  const [seen] = yield developed(viewCode(photo, pose, [xMm, yMm], CODE_SIDE_MM, cellsPerMm), cellsPerMm);
  if (!seen) return null;
  const toMm = ([x, y]: Point): Point => [
    xMm - CODE_SIDE_MM / 2 + (x + 0.5) / cellsPerMm,
    yMm - CODE_SIDE_MM / 2 + (y + 0.5) / cellsPerMm,
  ];
  const cardMm = cardAbout(seen.corners.map(toMm) as unknown as Quad);
  const glareShare = glareOn(surroundings, cardMm);
  return { text: seen.text, identifier: parsePayload(seen.text), cardMm, glareShare, isUneven: false };
}

const GLARE_STEPS = 24;

function glareOn(view: CardView, [first, second, , fourth]: Quad): number {
  let [count, glaring] = [0, 0];
  for (let u = 0.5 / GLARE_STEPS; u < 1; u += 1 / GLARE_STEPS) {
    for (let v = 0.5 / GLARE_STEPS; v < 1; v += 1 / GLARE_STEPS) {
      const xMm = first[0] + u * (second[0] - first[0]) + v * (fourth[0] - first[0]);
      const yMm = first[1] + u * (second[1] - first[1]) + v * (fourth[1] - first[1]);
      const cell = cellAt(view, xMm, yMm);
      if (cell < 0) continue;
      count++;
      if ((view.luma[cell] as number) > GLARE) glaring++;
    }
  }
  return count ? glaring / count : 0;
}
