import { describe, expect, it } from 'vitest';
import { analysePhoto, type PhotoAnalysis } from '../analyse/analyse.ts';
import { isTailFaint } from '../analyse/reading.ts';
import { findBoard, type MeasuringBoard } from '../board/board.ts';
import {
  drawBoardPicture,
  flatFish,
  type BoardPicture,
  type BoardView,
} from '../board/drawnBoard.test-data.ts';
import { patternOf } from '../find-board/pattern.ts';
import { smoothTones, tonesOf } from '../find-board/tones.ts';
import { boardPointOf, projectBoardPoint } from '../camera/lens.ts';
import type { Point } from '../geometry/point.ts';
import { viewFace } from './faceView.ts';
import { lineEvidence } from './lineEvidence.ts';
import { label, pieceTogether } from './pieces.ts';
import { axisAtStop, flareAt, outlineOf } from './outline.ts';
import { INK, BARE, addLines, bareCells } from './printedInk.ts';

type Colour = readonly [number, number, number];

const board = (id: string): MeasuringBoard => findBoard(id) as MeasuringBoard;
const birch = board('birch-30in');
const GREEN: Colour = [88, 104, 52];
const PALE: Colour = [168, 172, 150];
const SIZE = { widthPx: 1400, heightPx: 1050 };

function fishOn(
  kind: MeasuringBoard,
  lengthMm: number,
  colour: Colour,
  view: Partial<BoardView> = {},
): BoardPicture {
  const fish = { outlineMm: flatFish(lengthMm, kind.widthMm / 2), colour };
  return drawBoardPicture(kind, {
    seed: Math.round(lengthMm),
    ...SIZE,
    ...view,
    things: [fish, ...(view.things ?? [])],
  });
}

const read = ({ raster, board: kind, focal35Mm }: BoardPicture): PhotoAnalysis =>
  analysePhoto(raster, kind, { focal35Mm });

describe('a flat fish is read where its tail was drawn to', () => {
  it.each<[string, string, number, Colour, Partial<BoardView>]>([
    ['green on the pale board', 'birch-30in', 402, GREEN, {}],
    ['green on the tan board', 'sand-26in', 358, GREEN, {}],
    ['green on the dark board', 'slate-75cm', 431, GREEN, {}],
    ['pale on the dark board', 'slate-75cm', 377, PALE, {}],
    ['tilted and turned', 'birch-30in', 455, GREEN, { tiltDeg: 20, towardsDeg: 120, rollDeg: -9 }],
    ['through a barrel lens', 'birch-30in', 520, GREEN, { fieldDeg: 90, k1: -0.045 }],
    ['turned half round', 'birch-30in', 402, GREEN, { rollDeg: 181 }],
  ])('%s', (_, id, lengthMm, colour, view) => {
    const analysis = read(fishOn(board(id), lengthMm, colour, view));
    expect(analysis.trouble).toBeNull();
    expect(Math.abs((analysis.apparentMm ?? NaN) - lengthMm)).toBeLessThan(1.2);
    expect(Math.abs((analysis.apparentMm ?? NaN) - lengthMm)).toBeLessThan(3 * (analysis.sigmaMm ?? 0));
    expect(analysis.sigmaMm).toBeLessThan(1.5);
  });

  it('with the outline around it and the tail’s mark on its tip', () => {
    const picture = fishOn(birch, 402, GREEN);
    const { marks, outline } = read(picture);
    const [tipMm, tipYMm] = boardPointOf(picture.pose, ...(marks?.tail as [number, number]));
    expect(Math.abs(tipMm - 402)).toBeLessThan(0.9);
    // The upper lobe is the longer one.
    expect(tipYMm).toBeLessThan(birch.widthMm / 2);
    const upper = (outline?.upper ?? []).map(([x, y]) => boardPointOf(picture.pose, x, y));
    const lower = (outline?.lower ?? []).map(([x, y]) => boardPointOf(picture.pose, x, y));
    const deepest = Math.max(...lower.map(([, y]) => y)) - Math.min(...upper.map(([, y]) => y));
    // 26 % of its length, as it was drawn.
    expect(Math.abs(deepest - 0.26 * 402)).toBeLessThan(6);
  });

  it('and the budget’s shares add up to its sigma in quadrature (GUM, JCGM 100:2008, 5.1.2)', () => {
    const { budget, sigmaMm } = read(fishOn(birch, 402, GREEN));
    expect(budget.map(({ cause }) => cause)).toEqual(['board-fit', 'tip-edge', 'tail-height', 'distortion']);
    expect(Math.hypot(...budget.map((share) => share.sigmaMm))).toBeCloseTo(sigmaMm ?? NaN, 9);
  });
});

describe('a tail that hardly stands out from the board', () => {
  // A shade of the board's own colour: what gives the fish away is the ink that it hides.
  const FAINT: Colour = [221, 214, 196];

  it('is never told to a millimetre', () => {
    const { sigmaMm, budget, trouble } = read(fishOn(birch, 402, FAINT));
    if (trouble === null) {
      expect(sigmaMm).toBeGreaterThan(5);
      expect(isTailFaint(budget)).toBe(true);
    } else expect(['no-tail', 'no-fish']).toContain(trouble);
  });

  it('while a plain one is', () => {
    const { sigmaMm, budget } = read(fishOn(birch, 402, GREEN));
    expect(sigmaMm).toBeLessThan(1.5);
    expect(isTailFaint(budget)).toBe(false);
  });
});

describe('light and what lies about', () => {
  it('a hard shadow over tail and board moves the reading by less than half a millimetre', () => {
    const lit = read(fishOn(birch, 402, GREEN));
    const shaded = read(fishOn(birch, 402, GREEN, { lightAt: (x, y) => (x + 0.6 * y > 420 ? 0.55 : 1) }));
    expect(shaded.trouble).toBeNull();
    expect(Math.abs((shaded.apparentMm ?? NaN) - (lit.apparentMm ?? NaN))).toBeLessThan(0.5);
  });

  it('a shadow alone is no fish', () => {
    const bare = drawBoardPicture(birch, { seed: 4, ...SIZE, lightAt: (x) => (x < 300 ? 0.5 : 1) });
    expect(read(bare).trouble).toBe('no-fish');
  });

  it('a hand over the near edge is kept apart from the tail', () => {
    const hand = { outlineMm: box(180, 60, 250, 190), colour: [205, 160, 135] as Colour };
    const { apparentMm, trouble } = read(fishOn(birch, 402, GREEN, { things: [hand] }));
    expect(trouble).toBeNull();
    expect(Math.abs((apparentMm ?? NaN) - 402)).toBeLessThan(0.9);
  });

  it('a card apart from the fish changes nothing', () => {
    const card = { outlineMm: box(560, 40, 646, 94), colour: [246, 246, 244] as Colour };
    const { apparentMm } = read(fishOn(birch, 402, GREEN, { things: [card] }));
    expect(Math.abs((apparentMm ?? NaN) - 402)).toBeLessThan(0.9);
  });

  it('a cloth over the tail’s end gives no length', () => {
    const cloth = { outlineMm: box(380, 10, 470, 142), colour: [120, 118, 116] as Colour };
    const analysis = read(fishOn(birch, 402, GREEN, { things: [cloth] }));
    // Either it is told, or what is read is the cloth's end and is not taken for the tail's.
    expect(analysis.trouble === 'no-tail' || (analysis.apparentMm ?? 0) > 460).toBe(true);
  });

  it('a strip that is thinner than any fish is none', () => {
    const strip = { outlineMm: box(5, 68, 420, 82), colour: GREEN };
    const analysis = read(drawBoardPicture(birch, { seed: 9, ...SIZE, things: [strip] }));
    expect(['no-fish', 'no-tail']).toContain(analysis.trouble);
  });

  it('a tail that reaches the picture’s edge is told', () => {
    const whole = fishOn(birch, 402, GREEN);
    const tail = projectBoardPoint(whole.pose, 402, birch.widthMm / 2);
    const widthPx = Math.round(tail[0]) - 20;
    const data = new Uint8ClampedArray(widthPx * SIZE.heightPx * 4);
    for (let row = 0; row < SIZE.heightPx; row++)
      data.set(whole.raster.data.subarray(row * SIZE.widthPx * 4, (row * SIZE.widthPx + widthPx) * 4), row * widthPx * 4); // prettier-ignore
    const cut = analysePhoto({ widthPx, heightPx: SIZE.heightPx, data }, birch, { focal35Mm: null });
    expect(cut.lengthMm).toBeNull();
  });
});

function box(x0: number, y0: number, x1: number, y1: number): Point[] {
  return [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ];
}

describe('the lines that are seen', () => {
  it('break off under the fish and nowhere else', () => {
    const picture = fishOn(birch, 402, GREEN);
    const pattern = patternOf(birch);
    const { seen, rows, rowMm } = lineEvidence(smoothTones(tonesOf(picture.raster)), picture.pose, pattern);
    const share = (inside: (xMm: number, yMm: number) => boolean): number => {
      const values: number[] = [];
      pattern.lines.forEach(({ xMm }, line) => {
        for (let row = 0; row < rows; row++) {
          const value = seen[line * rows + row];
          if (value >= 0 && inside(xMm, (row + 0.5) * rowMm)) values.push(value);
        }
      });
      return values.filter((value) => value > 0.35).length / values.length;
    };
    expect(share((x, y) => x > 60 && x < 250 && Math.abs(y - 76) < 18)).toBeLessThan(0.05);
    expect(share((x) => x > 420)).toBeGreaterThan(0.9);
  });
});

describe('the face from straight above', () => {
  it('shows each colour where it was drawn', () => {
    const thing = { outlineMm: box(300, 50, 320, 70), colour: [200, 30, 40] as Colour };
    const { raster, pose } = drawBoardPicture(birch, { seed: 2, ...SIZE, tiltDeg: 15, things: [thing] });
    const view = viewFace(raster, pose, { fromXMm: 290, toXMm: 330, fromYMm: 40, toYMm: 80, cellsPerMm: 2 });
    const redAt = (xMm: number, yMm: number): number => {
      const cell = Math.floor((yMm - 40) * 2) * view.columns + Math.floor((xMm - 290) * 2);
      return view.rgb[3 * cell] - view.rgb[3 * cell + 1];
    };
    expect([view.columns, view.rows]).toEqual([80, 80]);
    for (const [x, y] of [
      [302, 52],
      [318, 68],
      [310, 60],
    ] as const)
      expect(redAt(x, y)).toBeGreaterThan(120);
    for (const [x, y] of [
      [297, 60],
      [323, 60],
      [310, 46],
      [310, 74],
    ] as const)
      expect(redAt(x, y)).toBeLessThan(30);
  });

  it('says which places the photograph does not show', () => {
    const { raster, pose } = drawBoardPicture(birch, { seed: 2 });
    const view = viewFace(raster, pose, { fromXMm: -900, toXMm: -860, fromYMm: 0, toYMm: 20, cellsPerMm: 1 });
    expect(view.inPhoto.every((value) => value === 0)).toBe(true);
  });

  it('knows where lines are printed, and leaves them out of the bare cells', () => {
    const { raster, pose } = drawBoardPicture(birch, { seed: 2, ...SIZE, withNumerals: false });
    const window = { fromXMm: 20, toXMm: 60, fromYMm: 60, toYMm: 80, cellsPerMm: 4 };
    const view = viewFace(raster, pose, window);
    const ink = addLines(new Uint8Array(view.columns * view.rows).fill(BARE), view, patternOf(birch));
    const at = (xMm: number): number => ink[40 * view.columns + Math.floor((xMm - 20) * 4)];
    // Full lines at 25.4 and 50.8 mm; halves and quarters do not reach the middle.
    expect([at(25.4), at(50.8)]).toEqual([INK, INK]);
    expect([at(30), at(38.1), at(44.45), at(57)]).toEqual([BARE, BARE, BARE, BARE]);
    const bare = bareCells(view, ink, 4);
    const column = Math.floor(25.4 - 20);
    const luma = bare.rgb[3 * (10 * bare.columns + column)];
    expect(luma).toBeGreaterThan(180);
  });
});

/** A view of 100 × 60 mm at one cell a mm, with odds of 3 where `covered` says so and −3 elsewhere. */
function maskOf(covered: (x: number, y: number) => boolean) {
  const view = {
    columns: 100,
    rows: 60,
    cellsPerMm: 1,
    fromXMm: 0,
    fromYMm: 0,
    rgb: new Float32Array(100 * 60 * 3),
    inPhoto: new Uint8Array(100 * 60).fill(1),
  };
  const odds = Float32Array.from({ length: 6000 }, (_, i) =>
    covered(i % 100, Math.floor(i / 100)) ? 3 : -3,
  );
  return { view, odds, face: { lengthMm: 100, widthMm: 60 } };
}

describe('pieces', () => {
  it('are one for one fish, whatever grain lies about', () => {
    const { view, odds, face } = maskOf(
      (x, y) => (x > 8 && x < 80 && y > 20 && y < 40) || (x * 7 + y * 13) % 97 === 0,
    );
    const { pieces } = pieceTogether(view, odds, face);
    expect(pieces.filter(({ area }) => area > 20)).toHaveLength(1);
    const [fish] = pieces.toSorted((a, b) => b.area - a.area);
    expect(Math.abs((fish?.toColumn ?? 0) - 79)).toBeLessThan(2);
    expect(Math.abs((fish?.area ?? 0) - 71 * 19)).toBeLessThan(120);
  });

  it('are two where two things lie apart', () => {
    const { view, odds, face } = maskOf(
      (x, y) => y > 20 && y < 40 && ((x > 8 && x < 50) || (x > 60 && x < 90)),
    );
    expect(pieceTogether(view, odds, face).pieces.filter(({ area }) => area > 100)).toHaveLength(2);
  });

  it('are none of the shadow along an edge', () => {
    const { view, odds, face } = maskOf((_, y) => y < 8);
    expect(pieceTogether(view, odds, face).pieces.filter(({ area }) => area > 60)).toEqual([]);
  });

  it('hold their bounds', () => {
    const mask = Uint8Array.from({ length: 12 }, (_, i) => ([1, 2, 5, 11].includes(i) ? 1 : 0));
    const { pieces } = label(mask, 4, 3);
    expect(pieces).toHaveLength(2);
    expect(pieces[0]).toMatchObject({ area: 3, fromColumn: 1, toColumn: 2, fromRow: 0, toRow: 1 });
    expect(pieces[1]).toMatchObject({ area: 1, fromColumn: 3, toColumn: 3, fromRow: 2, toRow: 2 });
  });
});

describe('an outline', () => {
  const fish = (x: number): number => (x < 70 ? 12 * Math.sin((Math.PI * (x + 6)) / 84) : 4 + (x - 70) * 0.5);

  function outline(covered: (x: number, y: number) => boolean) {
    const { view, odds } = maskOf(covered);
    const { labels, pieces } = label(
      Uint8Array.from(odds, (value) => (value > 0 ? 1 : 0)),
      100,
      60,
    );
    const [largest] = pieces.toSorted((a, b) => b.area - a.area);
    return outlineOf(view, labels, largest as NonNullable<typeof largest>, 60);
  }

  it('follows the fish’s upper and lower line', () => {
    const found = outline((x, y) => x > 2 && x < 90 && Math.abs(y - 30) < fish(x));
    found.xMm.forEach((x, i) => {
      expect(Math.abs(found.upperMm[i] - (30 - fish(x)))).toBeLessThan(2);
      expect(Math.abs(found.lowerMm[i] - (30 + fish(x)))).toBeLessThan(2);
    });
    expect(found.handMm).toEqual([]);
    expect(Math.abs(axisAtStop(found) - 30)).toBeLessThan(1);
  });

  it('is bridged where a hand comes in over the edge, and says where', () => {
    const found = outline(
      (x, y) => x > 2 && x < 90 && (Math.abs(y - 30) < fish(x) || (x > 40 && x < 52 && y > 25)),
    );
    expect(found.handMm).toHaveLength(1);
    const [from = 0, to = 0] = found.handMm[0] ?? [];
    expect(from > 36 && to < 56 && to > from).toBe(true);
    found.xMm.forEach((x, i) => {
      if (x > 40 && x < 52) expect(found.lowerMm[i]).toBeLessThan(30 + fish(x) + 4);
    });
  });

  it('flares at the tail and not at the head', () => {
    const found = outline((x, y) => x > 2 && x < 90 && Math.abs(y - 30) < fish(x));
    expect(flareAt(found, 'far')).toBeGreaterThan(1.3);
    expect(flareAt(found, 'stop')).toBeLessThan(flareAt(found, 'far') - 0.2);
  });
});
