import { describe, expect, it } from 'vitest';
import {
  analysePhoto,
  isSameKind,
  learnBoard,
  mmPerUnit,
  SHIPPED_BOARDS,
  type LearnResult,
  type MeasuringBoard,
  type Point,
} from '@lauta/vision';
import {
  drawBoardKind,
  drawEmptyBoard,
  drawScene,
  projectPoint,
  renderScene,
  type Scene,
} from '../camera/index.ts';

const SIZE = { widthPx: 1600, heightPx: 1200 };

function learn(scene: Scene): LearnResult {
  const { board, camera } = scene;
  const at = (value: number, yMm: number): Point => {
    const [x, y] = projectPoint(camera, [value * mmPerUnit(board), yMm, 0]);
    return [Math.round(x), Math.round(y)];
  };
  const values = board.unit === 'in' ? [2, board.scaleLength - 2] : [10, board.scaleLength - 10];
  const [first, second] = values.map((value) => ({
    value,
    far: at(value, 0),
    near: at(value, board.widthMm),
  }));
  if (!first || !second) throw new Error('marks: expected two');
  const steps = learnBoard(renderScene(scene).raster, {
    unit: board.unit,
    lines: [first, second],
    focal35Mm: camera.focal35Mm,
    hasWall: board.wall !== null,
    widthMm: null,
  });
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

describe('drawn kinds of board', () => {
  const kinds = Array.from({ length: 200 }, (_, seed) => drawBoardKind(seed));

  it('are wide apart: units, dark and light, one-sided lines, eighths, walls', () => {
    const share = (what: (board: MeasuringBoard) => boolean): number =>
      kinds.filter(what).length / kinds.length;
    expect(share(({ unit }) => unit === 'in')).toBeCloseTo(0.6, 1);
    expect(share(({ face, ink }) => face < ink)).toBeCloseTo(0.35, 1);
    expect(share(({ wall }) => wall !== null)).toBeCloseTo(0.35, 1);
    expect(share(({ lines }) => lines.some(({ every }) => every === 0.125))).toBeGreaterThan(0.1);
    expect(share(({ lines }) => lines.at(-1)?.spans.length === 1)).toBeGreaterThan(0.25);
  });

  it('are hardly ever like a shipped one', () => {
    const alike = kinds.filter((kind) => SHIPPED_BOARDS.some((shipped) => isSameKind(kind, shipped)));
    expect(alike.length).toBeLessThan(3);
  });
});

describe('a kind of board that no profile describes', () => {
  it.each([3, 5])(
    '%i is learnt from one photograph, and a fish is read on it',
    (seed) => {
      const truth = drawBoardKind(seed);
      const result = learn(drawEmptyBoard(seed + 500, truth, SIZE).scene);
      expect(result.ok).toBe(true);
      if (!result.ok) return;
      expect(isSameKind(result.value.board, truth)).toBe(true);
      expect(result.value.board.numerals.every).toBe(truth.numerals.every);
      expect(result.value.isFoundAgain).toBe(true);
      const learnt: MeasuringBoard = { ...result.value.board, id: 'learnt', name: 'Learnt' };
      const { raster, truth: known } = renderScene(
        drawScene(seed + 41, {
          board: truth,
          look: 'largemouth-bass',
          lengthMm: 260,
          identifier: null,
          hand: false,
          ...SIZE,
        }),
      );
      const analysis = analysePhoto(raster, learnt, {
        focal35Mm: known.focal35Mm,
        otherBoards: SHIPPED_BOARDS,
      });
      expect(analysis.found?.boardId).toBe('learnt');
      expect(Math.abs((analysis.lengthMm ?? NaN) - (known.lengthMm ?? NaN))).toBeLessThan(
        3 * (analysis.sigmaMm ?? 0),
      );
    },
    180_000,
  );
});
