import { describe, expect, it } from 'vitest';
import { SHIPPED_BOARDS, faceLengthMm } from '@lauta/vision';
import { drawRangedScene, projectPoint, skinLuma, type PhotoFault, type RangedScene } from './index.ts';
import { isOnGillCover, layFish, type Fish } from './fish.ts';
import { Relief } from './relief.ts';
import { rephotograph } from './rephotograph.ts';
import { BOARD_THICK_MM, boardPointAt, type PlacedCard } from './scene.ts';
import { layThing } from './things.ts';

const SEEDS = [11, 12, 13, 14, 15, 16, 17, 18];
const scenes = (fault?: PhotoFault): RangedScene[] =>
  SEEDS.map((seed) => drawRangedScene(seed, { boards: SHIPPED_BOARDS, ...(fault ? { fault } : {}) }));
const fishOf = ({ scene }: RangedScene): Fish => {
  if (!scene.fish) throw new Error('scene: expected a fish');
  return scene.fish;
};
const isInside = ({ scene: { camera } }: RangedScene, [x, y]: readonly [number, number]): boolean =>
  x >= 0 && y >= 0 && x <= camera.widthPx - 1 && y <= camera.heightPx - 1;

/** A relief in which a fish alone lies. */
function reliefOf(fish: Fish): { relief: Relief; truth: ReturnType<typeof layFish> } {
  const relief = new Relief(-45, -60, 700, 260, 1);
  return { relief, truth: layFish(relief, fish) };
}

describe('a faulty scene', () => {
  it('lays the fish off the stop by the gap that its truth tells', () => {
    for (const ranged of scenes('nose-gap')) {
      const fish = fishOf(ranged);
      expect(fish.noseGapMm).toBeGreaterThanOrEqual(4);
      const { truth } = reliefOf(fish);
      expect(truth.nose[0]).toBeCloseTo(fish.noseGapMm ?? NaN, 9);
      expect(truth.tail[0]).toBeCloseTo((fish.noseGapMm ?? 0) + fish.lengthMm, 9);
    }
  });

  it('opens the jaws into flesh, and nothing else of the fish moves', () => {
    const ranged = scenes('mouth-open')[0];
    const open = { ...fishOf(ranged), mouthGapMm: 18 };
    const { relief: apart } = reliefOf(open);
    const { relief: shut } = reliefOf({ ...open, mouthGapMm: 0 });
    let [flesh, moved] = [0, 0];
    apart.visit(0, 0, 650, 250, (cell, x) => {
      const [r, g] = [apart.colour[3 * cell], apart.colour[3 * cell + 1]];
      if (x < open.look.jaw * open.lengthMm && r > 2 * g && r > 50) flesh++;
      if (x > open.look.jaw * open.lengthMm + 4 && apart.height[cell] !== shut.height[cell]) moved++;
    });
    // About half of gap times jaw: a wedge.
    expect(flesh).toBeGreaterThan(0.3 * 18 * open.look.jaw * open.lengthMm * 0.5);
    expect(moved).toBe(0);
  });

  it('turns the fish about, or onto its other side, without changing it', () => {
    const fish = { ...fishOf(scenes()[2]), bow: 0 };
    const straight = reliefOf(fish);
    const reversed = reliefOf({ ...fish, isReversed: true });
    const over = reliefOf({ ...fish, isBackNear: true });
    // Read is what lies farther out: of a reversed fish the nose.
    expect(reversed.truth.tail[0]).toBeCloseTo(fish.lengthMm, 9);
    expect(reversed.truth.eye[0]).toBeCloseTo(fish.lengthMm - straight.truth.eye[0], 6);
    expect(over.truth.eye[1] - fish.axisYMm).toBeCloseTo(fish.axisYMm - straight.truth.eye[1], 6);
    const area = (relief: Relief): number =>
      relief.cover.reduce((sum, value) => sum + (value > 0 ? 1 : 0), 0);
    expect(Math.abs(area(reversed.relief) / area(straight.relief) - 1)).toBeLessThan(0.01);
    expect(Math.abs(area(over.relief) / area(straight.relief) - 1)).toBeLessThan(0.01);
  });

  it('bends or raises the tail that is curled', () => {
    for (const ranged of scenes('tail-curled')) {
      const { curl, tailMm = 2 } = fishOf(ranged);
      expect((curl?.upMm ?? 0) > 10 || Math.abs(curl?.asideMm ?? 0) > 15).toBe(true);
      expect(reliefOf(fishOf(ranged)).truth.tail[2]).toBeCloseTo(tailMm + (curl?.upMm ?? 0), 9);
    }
  });

  it('leaves one end of the fish outside of the picture', () => {
    for (const [fault, endOf] of [
      ['head-cropped', () => 0],
      ['tail-cropped', (fish: Fish) => fish.lengthMm],
    ] as const) {
      for (const ranged of scenes(fault)) {
        const fish = fishOf(ranged);
        const px = projectPoint(ranged.scene.camera, [endOf(fish), fish.axisYMm, 3]);
        // The end itself, give or take what 60 px are on the board.
        const slack = (fault === 'head-cropped' ? -1 : 1) * 0.2 * ((60 * ranged.scene.camera.positionMm[2]) / ranged.scene.camera.focalPx); // prettier-ignore
        const beyond = projectPoint(ranged.scene.camera, [endOf(fish) + slack, fish.axisYMm, 3]);
        expect([fault, isInside(ranged, px) && isInside(ranged, beyond)]).toEqual([fault, false]);
      }
    }
  });

  it('puts a hand over the eye, at the gills, or on the tail', () => {
    const handAt = (ranged: RangedScene): number => (ranged.scene.hand?.xMm ?? NaN) / fishOf(ranged).lengthMm;
    for (const ranged of scenes('eye-covered')) expect(handAt(ranged)).toBeLessThan(0.16);
    for (const ranged of scenes('tail-held')) expect(handAt(ranged)).toBeGreaterThan(0.89);
    for (const ranged of scenes('hand-in-gills')) {
      expect(handAt(ranged)).toBeGreaterThan(0.23);
      expect(handAt(ranged)).toBeLessThan(0.3);
      const fish = fishOf(ranged);
      // The fingers end where the cover begins.
      expect(ranged.scene.hand?.isUnder?.(0.2 * fish.lengthMm, fish.axisYMm)).toBe(true);
      expect(ranged.scene.hand?.isUnder?.(0.4 * fish.lengthMm, fish.axisYMm)).toBe(false);
      expect(isOnGillCover(fish, 0.2 * fish.lengthMm, fish.axisYMm)).toBe(true);
    }
  });

  it('takes the card away, lays it over the reading, or writes another code on it', () => {
    for (const ranged of scenes('identifier-missing')) expect(ranged.scene.card).toBeNull();
    for (const ranged of scenes('identifier-wrong'))
      expect(ranged.scene.card?.identifier.code).not.toBe(ranged.expected.code);
    for (const ranged of scenes('identifier-over-reading')) {
      const card = ranged.scene.card as PlacedCard;
      expect(Math.abs(card.centreMm[0] - fishOf(ranged).lengthMm)).toBeLessThan(44);
      expect(card.zMm).toBeGreaterThan(3);
    }
    for (const ranged of scenes('identifier-glare'))
      expect(ranged.scene.card?.glare?.strength).toBeGreaterThan(190);
  });

  it('cuts the card at the picture’s edge, or lays something on its code', () => {
    for (const ranged of scenes('identifier-cropped')) {
      const { card, clutter = [], things = [], camera } = ranged.scene;
      const [x, y] = projectPoint(camera, [...(card as PlacedCard).centreMm, (card as PlacedCard).zMm]);
      const isCut = y < 60 || y > camera.heightPx - 60;
      const isCovered = clutter.some(({ isOnCard }) => isOnCard) || things.length > 0;
      expect([isCut || isCovered, x > 0]).toEqual([true, true]);
    }
  });

  it('looks from aside, blurs, claims another board, adds a fish or a thing', () => {
    for (const ranged of scenes('steep-camera'))
      expect((Math.acos(-ranged.scene.camera.forward[2]) * 180) / Math.PI).toBeGreaterThan(21.9);
    for (const ranged of scenes('unsharp')) expect(ranged.scene.blurPx).toBeGreaterThan(2.3);
    for (const ranged of scenes('wrong-board'))
      expect(ranged.claimedBoard.id).not.toBe(ranged.scene.board.id);
    for (const ranged of scenes('more-fish')) {
      const { otherFish, board } = ranged.scene;
      const isOn = (otherFish?.noseGapMm ?? NaN) + (otherFish?.lengthMm ?? NaN) < faceLengthMm(board) + 60;
      expect(isOn || (otherFish?.axisYMm ?? 0) >= board.widthMm).toBe(true);
    }
    for (const fault of ['grip-in-photo', 'contact-hidden', 'cord-in-gills'] as const)
      for (const ranged of scenes(fault)) expect(ranged.scene.things).toHaveLength(1);
  });
});

describe('a fish photographed again', () => {
  it('is the same individual of the same length in another scene, and fits each board', () => {
    const boards = SHIPPED_BOARDS;
    for (const seed of SEEDS) {
      const first = drawRangedScene(seed, { boards, fishOf: seed });
      const second = drawRangedScene(seed + 1000, { boards, fishOf: seed });
      const [a, b] = [fishOf(first), fishOf(second)];
      expect([b.seed, b.lengthMm, b.look]).toEqual([a.seed, a.lengthMm, a.look]);
      expect(second.scene.camera).not.toEqual(first.scene.camera);
      for (const board of boards) expect(a.lengthMm).toBeLessThan(faceLengthMm(board));
    }
  });

  it('has skin of its own: another individual’s differs where the pattern is', () => {
    const fish = fishOf(drawRangedScene(12, { boards: SHIPPED_BOARDS }));
    const own = skinLuma(fish);
    const other = skinLuma({ ...fish, seed: fish.seed + 1 });
    let [same, differs] = [0, 0];
    for (let s = 0.3; s < 0.8; s += 0.01) {
      for (let across = -0.05; across <= 0.05; across += 0.01) {
        expect(own(s, across)).toBe(skinLuma(fish)(s, across));
        if (Math.abs(own(s, across) - other(s, across)) > 2) differs++;
        else same++;
      }
    }
    expect(differs).toBeGreaterThan(same);
  }, 30_000);
});

describe('a thing', () => {
  it('lies on what is under it, as thick as it is', () => {
    const relief = new Relief(0, 0, 100, 100, 2);
    const part = { from: [20, 50], to: [80, 50], radiusFromMm: 5, radiusToMm: 5 } as const;
    layThing(relief, { parts: [part], colour: [200, 30, 30], gloss: 0.5 }, 1);
    // A rounded stick of radius 5: twice that, its upper half flattened by a tenth.
    expect(relief.heightAt(50, 50)).toBeCloseTo(5 + 0.9 * 5, 1);
    expect(relief.isCoveredAt(50, 58)).toBe(false);
    layThing(relief, { parts: [part], colour: [30, 30, 200], gloss: 0.5 }, 2);
    expect(relief.heightAt(50, 50)).toBeGreaterThan(15);
    const cell = 100 * 200 + 100;
    expect(relief.colour[3 * cell + 2]).toBeGreaterThan(relief.colour[3 * cell]);
  });
});

describe('a ray', () => {
  it('meets the ground where that is projected from', () => {
    const { camera } = scenes()[0].scene;
    for (const [x, y] of [
      [300, 200],
      [1500, 1200],
      [1000, 700],
    ] as const) {
      const [xMm, yMm] = boardPointAt(camera, x, y, -BOARD_THICK_MM);
      const [px, py] = projectPoint(camera, [xMm, yMm, -BOARD_THICK_MM]);
      expect(Math.hypot(px - x, py - y)).toBeLessThan(0.05);
    }
  });
});

describe('a photograph of a screen', () => {
  const [widthPx, heightPx] = [320, 240];
  const shown = { widthPx, heightPx, data: new Uint8ClampedArray(widthPx * heightPx * 4).fill(160) };
  const again = rephotograph(shown, { seed: 5, columns: 130 });
  const row = (y: number): number[] =>
    Array.from({ length: widthPx }, (_, x) => again.data[(y * widthPx + x) * 4]);

  it('has the screen’s grid, a black that is not black, and is the same every time', () => {
    const middle = row(120).slice(40, 280);
    expect(Math.max(...middle) - Math.min(...middle)).toBeGreaterThan(20);
    expect(Math.min(...middle)).toBeGreaterThan(10);
    expect(rephotograph(shown, { seed: 5, columns: 130 }).data).toEqual(again.data);
    expect(rephotograph(shown, { seed: 6, columns: 130 }).data).not.toEqual(again.data);
  });

  it('waves as often as the screen has columns', () => {
    const middle = row(120).slice(32, 288);
    const power = (cycles: number): number => {
      let [re, im] = [0, 0];
      middle.forEach((value, x) => {
        re += value * Math.cos((2 * Math.PI * cycles * x) / 256);
        im += value * Math.sin((2 * Math.PI * cycles * x) / 256);
      });
      return re * re + im * im;
    };
    // 130 columns over some 300 px: about 108 in these 256, more or less by how the screen lies.
    const strongest =
      Array.from({ length: 100 }, (_, i) => 20 + i).toSorted((a, b) => power(b) - power(a))[0] ?? NaN;
    expect(Math.abs(strongest - 108)).toBeLessThan(12);
  });
});
