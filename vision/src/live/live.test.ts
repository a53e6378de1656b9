import { describe, expect, it } from 'vitest';
import { findBoard, type MeasuringBoard } from '../board/board.ts';
import { drawBoardPicture, flatFish, type BoardView } from '../board/drawnBoard.test-data.ts';
import { faceLengthMm } from '../board/board.ts';
import type { Tone } from '@lauta/core/evidence';
import { findingOf, type BenchCheck, type Finding } from '../findings/findings.ts';
import { projectBoardPoint } from '../camera/lens.ts';
import type { Raster } from '../image/raster.ts';
import {
  HOLD_FRAMES,
  LIVE_STEPS,
  OPEN_SHUTTER,
  adviseLive,
  afterFrame,
  lookLive,
  outlineInFrame,
  type LiveSight,
} from './index.ts';

const BOARD = findBoard('birch-30in') as MeasuringBoard;
const FRAME = { widthPx: 960, heightPx: 720 };
const OPTIONS = { focal35Mm: null, otherBoards: [], limitTiltDeg: 20 };

function draw(view: Partial<BoardView> = {}): ReturnType<typeof drawBoardPicture> {
  return drawBoardPicture(BOARD, { seed: 5, ...FRAME, ...view });
}

/** What a hand that moved shows: the same content, elsewhere. */
function moved({ widthPx, heightPx, data }: Raster, dx: number, dy: number): Raster {
  const out = new Uint8ClampedArray(data.length).fill(105);
  for (let y = Math.max(0, dy); y < Math.min(heightPx, heightPx + dy); y++) {
    for (let x = Math.max(0, dx); x < Math.min(widthPx, widthPx + dx); x++) {
      const from = ((y - dy) * widthPx + x - dx) * 4;
      out.set(data.subarray(from, from + 4), (y * widthPx + x) * 4);
    }
  }
  return { widthPx, heightPx, data: out };
}

describe('a live frame', () => {
  const picture = draw();
  const first = lookLive(picture.raster, BOARD, null, OPTIONS);

  it('shows the board where the camera that drew it puts it', () => {
    const [zero] = first.sight?.corners ?? [];
    const [x, y] = projectBoardPoint(picture.pose, 0, 0);
    expect(Math.hypot((zero?.[0] ?? NaN) - x, (zero?.[1] ?? NaN) - y)).toBeLessThan(1.5);
    expect(first.sight?.tiltDeg).toBeCloseTo(4, 0);
    expect(first.sight?.fishMm).toBeNull();
    expect(first.sight?.isCardSeen).toBe(false);
  });

  // A line is about 6.7 px from the next here: a follower that knew only the lines would slip by one.
  it.each([
    [4, 0],
    [7, -5],
    [-13, 9],
    [26, 14],
  ])('is followed when the hand moves by %i, %i px, without slipping to the next line', (dx, dy) => {
    const next = lookLive(moved(picture.raster, dx, dy), BOARD, first.track, OPTIONS);
    for (const corner of [0, 1, 2, 3] as const) {
      const before = first.sight?.corners[corner] ?? [NaN, NaN];
      const after = next.sight?.corners[corner] ?? [NaN, NaN];
      expect(Math.hypot(after[0] - before[0] - dx, after[1] - before[1] - dy)).toBeLessThan(1.2);
    }
  });

  it('is searched anew when it no longer looks like the one before', () => {
    const other = draw({ rollDeg: -9, fillShare: 0.7, seed: 6 });
    const next = lookLive(other.raster, BOARD, first.track, OPTIONS);
    const [x, y] = projectBoardPoint(other.pose, faceLengthMm(BOARD), 0);
    const end = next.sight?.corners[1] ?? [NaN, NaN];
    expect(Math.hypot(end[0] - x, end[1] - y)).toBeLessThan(2);
  });

  it('without a board is nothing, and nothing is carried on', () => {
    const grey = new Uint8ClampedArray(FRAME.widthPx * FRAME.heightPx * 4).fill(105);
    expect(lookLive({ ...FRAME, data: grey }, BOARD, first.track, OPTIONS)).toEqual({
      sight: null,
      track: null,
    });
  });

  it('shows a fish and how far it reaches, within the cells in which it is looked for', () => {
    const things = [{ outlineMm: flatFish(420, BOARD.widthMm / 2), colour: [88, 104, 52] as const }];
    const { sight } = lookLive(draw({ things }).raster, BOARD, null, OPTIONS);
    expect(Math.abs((sight?.fishMm ?? NaN) - 420)).toBeLessThan(4);
    expect(sight?.findings.map(({ check }) => check)).toEqual(
      expect.arrayContaining(['nose-gap', 'mouth-open', 'tail-curled', 'steep-camera']),
    );
  });
});

const finding = (check: BenchCheck, tone: Tone = 'clear'): Finding =>
  findingOf(check, tone, 0.9, { code: 'code-read' });
const GOOD: LiveSight = {
  boardId: BOARD.id,
  corners: outlineInFrame(BOARD, 960, 720),
  tiltDeg: 3,
  fishMm: 410,
  isCardSeen: true,
  findings: (['steep-camera', 'nose-gap', 'mouth-open', 'tail-curled'] as const).map((check) =>
    finding(check),
  ),
};
const withTone = (check: BenchCheck, tone: Tone): LiveSight => ({
  ...GOOD,
  findings: [...GOOD.findings, finding(check, tone)],
});

describe('advice over a live view', () => {
  it.each([
    ['board', null],
    [
      'frame',
      {
        ...GOOD,
        corners: [
          [-4, 300],
          [900, 300],
          [900, 470],
          [-4, 470],
        ],
      },
    ],
    [
      'near',
      {
        ...GOOD,
        corners: [
          [300, 300],
          [700, 300],
          [700, 380],
          [300, 380],
        ],
      },
    ],
    ['straight', withTone('steep-camera', 'fault')],
    ['card', { ...GOOD, isCardSeen: false }],
    ['fish', { ...GOOD, fishMm: null }],
    ['nose', withTone('nose-gap', 'look')],
    ['jaws', withTone('mouth-open', 'look')],
    ['tail', withTone('tail-held', 'fault')],
  ] as [string, LiveSight | null][])('asks for “%s” first when only that is wanting', (step, sight) => {
    const advice = adviseLive(sight, FRAME);
    expect(advice.wanting).toBe(step);
    expect(advice.met).toBe(LIVE_STEPS.findIndex((one) => one === step));
  });

  it('asks for nothing when all is met', () => {
    expect(adviseLive(GOOD, FRAME)).toEqual({ wanting: null, met: LIVE_STEPS.length });
  });

  it('asks for what comes first when two are wanting', () => {
    expect(adviseLive({ ...withTone('mouth-open', 'fault'), isCardSeen: false }, FRAME).wanting).toBe('card');
  });
});

describe('the shutter by itself', () => {
  const good = { wanting: null, met: LIVE_STEPS.length };
  const bad = { wanting: 'jaws', met: 7 } as const;
  const run = (frames: readonly (typeof good | typeof bad)[]): number[] => {
    let shutter = OPEN_SHUTTER;
    return frames.flatMap((advice, i) => {
      const next = afterFrame(shutter, advice);
      shutter = next.shutter;
      return next.fires ? [i] : [];
    });
  };

  it('fires when enough frames in a row are good, once', () => {
    expect(run([good, good, good, good, good])).toEqual([HOLD_FRAMES - 1]);
  });

  it('begins anew after a frame that is not', () => {
    expect(run([good, bad, good, bad, bad])).toEqual([]);
    expect(run([good, bad, good, good])).toEqual([3]);
  });
});

describe('the outline to lay a board into', () => {
  it.each([
    [960, 720],
    [720, 960],
    [390, 200],
  ])('lies in a frame of %i × %i px, in the board’s own proportions', (width, height) => {
    const [a, b, c] = outlineInFrame(BOARD, width, height);
    expect(Math.min(...a)).toBeGreaterThan(0);
    expect(c[0]).toBeLessThan(width);
    expect(c[1]).toBeLessThan(height);
    expect((b[0] - a[0]) / (c[1] - b[1])).toBeCloseTo(faceLengthMm(BOARD) / BOARD.widthMm, 6);
  });
});
