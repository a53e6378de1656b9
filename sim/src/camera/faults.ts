import { SHIPPED_BOARDS, faceLengthMm } from '@lauta/vision';
import { CARD_MM } from '@lauta/core/identifier';
import { seedFor, type Dice } from './dice.ts';
import { isOnGillCover, type Fish } from './fish.ts';
import type { Rgb } from './rgb.ts';
import type { PhotoFault } from './photoFault.ts';
import type { RangedScene } from './rangedScene.ts';
import {
  BOARD_THICK_MM,
  aimCamera,
  boardPointAt,
  placeCard,
  projectPoint,
  type PlacedCard,
  type Scene,
} from './scene.ts';
import type { Thing } from './things.ts';
import type { PlacedHand } from './hand.ts';

type FishScene = RangedScene & { scene: { fish: Fish } };
type CardScene = FishScene & { scene: { card: PlacedCard } };

/** Makes one thing wrong; all else of the scene stays. Scenes without a card get one where the fault is the card's. */
export function withFault(ranged: RangedScene, fault: PhotoFault, dice: Dice): RangedScene {
  const { fish } = ranged.scene;
  if (!fish) throw new RangeError(`fault: ${fault} wants a fish, got an empty board`);
  return FAULTS[fault]({ ...ranged, scene: { ...ranged.scene, fish } }, dice);
}

const FAULTS: Record<PhotoFault, (ranged: FishScene, dice: Dice) => RangedScene> = {
  'nose-gap': (ranged, dice) => withFish(withoutHand(ranged), { noseGapMm: dice.between(4, 24) }),
  'mouth-open': (ranged, dice) =>
    withFish(ranged, {
      mouthGapMm: dice.between(5, Math.max(9, 0.045 * ranged.scene.fish.lengthMm)),
      look: { ...ranged.scene.fish.look, jaw: dice.between(0.1, 0.15) },
    }),
  'head-cropped': (ranged, dice) => cropped(ranged, -1, dice),
  'tail-cropped': (ranged, dice) => cropped(ranged, 1, dice),
  'tail-curled': (ranged, dice) =>
    withFish(ranged, {
      curl: dice.chance(0.6)
        ? { upMm: dice.between(12, 32), asideMm: dice.between(-8, 8) }
        : { upMm: dice.between(3, 10), asideMm: dice.between(18, 34) * (dice.chance(0.5) ? 1 : -1) },
    }),
  'tail-held': (ranged, dice) =>
    withHandAt(ranged, ranged.scene.fish.lengthMm * dice.between(0.9, 0.97), dice),
  'identifier-missing': (ranged) => withScene(ranged, { card: null }),
  'identifier-cropped': (ranged, dice) =>
    dice.chance(0.5) ? cardAtFrame(withCard(ranged), dice) : cardCovered(withCard(ranged), dice),
  'identifier-wrong': (ranged, dice) => {
    const carded = withCard(ranged);
    const letters = [...'ABCDEFGHJKMNPQRSTVWXYZ0123456789'];
    const code = Array.from({ length: 4 }, () => dice.pick(letters)).join('');
    return { ...carded, expected: { ...carded.expected, code } };
  },
  'identifier-glare': (ranged, dice) => {
    const carded = withCard(ranged);
    const { card } = carded.scene;
    const glare = { atMm: [dice.between(20, 36), dice.between(18, 36)], radiusMm: dice.between(15, 30), strength: dice.between(200, 420) } as const; // prettier-ignore
    return withScene(carded, { card: { ...card, glare } });
  },
  'identifier-over-reading': (ranged, dice) => {
    const carded = withCard(ranged);
    const { fish, card, board } = carded.scene;
    const x = fish.lengthMm + dice.between(-14, 0.42 * CARD_MM.width - 4);
    const y = Math.min(board.widthMm - 20, Math.max(20, fish.axisYMm + dice.between(-24, 24)));
    return withScene(carded, {
      card: { ...card, centreMm: [x, y], turnRad: dice.between(-0.3, 0.3), zMm: 4 },
      hand: null,
    });
  },
  'facing-right': (ranged) => withFish(withoutHand(ranged), { isReversed: true }),
  'dorsal-near': (ranged) => withFish(ranged, { isBackNear: true }),
  'eye-covered': (ranged, dice) =>
    withHandAt(ranged, ranged.scene.fish.lengthMm * 0.098 + dice.between(-4, 14), dice, 14),
  'hand-in-gills': (ranged, dice) => {
    const { fish } = ranged.scene;
    const held = withHandAt(ranged, fish.lengthMm * dice.between(0.24, 0.29), dice);
    const hand: PlacedHand = held.scene.hand;
    const under: PlacedHand = {
      ...hand,
      reachYMm: fish.axisYMm + 0.01 * fish.lengthMm,
      isUnder: (x, y) => isOnGillCover(fish, x, y),
    };
    return withScene(held, { hand: under });
  },
  'grip-in-photo': (ranged, dice) =>
    withThings(ranged, [grip(ranged.scene.fish, ranged.scene.board.widthMm, dice)]),
  'contact-hidden': (ranged, dice) => withThings(ranged, [lure(ranged.scene.fish, dice)]),
  'cord-in-gills': (ranged, dice) =>
    withThings(ranged, [cord(ranged.scene.fish, ranged.scene.board.widthMm, dice)]),
  'more-fish': (ranged, dice) => withOtherFish(ranged, dice),
  'screen-photo': (ranged, dice) =>
    withScene(ranged, {
      rephotograph: {
        seed: dice.whole(1, 1e9),
        columns: Math.round(ranged.scene.camera.widthPx * dice.between(0.35, 0.9)),
      },
    }),
  'steep-camera': (ranged, dice) => steep(ranged, dice),
  unsharp: (ranged, dice) => withScene(ranged, { blurPx: dice.between(2.4, 4.5) }),
  'wrong-board': (ranged) => ({
    ...ranged,
    claimedBoard: SHIPPED_BOARDS.find(({ id }) => id !== ranged.scene.board.id) ?? ranged.claimedBoard,
  }),
};

function withScene<Change extends Partial<Scene>>(
  ranged: FishScene,
  change: Change & { fish?: Fish },
): FishScene & { scene: Change } {
  return { ...ranged, scene: { ...ranged.scene, ...change } };
}

function withFish(ranged: FishScene, change: Partial<Fish>): FishScene {
  return withScene(ranged, { fish: { ...ranged.scene.fish, ...change } });
}

function withoutHand(ranged: FishScene): FishScene {
  return { ...withScene(ranged, { hand: null }), hasHand: false };
}

function withHandAt(
  ranged: FishScene,
  xMm: number,
  dice: Dice,
  beyondAxisMm = 6,
): FishScene & { scene: { hand: PlacedHand } } {
  const { fish, hand } = ranged.scene;
  const tone: Rgb = hand?.tone ?? [dice.between(90, 235), dice.between(70, 180), dice.between(60, 160)];
  const held = withScene(ranged, {
    hand: { seed: dice.whole(1, 1e9), xMm, tone, reachYMm: fish.axisYMm - beyondAxisMm },
  });
  return { ...held, hasHand: true };
}

function withThings(ranged: FishScene, things: readonly Thing[]): FishScene {
  return withScene(ranged, { things });
}

function withCard(ranged: FishScene): CardScene {
  const { seed, board, fish, card } = ranged.scene;
  return withScene(ranged, { card: card ?? placeCard(seed, ranged.expected, board, fish.lengthMm) });
}

/** Aims the camera so that one end of the fish lies outside of the picture. */
function cropped(ranged: FishScene, side: -1 | 1, dice: Dice): FishScene {
  const { scene } = ranged;
  const { camera } = scene;
  const end = side < 0 ? 0 : scene.fish.lengthMm;
  const insideMm = (camera.positionMm[2] * 60) / camera.focalPx;
  // Goes along the board until the end is cut off, then a little further.
  for (let shiftMm = 0; shiftMm < 2000; shiftMm += 4) {
    const [x, y, z] = camera.positionMm;
    const moved = { ...camera, positionMm: [x - side * shiftMm, y, z] as const };
    const [px, py] = projectPoint(moved, [end - side * insideMm * 0.2, scene.fish.axisYMm, 3]);
    if (px < 0 || py < 0 || px > camera.widthPx - 1 || py > camera.heightPx - 1) {
      const further = shiftMm + dice.between(0, 16);
      return withScene(ranged, { camera: { ...camera, positionMm: [x - side * further, y, z] } });
    }
  }
  throw new RangeError('camera: no place from which the fish is cut off');
}

function steep(ranged: FishScene, dice: Dice): FishScene {
  const { camera, board } = ranged.scene;
  const { widthPx, heightPx, focalPx, focal35Mm, k1 } = camera;
  return withScene(ranged, {
    camera: aimCamera(
      {
        widthPx,
        heightPx,
        focalPx,
        focal35Mm,
        k1,
        tiltDeg: dice.between(22, 38),
        towardsRad: dice.between(0, 2 * Math.PI),
        rollDeg: dice.between(-12, 12),
        targetShare: [dice.between(0.42, 0.58), dice.between(0.2, 0.8)],
        fillShare: dice.between(0.6, 0.85),
      },
      board,
    ),
  });
}

/** The card lies on the ground where the picture ends, cut through its QR. */
function cardAtFrame(ranged: CardScene, dice: Dice): FishScene {
  const { camera, card } = ranged.scene;
  const top = dice.chance(0.5);
  const xPx = camera.widthPx * dice.between(0.25, 0.75);
  const [x, y] = boardPointAt(camera, xPx, top ? 0 : camera.heightPx - 1, -BOARD_THICK_MM + 0.8);
  const turnRad = dice.between(-0.3, 0.3) + (dice.chance(0.2) ? Math.PI / 2 : 0);
  return withScene(ranged, {
    card: {
      ...card,
      centreMm: [x, y + dice.between(-9, 9)],
      turnRad,
      zMm: -BOARD_THICK_MM + 0.8,
    },
    hand: top ? ranged.scene.hand : null,
  });
}

/** Something lies on the card's QR: a lure, a finger, a strap. */
function cardCovered(ranged: CardScene, dice: Dice): FishScene {
  const { card } = ranged.scene;
  const [c, s] = [Math.cos(card.turnRad), Math.sin(card.turnRad)];
  const at = (u: number, v: number): [number, number] => {
    const [x, y] = [u - CARD_MM.width / 2, v - CARD_MM.height / 2];
    return [card.centreMm[0] + x * c - y * s, card.centreMm[1] + x * s + y * c];
  };
  const middle = dice.between(20, 36);
  const colour: Rgb = [dice.between(40, 230), dice.between(40, 190), dice.between(40, 180)];
  const cover = {
    parts: [{ from: at(middle + dice.between(-14, 14), -6), to: at(middle, dice.between(28, 60)), radiusFromMm: dice.between(8, 12), radiusToMm: dice.between(7, 11) }],
    colour,
  }; // prettier-ignore
  // On the ground it is painted, on the face it lies on the relief.
  return card.zMm < 0
    ? withScene(ranged, {
        clutter: [
          { parts: cover.parts, colour: cover.colour, isOnCard: true },
          ...(ranged.scene.clutter ?? []),
        ],
      })
    : withThings(ranged, [{ ...cover, gloss: 0.3 }]);
}

function grip(fish: Fish, widthMm: number, dice: Dice): Thing {
  const jaw: [number, number] = [0.035 * fish.lengthMm, fish.axisYMm + 0.025 * fish.lengthMm];
  const lean = dice.between(-40, 60);
  const handle: [number, number] = [jaw[0] + lean, widthMm + dice.between(10, 60)];
  const end: [number, number] = [jaw[0] + lean * 2, widthMm + dice.between(120, 200)];
  return {
    parts: [
      { from: jaw, to: handle, radiusFromMm: 4, radiusToMm: 6 },
      { from: [jaw[0] + 5, jaw[1] - 8], to: [jaw[0] + 4, jaw[1] + 14], radiusFromMm: 4, radiusToMm: 4 },
      { from: handle, to: end, radiusFromMm: 11, radiusToMm: 15 },
    ],
    colour: dice.pick([[60, 64, 70], [190, 60, 40], [210, 190, 50], [40, 90, 170], [170, 174, 180]] as const),
    gloss: 0.7,
  }; // prettier-ignore
}

function lure(fish: Fish, dice: Dice): Thing {
  const turn = dice.between(-1.2, 1.2);
  const half = dice.between(14, 26);
  const [x, y] = [dice.between(4, 14), fish.axisYMm + dice.between(-4, 6)];
  return {
    parts: [
      {
        from: [x - half * 0.4 * Math.cos(turn), y - half * Math.sin(turn)],
        to: [x + half * Math.cos(turn), y + half * Math.sin(turn)],
        radiusFromMm: dice.between(8, 12),
        radiusToMm: dice.between(5, 10),
      },
    ],
    colour: dice.pick([[214, 50, 38], [240, 200, 40], [40, 130, 210], [235, 235, 230], [60, 170, 80]] as const),
    gloss: 0.8,
  }; // prettier-ignore
}

function cord(fish: Fish, widthMm: number, dice: Dice): Thing {
  const gill: [number, number] = [0.24 * fish.lengthMm, fish.axisYMm + 0.05 * fish.lengthMm];
  const bend: [number, number] = [gill[0] - dice.between(10, 60), widthMm - dice.between(4, 16)];
  const end: [number, number] = [bend[0] - dice.between(20, 80), widthMm + 160];
  return {
    parts: [
      { from: gill, to: bend, radiusFromMm: 2, radiusToMm: 2 },
      { from: bend, to: end, radiusFromMm: 2, radiusToMm: 2 },
    ],
    colour: dice.pick([[230, 230, 220], [220, 90, 40], [40, 60, 120]] as const),
    gloss: 0.2,
  }; // prettier-ignore
}

/** A second fish: on the free face beyond the tail if there is room, else over the near edge. */
function withOtherFish(ranged: FishScene, dice: Dice): FishScene {
  const { fish, board, seed } = ranged.scene;
  const roomMm = faceLengthMm(board) - fish.lengthMm - 30;
  const beyond = roomMm > 130;
  const lengthMm = beyond
    ? Math.min(roomMm - 10, dice.between(110, 260))
    : fish.lengthMm * dice.between(0.5, 0.85);
  const look = { ...fish.look, depth: Math.min(fish.look.depth, 0.85) };
  return withScene(ranged, {
    hand: null,
    otherFish: {
      look,
      seed: seedFor(seed, 'other fish'),
      lengthMm,
      noseGapMm: beyond ? fish.lengthMm + dice.between(18, 30) : dice.between(40, 120),
      axisYMm: beyond ? board.widthMm * dice.between(0.35, 0.65) : board.widthMm + 0.06 * lengthMm,
      bow: dice.between(-0.02, 0.02),
      isReversed: dice.chance(0.3),
    },
    ...(beyond && ranged.scene.card && ranged.scene.card.zMm > 0 ? { card: placeCard(seed, ranged.expected, board, faceLengthMm(board)) } : {}),
  }); // prettier-ignore
}
