import { parsePayload, type Identifier } from '@lauta/core/identifier';
import type { Pattern } from '../find-board/pattern.ts';
import { cellAt } from '../grid/planeGrid.ts';
import type { LineEvidence } from '../find-fish/lineEvidence.ts';
import type { LensPose } from '../camera/lens.ts';
import { mapQuad, type Point, type Quad } from '../geometry/point.ts';
import type { Raster } from '../image/raster.ts';
import { bareBoard } from './bareBoard.ts';
import { GLARE, viewCode, viewSurroundings, type CardView } from './cardView.ts';
import { cardAbout, type CodeSeen } from './codeSeen.ts';
import { findCodes, type CodeCandidate } from './findCodes.ts';
import { findSheets, type Sheet } from './findSheets.ts';
import { codeInOneLight, inOneLight, withWiderInk } from './inOneLight.ts';
import { sharpened } from './sharpen.ts';
import { inWhiteLight } from './whiteLight.ts';

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
/** A module of the code is about 1.1 mm. */
const CELLS_PER_MM = 8;

/** How a place is drawn for the decoder. */
interface Drawing {
  cellsPerMm: number;
  develop?: (picture: Raster, cellsPerMm: number) => Raster;
  isInOneLight?: boolean;
}

const PLAIN: Drawing = { cellsPerMm: CELLS_PER_MM };
/** What reads codes that are not read as they are: in the sun white runs over ink, small ones need sharpening, divided ones one light. */
const HARDER: readonly Drawing[] = [
  {
    cellsPerMm: CELLS_PER_MM,
    develop: (picture, cells) =>
      withWiderInk(sharpened(picture, cells, { aboutMm: 0.5, by: 6 }), cells, 0.25),
  },
  {
    cellsPerMm: CELLS_PER_MM,
    develop: (picture, cells) => sharpened(picture, cells, { aboutMm: 0.5, by: 4 }),
  },
  { cellsPerMm: 12 },
  { cellsPerMm: 5 },
  { cellsPerMm: CELLS_PER_MM, develop: codeInOneLight, isInOneLight: true },
];
/** Places that are tried so, the likeliest first, and how likely one must be. */
const MOST_HARD = 3;
const LEAST_TRIED = 0.33;
/** What is less finely mixed is not worth a try. */
const LEAST_GRAIN = 0.3;
/** White about it times grain of what may be a code though it cannot be read, and of what plainly is one. */
const LIKELY = 0.4;
const SURE = 0.52;
/** Places nearer to each other than this are the same, mm. */
const APART_MM = 24;

/** The picture from which codes are read, and the pose in its px: a shrunk one has lost what small codes need. */
export interface CodePicture {
  photo: Raster;
  pose: LensPose;
}

/**
 * Looks for identifier cards; asks for each picture in which a code may be read.
 * @param close where codes are read, if not from the same picture
 */
export function* searchIdentifier(
  photo: Raster,
  pose: LensPose,
  pattern: Pattern,
  evidence: LineEvidence,
  close: CodePicture = { photo, pose },
): Generator<Raster, IdentifierSeen, readonly CodeSeen[]> {
  const isBare = bareBoard(evidence, pattern);
  const view = inWhiteLight(viewSurroundings(photo, pose, pattern), pattern, isBare);
  const candidates = findCodes(photo, pose, view, isBare).filter(({ grain }) => grain > LEAST_GRAIN);
  const codes: ReadCode[] = [];
  const unread: CodeCandidate[] = [];
  for (const candidate of candidates) {
    // Once a card is read only what is likely another is read too.
    if (codes.length > 0 && !isLikelyCode(candidate)) continue;
    const code = yield* readAt(close, view, candidate, PLAIN);
    if (code) codes.push(code);
    else unread.push(candidate);
  }
  if (codes.length > 0) return { codes, unread, sheets: [] };
  const inShade = findCodes(photo, pose, inOneLight(view), isBare).filter(isLikelyCode);
  const all = [...unread, ...inShade].sort((a, b) => likelihoodOf(b) - likelihoodOf(a));
  const places = all.filter((one, i) => !all.slice(0, i).some((better) => isSamePlace(one, better)));
  const hard = places.filter((one) => likelihoodOf(one) >= LEAST_TRIED).slice(0, MOST_HARD);
  for (const candidate of hard) {
    for (const drawing of HARDER) {
      const code = yield* readAt(close, view, candidate, drawing);
      if (code) return { codes: [code], unread: places.filter((one) => one !== candidate), sheets: [] };
    }
  }
  return { codes, unread: places, sheets: findSheets(view, isBare) };
}

function isSamePlace(a: CodeCandidate, b: CodeCandidate): boolean {
  return Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm) < APART_MM;
}

function likelihoodOf({ grain, whiteShare }: CodeCandidate): number {
  return grain * whiteShare;
}

/** Whether a place may be a code although it cannot be read. */
export function isLikelyCode(candidate: CodeCandidate): boolean {
  return likelihoodOf(candidate) >= LIKELY;
}

/** Whether a place is plainly a code although it cannot be read. */
export function isSureCode(candidate: CodeCandidate): boolean {
  return likelihoodOf(candidate) >= SURE;
}

function* readAt(
  { photo, pose }: CodePicture,
  surroundings: CardView,
  { xMm, yMm }: CodeCandidate,
  { cellsPerMm, develop = (picture) => picture, isInOneLight = false }: Drawing,
): Generator<Raster, ReadCode | null, readonly CodeSeen[]> {
  const [seen] = yield develop(viewCode(photo, pose, [xMm, yMm], CODE_SIDE_MM, cellsPerMm), cellsPerMm);
  if (!seen) return null;
  const toMm = ([x, y]: Point): Point => [
    xMm - CODE_SIDE_MM / 2 + (x + 0.5) / cellsPerMm,
    yMm - CODE_SIDE_MM / 2 + (y + 0.5) / cellsPerMm,
  ];
  const cardMm = cardAbout(mapQuad(seen.corners, toMm));
  const glareShare = glareOn(surroundings, cardMm);
  return { text: seen.text, identifier: parsePayload(seen.text), cardMm, glareShare, isUneven: isInOneLight };
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
      if (view.luma[cell] > GLARE) glaring++;
    }
  }
  return count ? glaring / count : 0;
}
