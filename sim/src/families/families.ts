import { faceLengthMm } from '@lauta/vision';
import { rollDice, seedFor, type Dice } from '../camera/dice.ts';
import type { FishLook } from '../camera/fish.ts';
import type { Phone } from '../camera/phone.ts';
import { NUMERAL_FONTS, type Print, type Sticker } from '../camera/print.ts';
import type { RangedScene } from '../camera/rangedScene.ts';
import { mix, type Rgb } from '../camera/rgb.ts';

/**
 * What a drawn scene may be widened by. Each family is drawn from dice of its own: leaving one out changes nothing of
 * the others.
 */
export const FAMILIES = ['numerals', 'ink', 'stop', 'tail', 'skin', 'light', 'phone'] as const;
export type Family = (typeof FAMILIES)[number];

const APPLIED: Record<Family, (ranged: RangedScene, dice: Dice) => RangedScene> = {
  numerals: (ranged, dice) =>
    printed(ranged, {
      font: dice.pick(NUMERAL_FONTS).name,
      stretch: dice.between(0.85, 1.1),
      asideMm: [dice.between(-1, 1), dice.between(-2, 2)],
    }),
  ink: (ranged, dice) =>
    printed(ranged, {
      faded: dice.chance(0.5) ? dice.between(0, 0.55) : 0,
      worn: dice.chance(0.6) ? dice.between(0.1, 0.5) : 0,
      scratches: dice.chance(0.6) ? dice.whole(4, 60) : 0,
      stickers: Array.from({ length: dice.chance(0.4) ? dice.whole(1, 3) : 0 }, () =>
        drawSticker(dice, ranged),
      ),
    }),
  stop: (ranged, dice) => ({
    ...ranged,
    scene: {
      ...ranged.scene,
      stopMarks: Array.from({ length: dice.whole(0, 4) }, () => ({
        yMm: dice.next() * ranged.scene.board.widthMm,
        thickMm: dice.between(1, 6),
        colour: dice.chance(0.5) ? ([24, 24, 28] as const) : drawColour(dice),
      })),
    },
  }),
  tail: (ranged, dice) => withLook(ranged, drawTail(dice)),
  skin: (ranged, dice) => withLook(ranged, drawSkin(dice)),
  light: ({ scene, ...rest }, dice) => ({
    ...rest,
    scene: {
      ...scene,
      light: {
        ...scene.light,
        warmth: dice.between(-0.22, 0.3),
        ...(dice.chance(0.35)
          ? {
              dapple: {
                seed: dice.whole(1, 1e6),
                sizeMm: dice.between(15, 90),
                depth: dice.between(0.4, 0.95),
              },
            }
          : {}),
      },
    },
  }),
  phone: (ranged, dice) => ({ ...ranged, phone: drawPhone(dice) }),
};

/** A scene widened by some families, in their own order. */
export function widened(ranged: RangedScene, families: readonly Family[]): RangedScene {
  return FAMILIES.filter((family) => families.includes(family)).reduce(
    (scene, family) => APPLIED[family](scene, rollDice(seedFor(ranged.scene.seed, `family ${family}`))),
    ranged,
  );
}

function printed(ranged: RangedScene, part: Partial<Print>): RangedScene {
  const { scene } = ranged;
  const plain: Print = {
    font: null,
    stretch: 1,
    asideMm: [0, 0],
    faded: 0,
    worn: 0,
    scratches: 0,
    stickers: [],
    seed: seedFor(scene.seed, 'print'),
  };
  return { ...ranged, scene: { ...scene, print: { ...(scene.print ?? plain), ...part } } };
}

function drawColour(dice: Dice): Rgb {
  return [dice.between(10, 245), dice.between(10, 245), dice.between(10, 245)];
}

/** Half of them by the zero, where names and numbers of boats are stuck. */
function drawSticker(dice: Dice, { scene: { board } }: RangedScene): Sticker {
  const lengthMm = faceLengthMm(board);
  return {
    xMm: dice.chance(0.5) ? dice.between(0, 90) : dice.next() * lengthMm,
    yMm: dice.next() * board.widthMm,
    widthMm: dice.between(15, 60),
    heightMm: dice.between(12, 40),
    colour: drawColour(dice),
  };
}

function withLook(ranged: RangedScene, look: Partial<FishLook>): RangedScene {
  const { scene } = ranged;
  if (!scene.fish) return ranged;
  return { ...ranged, scene: { ...scene, fish: { ...scene.fish, look: { ...scene.fish.look, ...look } } } };
}

function drawTail(dice: Dice): Partial<FishLook> {
  const isClumped = dice.chance(0.25);
  const tailSpreadRad = isClumped ? dice.between(0.2, 0.36) : dice.between(0.4, 0.8);
  const isLopsided = dice.chance(0.4);
  const short = dice.between(0.72, 0.98);
  return {
    // Below zero the middle of the fan stands out.
    fork: dice.between(-0.08, 0.45),
    tailSpreadRad,
    tail: {
      lobes: isLopsided ? (dice.chance(0.5) ? [1, short] : [short, 1]) : [1, 1],
      tears: Array.from({ length: dice.chance(0.5) ? dice.whole(1, 3) : 0 }, () => ({
        atRad: dice.between(-1, 1) * tailSpreadRad,
        wideRad: dice.between(0.02, 0.12),
        deep: dice.between(0.08, 0.4),
      })),
      ragged: dice.chance(0.6) ? dice.between(0.02, 0.12) : 0,
      clear: dice.chance(0.4) ? dice.between(0.1, 0.6) : 0,
      light: dice.chance(0.3) ? dice.between(0.25, 0.6) : dice.between(0.8, 1.5),
    },
  };
}

function drawSkin(dice: Dice): Partial<FishLook> {
  const grey = dice.between(40, 170);
  const hue = (): Rgb => [
    grey * dice.between(0.75, 1.2),
    grey * dice.between(0.8, 1.15),
    grey * dice.between(0.6, 1.25),
  ];
  const back = hue();
  // Countershading from none to strong.
  const shading = dice.next();
  const flank = mix(back, [grey * 1.5, grey * 1.5, grey * 1.4], shading);
  const silver = dice.chance(0.3);
  return {
    back,
    flank: silver ? [188, 192, 196] : flank,
    belly: mix(flank, [232, 230, 222], shading),
    pattern: dice.pick(['band', 'bars', 'spots', 'plain'] as const),
    patternColour: mix(back, [20, 20, 16], dice.next()),
    fin: dice.chance(0.2) ? drawColour(dice) : hue(),
  };
}

function drawPhone(dice: Dice): Phone {
  return {
    sharpened: dice.chance(0.6) ? dice.between(0.3, 1.6) : 0,
    smearedPx: dice.pick([1, 1, 3, 3, 5] as const),
    gamma: dice.chance(0.5) ? dice.between(1, 1.3) : 1,
    contrast: dice.between(0.85, 1.3),
    colour: dice.between(0.7, 1.4),
    firstQuality: dice.chance(0.5) ? dice.whole(50, 85) : null,
  };
}
