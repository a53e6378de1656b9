import { describe, expect, it } from 'vitest';
import { SHIPPED_BOARDS, findBoard, type MeasuringBoard } from '@lauta/vision';
import { drawRangedScene } from '../camera/index.ts';
import { paintBoard } from '../camera/paintBoard.ts';
import { NUMERAL_FONTS, numeralFont } from '../camera/print.ts';
import { FAMILIES, widened, type Family } from './index.ts';

const plain = drawRangedScene(77, { boards: SHIPPED_BOARDS });
const birch = findBoard('birch-30in') as MeasuringBoard;

/** What a family changes of a scene, so that what others change is told apart. */
const PARTS: Record<Family, (ranged: typeof plain) => unknown> = {
  numerals: ({ scene: { print } }) => print && [print.font, print.stretch, print.asideMm],
  ink: ({ scene: { print } }) => print && [print.faded, print.worn, print.scratches, print.stickers],
  stop: ({ scene }) => scene.stopMarks,
  tail: ({ scene }) => scene.fish?.look.tail,
  skin: ({ scene }) => scene.fish?.look.back,
  light: ({ scene }) => [scene.light.warmth, scene.light.dapple],
  phone: ({ phone }) => phone,
};

describe('families of scenes', () => {
  it('change nothing when none is asked for', () => {
    expect(widened(plain, [])).toEqual(plain);
  });

  it.each(FAMILIES)('%s is drawn alike whether others are or not, and the same each time', (family) => {
    const alone = widened(plain, [family]);
    expect(widened(plain, [family])).toEqual(alone);
    expect(PARTS[family](alone)).not.toEqual(PARTS[family](plain));
    expect(PARTS[family](widened(plain, FAMILIES))).toEqual(PARTS[family](alone));
  });

  it('leave out what is left out', () => {
    for (const family of FAMILIES) {
      const rest = widened(plain, FAMILIES.filter((one) => one !== family)); // prettier-ignore
      // Worn ink is a print as well, in the plain face.
      if (family === 'numerals') expect(rest.scene.print?.font).toBeNull();
      else if (family === 'ink') expect(rest.scene.print?.worn).toBe(0);
      else expect(PARTS[family](rest)).toEqual(PARTS[family](plain));
    }
  });

  it('do not change what the photograph is known to show', () => {
    const wide = widened(plain, FAMILIES);
    expect(wide.scene.fish?.lengthMm).toBe(plain.scene.fish?.lengthMm);
    expect(wide.scene.camera).toEqual(plain.scene.camera);
    expect(wide.expected).toEqual(plain.expected);
  });
});

describe('fonts of numerals', () => {
  it('are forty or more, each free, and no two alike', () => {
    expect(NUMERAL_FONTS.length).toBeGreaterThanOrEqual(40);
    const outlines = NUMERAL_FONTS.map(({ glyphs }) => JSON.stringify(glyphs));
    expect(new Set(outlines).size).toBe(NUMERAL_FONTS.length);
  });

  it.each(NUMERAL_FONTS.map(({ name }) => name))(
    '%s has ten digits about as high as the board says',
    (name) => {
      const { glyphs } = numeralFont(name);
      for (const digit of '0123456789') {
        const heights = (glyphs[digit]?.contours ?? []).flatMap((contour) =>
          contour.filter((_, i) => i % 2 === 1),
        );
        expect(Math.max(...heights)).toBeGreaterThan(0.85);
        expect(Math.max(...heights)).toBeLessThan(1.15);
        expect(Math.min(...heights)).toBeGreaterThan(-0.15);
      }
    },
  );
});

describe('a printed face', () => {
  const print = { font: null, stretch: 1, asideMm: [0, 0], faded: 0, worn: 0, scratches: 0, stickers: [], seed: 5 } as const; // prettier-ignore
  const darkCells = (change: object): number =>
    paintBoard(birch, 3, 1, { ...print, ...change }).data.filter((value, i) => i % 3 === 1 && value < 110)
      .length;

  it('is as described when nothing has become of it', () => {
    const [a, b] = [paintBoard(birch, 3), paintBoard(birch, 3, 1, print)];
    // Another way to set the pen costs the last digit.
    expect(a.data.some((value, i) => Math.abs(value - b.data[i]) > 1)).toBe(false);
  });

  it('loses its ink by wear and by light', () => {
    const whole = darkCells({});
    expect(darkCells({ worn: 0.5 })).toBeLessThan(0.85 * whole);
    expect(darkCells({ worn: 0.5 })).toBeGreaterThan(0.2 * whole);
    expect(darkCells({ faded: 0.9 })).toBe(0);
  });

  it('has its numerals in another font, in the same places', () => {
    const bold = darkCells({ font: 'archivo-black-400' });
    const thin = darkCells({ font: 'dosis-500' });
    expect(bold).toBeGreaterThan(thin);
  });
});
