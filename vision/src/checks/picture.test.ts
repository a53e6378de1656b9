import { seededDice } from '@lauta/core/dice';
import { describe, expect, it } from 'vitest';
import { findBoard, type MeasuringBoard } from '../board/board.ts';
import { patternOf } from '../find-board/pattern.ts';
import type { Tones } from '../find-board/tones.ts';
import { poseOf } from '../board/drawnBoard.test-data.ts';
import type { SeenFish } from '../find-fish/locateFish.ts';
import { projectBoardPoint } from '../camera/lens.ts';
import type { Raster } from '../image/raster.ts';
import { seeBezel } from './bezel.ts';
import { headCroppedFinding } from './headCropped.ts';
import { screenFinding, seeGrid } from './screenPhoto.ts';
import { steepCameraFinding } from './steepCamera.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import { blurFinding, edgeSharpness, unsharpFinding } from './unsharp.ts';

const birch = findBoard('birch-30in') as MeasuringBoard;
const pattern = patternOf(birch);

/** A picture of smooth noise, as ground looks, with whatever else is asked for. */
function ground(
  widthPx: number,
  heightPx: number,
  more: (x: number, y: number, channel: number) => number,
): Raster {
  const dice = seededDice(9);
  const coarse = Array.from({ length: 64 * 64 }, () => 60 * dice());
  const data = new Uint8ClampedArray(widthPx * heightPx * 4).fill(255);
  for (let y = 0; y < heightPx; y++) {
    for (let x = 0; x < widthPx; x++) {
      const base = 90 + coarse[((y >> 4) & 63) * 64 + ((x >> 4) & 63)] + 8 * (dice() + dice() - 1);
      for (let channel = 0; channel < 3; channel++)
        data[(y * widthPx + x) * 4 + channel] = base + more(x, y, channel);
    }
  }
  return { widthPx, heightPx, data };
}

const nowhere = (): boolean => false;
const SIZE = [768, 576] as const;

describe('how strong a wave must be', () => {
  it.each([
    [2.1, 6.5, 'clear'],
    [2.1, 6.6, 'look'],
    [2.1, 8.1, 'fault'],
    [4.7, 3.1, 'clear'],
    [4.7, 3.2, 'look'],
    [4.7, 6.1, 'fault'],
  ] as const)('of %f px at a strength of %f: %s', (periodPx, strength, tone) => {
    expect(screenFinding({ periodPx, strength }, null).tone).toBe(tone);
  });
});

describe('a screen’s grid', () => {
  it('is not seen on ground, nor in broad waves as of planks and corrugated sheet', () => {
    expect(
      screenFinding(
        seeGrid(
          ground(...SIZE, () => 0),
          nowhere,
        ),
        null,
      ).tone,
    ).toBe('clear');
    const planks = ground(...SIZE, (x) => 25 * Math.sin((2 * Math.PI * x) / 70));
    expect(screenFinding(seeGrid(planks, nowhere), null).tone).toBe('clear');
  });

  it.each([
    ['rows of brightness', (_: number, y: number) => 14 * Math.cos((2 * Math.PI * y) / 3.4), 3.4],
    ['stripes of brightness', (x: number) => 14 * Math.cos((2 * Math.PI * x) / 5.1), 5.1],
    [
      'stripes of colour alone',
      (x: number, _: number, c: number) => (c - 1) * 16 * Math.cos((2 * Math.PI * x) / 7.3),
      7.3,
    ],
  ] as const)('is found in %s, with its period', (_, wave, periodPx) => {
    const seen = seeGrid(ground(...SIZE, wave), nowhere);
    expect(screenFinding(seen, null).tone).toBe('fault');
    // The spectrum's bins are 1/128 of a cycle apart.
    expect(Math.abs(128 / seen.periodPx - 128 / periodPx)).toBeLessThan(1.01);
  });

  it('is as strong with a frame of one colour about it, which has no wave at all', () => {
    const wave = (x: number) => 5 * Math.cos((2 * Math.PI * x) / 5.1);
    const plain = ground(...SIZE, wave);
    const framed = { ...plain, data: plain.data.slice() };
    const [widthPx, heightPx] = SIZE;
    for (let y = 0; y < heightPx; y++)
      for (let x = 0; x < widthPx; x++)
        if (y < 0.3 * heightPx || y > 0.7 * heightPx) framed.data.set([7, 11, 6], 4 * (y * widthPx + x));
    const strength = seeGrid(framed, nowhere).strength;
    expect(strength).toBeGreaterThan(0.7 * seeGrid(plain, nowhere).strength);
    expect(Math.abs(seeGrid(framed, nowhere).periodPx - seeGrid(plain, nowhere).periodPx)).toBeLessThan(0.1);
  });

  it('is not looked for where the board has lines of its own', () => {
    const lined = ground(...SIZE, (x, y) => (y > 200 ? 30 * Math.cos((2 * Math.PI * x) / 6) : 0));
    expect(screenFinding(seeGrid(lined, nowhere), null).tone).not.toBe('clear');
    expect(
      screenFinding(
        seeGrid(lined, (_, y) => y > 190),
        null,
      ).tone,
    ).toBe('clear');
  });

  it('and JPEG’s blocks of 8 px are not confused', () => {
    const blocky = ground(...SIZE, (x) => (x % 8 === 0 ? 20 : 0));
    const seen = seeGrid(blocky, nowhere);
    expect([8, 4, 2.67].every((period) => Math.abs(seen.periodPx - period) > 0.05)).toBe(true);
  });
});

describe('a screen’s frame', () => {
  /** Dark beyond a line that runs from one depth to another along the picture's top, px. */
  const framed = (fromPx: number, toPx: number, dark = 14): Raster => {
    const picture = ground(...SIZE, () => 0);
    for (let y = 0; y < SIZE[1]; y++)
      for (let x = 0; x < SIZE[0]; x++)
        if (y < fromPx + ((toPx - fromPx) * x) / SIZE[0])
          picture.data.set([dark, dark, dark + 2], 4 * (y * SIZE[0] + x));
    return picture;
  };
  const faint = { strength: 3.4, periodPx: 4.1 };
  const none = { strength: 1.2, periodPx: 2.4 };

  it.each([
    [20, 34],
    [50, 12],
    [30, 30],
  ])('is seen from %i to %i px deep, with its side', (fromPx, toPx) => {
    const bezel = seeBezel(framed(fromPx, toPx));
    expect(bezel).toMatchObject({ side: 'top' });
    expect(bezel?.straightShare).toBeGreaterThan(0.9);
    expect(Math.abs((bezel?.depthPx ?? NaN) - (fromPx + toPx) / 2)).toBeLessThan(3);
  });

  it('alone is a look, with a faint grid a fault: two signs', () => {
    const bezel = seeBezel(framed(20, 34));
    expect(screenFinding(none, bezel).tone).toBe('look');
    expect(screenFinding(faint, bezel).tone).toBe('fault');
    expect(screenFinding(faint, null).tone).toBe('look');
    expect(screenFinding(none, null).tone).toBe('clear');
  });

  it.each([
    ['bare ground', ground(...SIZE, () => 0)],
    ['a light rim', framed(20, 34, 110)],
    ['dark ground that is nowhere light', ground(...SIZE, () => -110)],
    // A shadow that grows towards the edge, and dark places in a row.
    ['a vignette', ground(...SIZE, (_, y) => -120 * Math.exp(-((y / 90) ** 2)))],
    ['dark places in a row', ground(...SIZE, (x, y) => (y < 25 + 18 * Math.sin(x / 14) ? -200 : 0))],
  ])('is not seen in %s', (_, picture) => {
    expect(screenFinding(none, seeBezel(picture)).tone).toBe('clear');
  });
});

/** Squares of a chequered ground, blurred along rows by a box of so many px. */
function chequered(boxPx: number): Tones {
  const [widthPx, heightPx] = [400, 300];
  const data = new Float32Array(widthPx * heightPx);
  for (let y = 0; y < heightPx; y++) {
    for (let x = 0; x < widthPx; x++) {
      let sum = 0;
      for (let k = 0; k < boxPx; k++) sum += (((x + k) >> 5) + (y >> 5)) % 2;
      data[y * widthPx + x] = 4 + sum / boxPx;
    }
  }
  return { widthPx, heightPx, data };
}

describe('sharpness', () => {
  it('of edges falls with their width: a step over 2 px is all, half, or a quarter of that over 8', () => {
    expect(edgeSharpness(chequered(1))).toBeCloseTo(1, 6);
    expect(edgeSharpness(chequered(4))).toBeCloseTo(0.5, 6);
    expect(edgeSharpness(chequered(8))).toBeCloseTo(0.25, 6);
  });

  it.each([
    [0.9, 'clear'],
    [0.42, 'look'],
    [0.3, 'fault'],
  ] as const)('%d is %s', (sharpness, tone) => {
    expect(blurFinding(sharpness)).toMatchObject({ tone, measure: { value: sharpness, unit: 'share' } });
  });

  /** A catch whose free lines beside the tail are seen with a given clearness. */
  function withLines(
    clearness: number,
    farMm: number,
    isCovered: (x: number, y: number) => boolean = nowhere,
  ): SeenCatch {
    const rows = 76;
    const seen = new Float32Array(pattern.lines.length * rows).fill(clearness);
    const evidence = { rows, rowMm: 2, seen, clearShare: 0.8 };
    return {
      fish: { evidence, isCovered } as unknown as SeenFish,
      pattern,
      farMm,
      toPhoto: (x: number, y: number) => [x, y],
    } as unknown as SeenCatch;
  }

  it('of lines is asked beside the tail, of those that nothing covers', () => {
    expect(unsharpFinding(withLines(0.9, 400)).tone).toBe('clear');
    expect(unsharpFinding(withLines(0.1, 400))).toMatchObject({ tone: 'fault', measure: { value: 0 } });
    // Covered lines, and a tail at the board's end, leave nothing to look at.
    expect(unsharpFinding(withLines(0.1, 400, () => true)).tone).toBe('clear');
    expect(unsharpFinding(withLines(0.1, pattern.lengthMm)).tone).toBe('clear');
  });

  it('of lines that hardly stand out from the face is a fault', () => {
    const faint = withLines(0.9, 400);
    const evidence = { ...faint.fish.evidence, clearShare: 0.1 };
    expect(unsharpFinding({ ...faint, fish: { ...faint.fish, evidence } }).tone).toBe('fault');
  });
});

describe('the frame', () => {
  const pose = poseOf(birch, { seed: 1, widthPx: 1200, heightPx: 900 });
  const frame = { widthPx: 1200, heightPx: 900 };
  const toPhoto: SeenCatch['toPhoto'] = (x, y, z) => projectBoardPoint(pose, x, y, z);

  it('holds nose and stop, or one of them lies at its edge or beyond', () => {
    expect(headCroppedFinding(pose, pattern, [300, 450], frame, toPhoto).tone).toBe('clear');
    expect(headCroppedFinding(pose, pattern, [4, 450], frame, toPhoto).tone).toBe('look');
    expect(headCroppedFinding(pose, pattern, [-3, 450], frame, toPhoto).tone).toBe('fault');
    expect(headCroppedFinding(pose, pattern, [300, 905], frame, toPhoto).tone).toBe('fault');
  });

  it('is asked for the stop alone where no fish was found', () => {
    expect(headCroppedFinding(pose, pattern, null, frame, toPhoto).tone).toBe('clear');
    const [stopX] = projectBoardPoint(pose, 0, 0);
    const shifted = { ...pose, centrePx: [pose.centrePx[0] - stopX - 60, pose.centrePx[1]] as const };
    expect(headCroppedFinding(shifted, pattern, null, frame, toPhoto).tone).toBe('fault');
  });

  it.each([
    [12, 20, 'clear'],
    [19, 20, 'clear'],
    [19.6, 20, 'look'],
    [20.5, 20, 'look'],
    [20.6, 20, 'fault'],
    [12, 10, 'fault'],
  ] as const)('a tilt of %d° with %d° allowed is %s', (tiltDeg, limitDeg, tone) => {
    expect(steepCameraFinding(tiltDeg, limitDeg)).toMatchObject({
      tone,
      measure: { value: tiltDeg, unit: 'deg' },
    });
  });
});
