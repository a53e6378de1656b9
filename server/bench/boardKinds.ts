import { seededDice } from '@lauta/core/dice';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import {
  boardMap,
  learnBoard,
  mmPerUnit,
  type LearnResult,
  type LearntBoard,
  type MeasuringBoard,
  type Point,
} from '@lauta/vision';
import { drawBoardKind } from '@lauta/sim/camera';
import { drawPhotos, type PhotoRecord } from '@lauta/sim/photos';
import { analysePhotograph } from '../src/bench/analysePhotograph.ts';
import { decodePhotograph } from '../src/bench/decodePhotograph.ts';

/** Kinds on which learning was tuned are 1 to 40; these are for reporting alone. */
const FIRST_KIND = 601;
/** How far a person's marks lie beside their lines at most, px: as with a loupe. */
const MARK_OFF_PX = 2;

/** Learns boards that no profile describes from one photograph each, and reads a fish on each with what was learnt. */
export async function reportBoardKinds(dir: string, count: number): Promise<void> {
  const print = (text: string): void => void process.stdout.write(`${text}\n`);
  print(`\n## Boards learnt from one photograph, kinds ${FIRST_KIND} to ${FIRST_KIND + count - 1}\n`);
  print(
    '| kind | profile | corners off, px | seen | found again | length, true profile | length, learnt profile |',
  );
  print('| --- | --- | --- | --- | --- | --- | --- |');
  let right = 0;
  for (let kind = FIRST_KIND; kind < FIRST_KIND + count; kind++) {
    const truth = drawBoardKind(kind);
    const wish = { dir, threads: 1, boards: [truth], prefix: `kind-${kind}-` };
    const [empty] = (await drawPhotos({ ...wish, seeds: [kind], isEmptyBoard: true })) as [PhotoRecord];
    const [fish] = (await drawPhotos({ ...wish, seeds: [kind + 1000], maxTiltDeg: 15 })) as [PhotoRecord];
    const { raster } = await decodePhotograph(await readFile(join(dir, empty.file)));
    const result = learn(raster, truth, empty);
    if (!result.ok) {
      print(`| ${kind} | none: ${result.code} | - | - | - | - | - |`);
      continue;
    }
    const { board, corners, seenShare, isFoundAgain } = result.value;
    const faults = faultsOf(board, truth);
    if (faults.length === 0) right++;
    const off = Math.max(
      ...corners.map(([x, y], i) =>
        Math.hypot(x - (empty.corners[i]?.[0] ?? NaN), y - (empty.corners[i]?.[1] ?? NaN)),
      ),
    );
    const jpeg = await readFile(join(dir, fish.file));
    const lengthBy = async (profile: MeasuringBoard): Promise<string> => {
      const { analysis } = await analysePhotograph(jpeg, profile, { otherBoards: [] });
      if (analysis.lengthMm === null || fish.lengthMm === null) return analysis.trouble ?? '-';
      return `${(analysis.lengthMm - fish.lengthMm).toFixed(2)} ± ${(analysis.sigmaMm ?? NaN).toFixed(2)}`;
    };
    print(
      `| ${kind} | ${faults.join(', ') || 'right'} | ${off.toFixed(1)} | ${(100 * seenShare).toFixed(0)} % | ${isFoundAgain ? 'yes' : 'no'} | ${await lengthBy(truth)} | ${await lengthBy({ ...board, id: 'learnt', name: 'Learnt' })} |`,
    );
  }
  print(`\nRight in scale, lines, spans, strokes and numerals: ${right} of ${count}.`);
}

function learn(
  raster: Parameters<typeof learnBoard>[0],
  truth: MeasuringBoard,
  { camera, corners, file }: PhotoRecord,
): LearnResult {
  const map = boardMap(
    truth,
    corners as unknown as Parameters<typeof boardMap>[1],
    { focalPx: camera.f, k1: camera.k1 },
    raster,
  );
  const dice = seededDice(file.length + corners.length);
  const by = (): number => 2 * MARK_OFF_PX * (dice() - 0.5);
  const at = (value: number, yMm: number): Point => {
    const [x, y] = map.toPhoto([value * mmPerUnit(truth), yMm]);
    return [x + by(), y + by()];
  };
  const step = truth.unit === 'in' ? 1 : 5;
  const values = [2 * step, Math.floor((truth.scaleLength - 1) / step) * step] as const;
  const [first, second] = values.map((value) => ({
    value,
    far: at(value, 0),
    near: at(value, truth.widthMm),
  }));
  if (!first || !second) throw new Error('marks: expected two');
  const steps = learnBoard(raster, {
    unit: truth.unit,
    lines: [first, second],
    focal35Mm: camera.focal35,
    hasWall: truth.wall !== null,
    widthMm: null,
  });
  let state = steps.next();
  while (!state.done) state = steps.next();
  return state.value;
}

/** In what a learnt profile differs from the one the board was drawn from. */
function faultsOf(learnt: LearntBoard, truth: MeasuringBoard): string[] {
  const faults: string[] = [];
  const near = (a: number, b: number | undefined, by: number): boolean => Math.abs(a - (b ?? NaN)) < by;
  if (learnt.scaleLength !== truth.scaleLength)
    faults.push(`length ${learnt.scaleLength} for ${truth.scaleLength}`);
  if (!near(learnt.widthMm / truth.widthMm, 1, 0.01))
    faults.push(`width ${learnt.widthMm} for ${truth.widthMm}`);
  const every = (board: LearntBoard): string => board.lines.map((family) => family.every).join('/');
  if (every(learnt) !== every(truth)) faults.push(`lines ${every(learnt)} for ${every(truth)}`);
  else {
    learnt.lines.forEach(({ spans, strokeMm }, i) => {
      const wanted = truth.lines[i];
      const isSame =
        spans.length === wanted?.spans.length &&
        spans.every((span, j) => span.every((end, k) => near(end, wanted.spans[j]?.[k], 0.025)));
      if (!isSame) faults.push(`spans of ${wanted?.every}`);
      if (!near(strokeMm, wanted?.strokeMm, 0.5))
        faults.push(`stroke ${strokeMm} for ${wanted?.strokeMm.toFixed(1)}`);
    });
  }
  const { numerals } = learnt;
  if (numerals.every !== truth.numerals.every)
    faults.push(`numerals every ${numerals.every} for ${truth.numerals.every}`);
  else if (
    numerals.centresAt.length !== truth.numerals.centresAt.length ||
    !numerals.centresAt.every((at, i) => near(at, truth.numerals.centresAt[i], 0.03))
  )
    faults.push('numerals’ rows');
  return faults;
}
