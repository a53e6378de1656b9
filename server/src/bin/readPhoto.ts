import { readFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import {
  SHIPPED_BOARDS,
  toStoredPx,
  isTurned,
  type MeasuringBoard,
  type Point,
  type Quad,
} from '@lauta/vision';
import { photoReason } from '@lauta/words/photoReason';
import { analysePhotograph } from '../bench/analysePhotograph.ts';
import { readBoardFile } from './boardFile.ts';

const USAGE =
  'usage: npm run -s read-photo -- PHOTO... --board BOARD.json [--corners x0,y0,x1,y1,x2,y2,x3,y3] [--limit-tilt DEG]';

/** Reads photographs on the command line by the code that the application runs: one line of JSON each. */
async function main(): Promise<void> {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      board: { type: 'string' },
      corners: { type: 'string' },
      'limit-tilt': { type: 'string' },
    },
  });
  if (!values.board || positionals.length === 0) throw new RangeError(USAGE);
  const board = await readBoardFile(values.board);
  const near = values.corners === undefined ? null : parseCorners(values.corners);
  const limitTiltDeg = values['limit-tilt'] === undefined ? null : Number(values['limit-tilt']);
  if (limitTiltDeg !== null && !(limitTiltDeg > 0 && limitTiltDeg < 90)) throw new RangeError(USAGE);
  for (const photo of positionals) {
    const bytes = await readFile(photo);
    process.stdout.write(`${JSON.stringify(await readOne(photo, bytes, board, near, limitTiltDeg))}\n`);
  }
}

async function readOne(
  photo: string,
  bytes: Uint8Array,
  board: MeasuringBoard,
  near: Quad | null,
  limitTiltDeg: number | null,
) {
  const { analysis, ms, orientation, widthPx, heightPx, isTruncated } = await analysePhotograph(
    bytes,
    board,
    {
      otherBoards: SHIPPED_BOARDS,
      ...(limitTiltDeg === null ? {} : { limitTiltDeg }),
      ...(near ? { nearStored: near } : {}),
    },
  );
  const [storedWidth, storedHeight] = isTurned(orientation) ? [heightPx, widthPx] : [widthPx, heightPx];
  const stored = (point: Point): Point => {
    const [x, y] = toStoredPx(point, orientation, storedWidth, storedHeight);
    return [rounded(x), rounded(y)];
  };
  return {
    photo,
    board: analysis.found?.boardId ?? null,
    corners: analysis.found?.corners.map(stored) ?? null,
    apparentMm: analysis.apparentMm && rounded(analysis.apparentMm),
    lengthMm: analysis.lengthMm && rounded(analysis.lengthMm),
    sigmaMm: analysis.sigmaMm && rounded(analysis.sigmaMm),
    noseGapMm: analysis.noseGapMm === null ? null : rounded(analysis.noseGapMm),
    mouthGapMm: analysis.mouthGapMm === null ? null : rounded(analysis.mouthGapMm),
    tiltDeg: analysis.found && rounded(analysis.found.tiltDeg),
    identifier: analysis.identifier ?? { visible: false, payload: null },
    findings: analysis.findings.map((finding) => ({
      check: finding.check,
      verdict: finding.tone,
      confidence: finding.confidence,
      why: photoReason(finding),
    })),
    ...(analysis.trouble ? { reason: analysis.trouble } : {}),
    ...(isTruncated ? { truncated: true } : {}),
    ms,
  };
}

const rounded = (value: number): number => Math.round(value * 100) / 100;

function parseCorners(text: string): Quad {
  const values = text.split(',').map(Number);
  if (values.length !== 8 || values.some((value) => !Number.isFinite(value))) throw new RangeError(USAGE);
  const [x0 = 0, y0 = 0, x1 = 0, y1 = 0, x2 = 0, y2 = 0, x3 = 0, y3 = 0] = values;
  return [[x0, y0], [x1, y1], [x2, y2], [x3, y3]]; // prettier-ignore
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message.split('\n')[0] : String(error)}\n`);
  process.exitCode = 2;
});
