import { numeralsSeen } from '../find-board/numerals.ts';
import type { Pattern } from '../find-board/pattern.ts';
import type { Tones } from '../find-board/tones.ts';
import type { LensPose } from '../camera/lens.ts';
import type { Raster } from '../image/raster.ts';
import { coverageOf, type Coverage } from './coverage.ts';
import { viewFace, type FaceView } from './faceView.ts';
import { lineEvidence, type LineEvidence } from './lineEvidence.ts';
import { pieceTogether, type Piece } from './pieces.ts';
import { BARE, addLines, bareCells, numeralInk, type BareView } from './printedInk.ts';
import { goesOnMm } from './goesOn.ts';
import { findTailTip, type TailHint, type TailTip } from './tail.ts';
import { cellAt, columnAt, columnStart, rowAt } from '../grid/planeGrid.ts';

/** What lies on the ruled face: all pieces, and the one that is taken for the fish. */
export interface SeenFace {
  view: BareView;
  coverage: Coverage;
  labels: Int32Array;
  pieces: readonly Piece[];
  evidence: LineEvidence;
  /** Whether something lies on the face at a place, mm. */
  isCovered: (xMm: number, yMm: number) => boolean;
  /** Null when nothing on the face is long and thick enough. */
  piece: Piece | null;
  /** Null when the tail's edge cannot be told from the board. */
  tip: SeenTip | null;
}

/** The tail's tip, and how far beyond it something goes on that is no bare face, mm. */
export type SeenTip = TailTip & { goesOnMm: number };

/** A face on which a fish was found; where its tail ends may be unknown. */
export type SeenFish = SeenFace & { piece: Piece };
export type LocatedFish = SeenFish & { tip: SeenTip };

export type FishTrouble = 'no-fish' | 'no-tail';

/** How closely the face is looked at. */
export interface FishLook {
  /** Cells of the finest view; fewer are quicker and blind to thin fins. */
  cellsPerMm: number;
  /** Whether the tail's edge is measured, which takes a third of the time. */
  withTip: boolean;
}

const CLOSE_LOOK: FishLook = { cellsPerMm: 2, withTip: true };
/** Cells of the fine view across one of the view in which ink is left out. */
const BLOCK_CELLS = 2;
const LEAST_LENGTH_MM = 60;

export function locateFish(
  photo: Raster,
  smooth: Tones,
  pose: LensPose,
  pattern: Pattern,
  { cellsPerMm, withTip } = CLOSE_LOOK,
): SeenFace {
  const fine = viewFace(photo, pose, {
    fromXMm: -30,
    toXMm: pattern.lengthMm + 14,
    fromYMm: -12,
    toYMm: pattern.widthMm + 12,
    cellsPerMm,
  });
  const numerals = numeralInk(fine, pattern, numeralsSeen(smooth, pose, pattern));
  const view = bareCells(fine, addLines(numerals, fine, pattern), BLOCK_CELLS);
  const evidence = lineEvidence(smooth, pose, pattern);
  const coverage = coverageOf(view, evidence, pattern);
  const { labels, pieces } = pieceTogether(view, coverage.odds, pattern);
  const piece = pickFish(pieces, view);
  const isCovered = (xMm: number, yMm: number): boolean => (labels[cellAt(view, xMm, yMm)] ?? 0) > 0;
  const face = { view, coverage, labels, pieces, evidence, isCovered };
  if (!piece || !withTip) return { ...face, piece, tip: null };
  const hint = {
    ...tailHint(view, labels, piece),
    brightestFace: coverage.brightest,
    printedAt: (xMm: number, yMm: number): number => numerals[cellAt(fine, xMm, yMm)] ?? BARE,
  };
  const tip = findTailTip(photo, pose, pattern, hint, faceColours(view, coverage));
  const isTail =
    tip !== null &&
    tip.xMm < pattern.lengthMm - FACE_END_MM &&
    (!breaksOffBeyond(evidence, pattern, tip, hint) || isBareBeyond(view, coverage.odds, tip)) &&
    piece.area / view.cellsPerMm ** 2 >= THINNEST * tip.xMm ** 2;
  if (!isTail) return { ...face, piece, tip: null };
  const beyondMm = goesOnMm(view, coverage, tip, pattern.lengthMm - FACE_END_MM);
  return { ...face, piece, tip: { ...tip, goesOnMm: beyondMm } };
}

/**
 * What ends so near to the face's own end, mm, ends because the face does: a fish that is longer, or the wall's rim that
 * lies before the face and touches a fin.
 */
const FACE_END_MM = 3;

/**
 * Area of a fish as a share of its length squared, at least: a pike has about 0.1 (from memory), an eel less. What is
 * thinner is taken for a strip of a fish whose other parts look like the board.
 */
const THINNEST = 0.07;

/** How far beyond the tip the lines are looked at, and which share of them must be seen there. */
const BEYOND_MM = 55;
const LEAST_SEEN_BEYOND = 0.45;

const BARE_MM = [2, 10] as const;
const BARE_ODDS = -1.2;

/** Whether the face next beyond the tip looks bare by its colour: what hides the lines farther on is something else. */
function isBareBeyond(view: FaceView, odds: Float32Array, tip: TailTip): boolean {
  let sum = 0;
  let count = 0;
  for (const [, yMm] of tip.edge) {
    for (let offMm = BARE_MM[0]; offMm < BARE_MM[1]; offMm += 1 / view.cellsPerMm) {
      const value = odds[cellAt(view, tip.xMm + offMm, yMm)];
      if (value === undefined) continue;
      sum += value;
      count++;
    }
  }
  return count > 20 && sum / count < BARE_ODDS;
}

/** Where the lines next beyond the tip are not seen in the tail's rows, the fish (or something) goes on. */
function breaksOffBeyond(evidence: LineEvidence, pattern: Pattern, tip: TailTip, hint: TailHint): boolean {
  const rows = tip.edge.map(([, yMm]) => Math.floor(yMm / evidence.rowMm));
  const tailRows = [...new Set(rows)].filter((row) => row >= 0 && row < evidence.rows);
  for (const [index, line] of pattern.lines.entries()) {
    if (line.xMm < tip.xMm + 2 || line.xMm > tip.xMm + BEYOND_MM) continue;
    const values = tailRows
      .map((row) => evidence.seen[index * evidence.rows + row])
      .filter(
        (value, i) =>
          value >= 0 && hint.printedAt(line.xMm - 2, (tailRows[i] + 0.5) * evidence.rowMm) === BARE,
      );
    if (values.length < 5) continue;
    // The first line that is drawn across these rows tells.
    return values.filter((value) => value > 0.35).length / values.length < LEAST_SEEN_BEYOND;
  }
  return false;
}

/** The piece that is longest along the board, begins in its first part and is thick enough to be a body. */
function pickFish(pieces: readonly Piece[], view: FaceView): Piece | null {
  let best: Piece | null = null;
  let bestScore = 0;
  for (const piece of pieces) {
    const lengthMm = (piece.toColumn - piece.fromColumn) / view.cellsPerMm;
    if (lengthMm < LEAST_LENGTH_MM || piece.area / view.cellsPerMm ** 2 < 8 * lengthMm) continue;
    const fromMm = columnStart(view, piece.fromColumn);
    const score = lengthMm - 0.7 * Math.max(0, fromMm - 20);
    if (score > bestScore) [best, bestScore] = [piece, score];
  }
  return best;
}

function tailHint(
  view: FaceView,
  labels: Int32Array,
  piece: Piece,
): Omit<TailHint, 'printedAt' | 'brightestFace'> {
  const rowMm = 1 / view.cellsPerMm;
  // Only the fish's last part: the body's rows would hide a lobe.
  const fromColumn = piece.toColumn - Math.round(30 * view.cellsPerMm);
  const edges: number[] = [];
  for (let row = piece.fromRow; row <= piece.toRow; row++) {
    let edge = NaN;
    for (let column = piece.toColumn; column >= fromColumn; column--) {
      if (labels[row * view.columns + column] !== piece.label) continue;
      edge = columnStart(view, column + 1);
      break;
    }
    edges.push(edge);
  }
  return {
    edgeMm: Float32Array.from(edges),
    fromYMm: view.fromYMm + piece.fromRow * rowMm,
    rowMm,
    tipMm: columnStart(view, piece.toColumn + 1),
  };
}

function faceColours(
  view: FaceView,
  coverage: Coverage,
): (xMm: number, yMm: number) => readonly [number, number, number] {
  return (xMm, yMm) => {
    const column = Math.min(view.columns - 1, Math.max(0, columnAt(view, xMm)));
    const row = Math.min(view.rows - 1, Math.max(0, rowAt(view, yMm)));
    const i = (row * view.columns + column) * 3;
    return [coverage.face[i], coverage.face[i + 1], coverage.face[i + 2]];
  };
}
