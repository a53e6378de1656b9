import { seededDice } from '@lauta/core/dice';
import { describe, expect, it } from 'vitest';
import { findBoard, type MeasuringBoard } from '../board/board.ts';
import { patternOf } from '../find-board/pattern.ts';
import type { LineEvidence } from '../find-fish/lineEvidence.ts';
import { scaledPose, type LensPose } from '../camera/lens.ts';
import type { Raster } from '../image/raster.ts';
import { bareBoard } from './bareBoard.ts';
import { cellAt } from '../grid/planeGrid.ts';
import { viewCode, viewSurroundings } from './cardView.ts';
import { CARD_MM, type CodeSeen } from './codeSeen.ts';
import { findCodes } from './findCodes.ts';
import { findSheets } from './findSheets.ts';
import { codeInOneLight, inOneLight } from './inOneLight.ts';
import { searchIdentifier, type IdentifierSeen } from './searchIdentifier.ts';
import { inWhiteLight } from './whiteLight.ts';

const PX_PER_MM = 2;
const HEIGHT_MM = 600;
const SIZE = { widthPx: 1400, heightPx: 1000 };
const CENTRE_MM = [350, 250] as const;
/** A camera straight over a place, so that what is drawn in mm is where it is looked for. */
const POSE: LensPose = {
  rotation: [1, 0, 0, 0, 1, 0, 0, 0, 1],
  zeroMm: [-CENTRE_MM[0], -CENTRE_MM[1], HEIGHT_MM],
  focalPx: PX_PER_MM * HEIGHT_MM,
  k1: 0,
  centrePx: [(SIZE.widthPx - 1) / 2, (SIZE.heightPx - 1) / 2],
};
const FACE = { lengthMm: 700, widthMm: 300 };

type Rgb = readonly [number, number, number];
type Paint = (xMm: number, yMm: number) => Rgb | null;

const TURF: Rgb = [70, 92, 48];
const WHITE: Rgb = [236, 236, 230];
const INK: Rgb = [26, 26, 30];

function draw(...paints: Paint[]): Raster {
  const dice = seededDice(3);
  const data = new Uint8ClampedArray(SIZE.widthPx * SIZE.heightPx * 4).fill(255);
  for (let row = 0; row < SIZE.heightPx; row++) {
    for (let column = 0; column < SIZE.widthPx; column++) {
      const xMm = CENTRE_MM[0] + (column - POSE.centrePx[0]) / PX_PER_MM;
      const yMm = CENTRE_MM[1] + (row - POSE.centrePx[1]) / PX_PER_MM;
      let colour: Rgb = TURF;
      for (const paint of paints) colour = paint(xMm, yMm) ?? colour;
      const noise = 10 * (dice() + dice() - 1);
      for (let channel = 0; channel < 3; channel++)
        data[(row * SIZE.widthPx + column) * 4 + channel] = colour[channel] + noise;
    }
  }
  return { ...SIZE, data };
}

interface CardWish {
  turnDeg?: number;
  hasCode?: boolean;
  /** Part of the code that something lies on, from its left, 0 to 1. */
  covered?: number;
}

/** A card whose code is a random mosaic of 29 × 29 modules with three eyes, as a symbol of version 3 has. */
function card(xMm: number, yMm: number, { turnDeg = 0, hasCode = true, covered = 0 }: CardWish = {}): Paint {
  const dice = seededDice(29);
  const modules = Array.from({ length: 29 * 29 }, () => dice() < 0.5);
  const moduleMm = 40 / 37;
  const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
  return (x, y) => {
    const u = (x - xMm) * c + (y - yMm) * s + CARD_MM.width / 2;
    const v = (y - yMm) * c - (x - xMm) * s + CARD_MM.height / 2;
    if (u < 0 || v < 0 || u >= CARD_MM.width || v >= CARD_MM.height) return null;
    const [column, row] = [Math.floor((u - 7) / moduleMm) - 4, Math.floor((v - 7) / moduleMm) - 4];
    if (hasCode && column >= 0 && row >= 0 && column < 29 && row < 29) {
      if (column < 29 * covered) return [150, 60, 40];
      const eye = (a: number, b: number): number => Math.max(Math.abs(column - a), Math.abs(row - b));
      const nearest = Math.min(eye(3, 3), eye(25, 3), eye(3, 25));
      if (nearest <= 4) return nearest === 3 || nearest < 2 ? INK : WHITE;
      return modules[row * 29 + column] ? INK : WHITE;
    }
    // Letters at the right.
    const isLetter = u > 50 && u < 80 && v > 16 && v < 28 && Math.floor(u / 2.2) % 2 === 0;
    return isLetter ? INK : WHITE;
  };
}

/** Shade of two fifths of the light, nearer than a line across the board. */
const shaded = (yMm: number): Raster => {
  const photo = draw(card(420, 140));
  const firstRow = Math.round(POSE.centrePx[1] + (yMm - CENTRE_MM[1]) * PX_PER_MM);
  for (let i = firstRow * SIZE.widthPx * 4; i < photo.data.length; i++)
    if (i % 4 < 3) photo.data[i] = 0.4 * photo.data[i];
  return photo;
};

const nothing = (): boolean => false;
const surroundings = (photo: Raster) => viewSurroundings(photo, POSE, FACE);

/** Where the code's middle is: 27 mm from the left, in the middle of the card's height. */
const codeOf = (xMm: number, yMm: number, turnDeg = 0): [number, number] => {
  const off = 27 - CARD_MM.width / 2;
  const turn = (turnDeg * Math.PI) / 180;
  return [xMm + off * Math.cos(turn), yMm + off * Math.sin(turn)];
};

describe('a code', () => {
  it.each([0, 17, 90, 205])('is found first on turf, the card turned by %i°', (turnDeg) => {
    const photo = draw(card(420, 140, { turnDeg }));
    const [first] = findCodes(photo, POSE, surroundings(photo), nothing);
    const [x, y] = codeOf(420, 140, turnDeg);
    expect(Math.hypot((first?.xMm ?? NaN) - x, (first?.yMm ?? NaN) - y)).toBeLessThan(9);
    expect(first?.grain).toBeGreaterThan(0.5);
    expect(first?.whiteShare).toBeGreaterThan(0.7);
  });

  it('is neither a plain card nor ruled lines nor bare ground', () => {
    const lines: Paint = (x, y) => (y < 0 || y > 120 ? null : Math.floor(x / 3) % 3 === 0 ? INK : WHITE);
    for (const photo of [draw(), draw(card(420, 180, { hasCode: false })), draw(lines)]) {
      const found = findCodes(photo, POSE, surroundings(photo), nothing);
      expect(found.every(({ grain, whiteShare }) => grain < 0.5 || whiteShare < 0.72)).toBe(true);
    }
  });

  it('is not looked for where the board lies bare', () => {
    const photo = draw(card(420, 140));
    expect(findCodes(photo, POSE, surroundings(photo), () => true)).toEqual([]);
  });

  it('is drawn for the decoder in its own scale, the place in the middle', () => {
    const photo = draw((x, y) => (Math.hypot(x - 300, y - 120) < 6 ? [250, 20, 20] : null));
    const close = viewCode(photo, POSE, [300, 120], 40, 5);
    expect([close.widthPx, close.heightPx]).toEqual([200, 200]);
    let [sx, sy, count] = [0, 0, 0];
    for (let row = 0; row < 200; row++) {
      for (let column = 0; column < 200; column++) {
        if (close.data[(row * 200 + column) * 4] < 200) continue;
        sx += column;
        sy += row;
        count++;
      }
    }
    // Cards are looked for 4 mm under the face that was drawn: 130 mm beside the camera's foot that is 0.9 mm, 4.3 cells.
    expect(Math.abs(sx / count - 99.5)).toBeLessThan(2.5);
    expect(Math.abs(Math.abs(sy / count - 99.5) - (130 * 4 * 5) / 604)).toBeLessThan(1);
    expect(Math.abs(count / 25 - Math.PI * 36)).toBeLessThan(12);
  });
});

describe('a card that a shadow’s edge divides', () => {
  it('is as white on both sides in one light, up to the edge, and its black stays black', () => {
    const photo = shaded(140);
    const view = inOneLight(surroundings(photo));
    const lumaAt = (xMm: number, yMm: number): number => view.luma[cellAt(view, xMm, yMm)];
    // White beside the code at the card's left end, in the light and in the shade, 4 mm from the edge and farther.
    for (const yMm of [122, 136, 144, 158]) expect(Math.abs(lumaAt(382, yMm) - 220)).toBeLessThan(14);
    const flat = codeInOneLight(viewCode(photo, POSE, codeOf(420, 140), 44, 8), 8);
    const greys = [...flat.data.filter((_, i) => i % 4 === 1)];
    const share = (is: (grey: number) => boolean): number => greys.filter(is).length / greys.length;
    // Half of the code's 31 mm in 44 mm is ink: a quarter of it all; hardly anything is grey.
    expect(Math.abs(share((grey) => grey < 110) - (0.5 * 31.4 ** 2) / 44 ** 2)).toBeLessThan(0.06);
    expect(share((grey) => grey > 110 && grey < 180)).toBeLessThan(0.15);
  });
});

describe('a white sheet', () => {
  it.each([0, 31, 90])('of an ID-1 card’s size is measured to a few mm, turned by %i°', (turnDeg) => {
    const [sheet, ...others] = findSheets(surroundings(draw(card(420, 140, { turnDeg }))), nothing);
    expect(others).toEqual([]);
    expect(Math.abs((sheet?.longMm ?? NaN) - 85.6)).toBeLessThan(8);
    expect(Math.abs((sheet?.shortMm ?? NaN) - 54)).toBeLessThan(8);
    expect(Math.hypot((sheet?.xMm ?? NaN) - 420, (sheet?.yMm ?? NaN) - 140)).toBeLessThan(4);
    expect(sheet).toMatchObject({ isCut: false, glareShare: 0 });
  });

  it('is cut where it goes on beyond the picture', () => {
    // The picture ends at 0 mm across.
    const sheets = findSheets(surroundings(draw(card(420, 10))), nothing);
    expect(sheets.some(({ isCut }) => isCut)).toBe(true);
  });

  it('is seen by its brightness alone where the picture leaves only code and letters of it', () => {
    // The picture ends at 0 mm across: 12 mm of the card's 54 are in it.
    const sheets = findSheets(surroundings(draw(card(420, -15))), nothing);
    const sliver = sheets.find(({ isSliver }) => isSliver);
    expect(sliver?.isCut).toBe(true);
    expect(Math.abs((sliver?.longMm ?? NaN) - 85.6)).toBeLessThan(10);
    expect(Math.abs((sliver?.xMm ?? NaN) - 420)).toBeLessThan(6);
    // A towel that goes on over the edge is larger than any card, and one inside of the picture is not cut.
    const towel: Paint = (x, y) => (x > 200 && x < 500 && y < 30 ? WHITE : null);
    for (const paint of [towel, card(420, 140)])
      expect(findSheets(surroundings(draw(paint)), nothing).some(({ isSliver }) => isSliver)).toBe(false);
  });

  it('glares where it is brighter than 252', () => {
    const glare: Paint = (x, y) => (Math.hypot(x - 404, y - 140) < 24 ? [255, 255, 255] : null);
    const own = card(420, 140);
    const glaring: Paint = (x, y) => (own(x, y) ? glare(x, y) : null);
    // Noise takes some of it under 252: paint it over.
    const photo = draw(own, glaring);
    for (let i = 0; i < photo.data.length; i++) if (photo.data[i] > 244) photo.data[i] = 255;
    const [sheet] = findSheets(surroundings(photo), nothing);
    expect(sheet?.glareShare).toBeGreaterThan(0.2);
  });

  it('is neither a strip, nor a towel, nor grey stone', () => {
    const strip: Paint = (x, y) => (x > 100 && x < 500 && y > 130 && y < 150 ? WHITE : null);
    const towel: Paint = (x, y) => (x > 200 && x < 500 && y > 60 && y < 260 ? WHITE : null);
    const stone: Paint = (x, y) => (x > 300 && x < 385 && y > 100 && y < 154 ? [74, 78, 72] : null);
    for (const paint of [strip, towel, stone])
      expect(findSheets(surroundings(draw(paint)), nothing)).toEqual([]);
  });
});

describe('bare board', () => {
  const pattern = patternOf(findBoard('birch-30in') as MeasuringBoard);
  const rows = Math.ceil(pattern.widthMm / 2);
  const evidence = (valueAt: (xMm: number, yMm: number) => number): LineEvidence => ({
    rows,
    rowMm: 2,
    seen: Float32Array.from({ length: pattern.lines.length * rows }, (_, i) =>
      valueAt(pattern.lines[Math.floor(i / rows)]?.xMm ?? NaN, 2 * (i % rows) + 1),
    ),
    clearShare: 0.8,
  });

  it('is where most printed lines are seen, and not where a card hides them, nor beside the board', () => {
    const isBare = bareBoard(
      evidence((x) => (x > 300 && x < 400 ? 0.05 : 0.9)),
      pattern,
    );
    expect(isBare(200, 76)).toBe(true);
    expect(isBare(350, 76)).toBe(false);
    expect(isBare(200, -120)).toBe(false);
    expect(isBare(pattern.lengthMm + 80, 76)).toBe(false);
  });
});

describe('a card in coloured light', () => {
  const pattern = patternOf(findBoard('birch-30in') as MeasuringBoard);
  const onFace = (x: number, y: number): boolean => x > 0 && x < pattern.lengthMm && y > 0 && y < pattern.widthMm; // prettier-ignore
  const face: Paint = (x, y) => (onFace(x, y) ? [0.8 * 0xe9, 0.8 * 0xe2, 0.8 * 0xcf] : null);
  /** A low sun, or a camera that took one for white. */
  const warm = (photo: Raster): Raster => {
    for (let i = 0; i < photo.data.length; i += 4) photo.data[i + 2] = 0.6 * photo.data[i + 2];
    return photo;
  };
  const chromaAt = (view: ReturnType<typeof viewSurroundings>, xMm: number, yMm: number): number =>
    view.chroma[cellAt(view, xMm, yMm)];

  it('is white by the colour that the bare face is known to have; turf stays coloured', () => {
    const photo = warm(draw(face, card(420, 220)));
    const seen = surroundings(photo);
    const white = inWhiteLight(seen, pattern, onFace);
    expect(chromaAt(seen, 455, 236)).toBeGreaterThan(0.3);
    expect(chromaAt(white, 455, 236)).toBeLessThan(0.1);
    expect(chromaAt(white, 200, 300)).toBeGreaterThan(0.3);
    expect(findSheets(seen, onFace)).toEqual([]);
    expect(findSheets(white, onFace)).toHaveLength(1);
    const [x, y] = codeOf(420, 220);
    const [first] = findCodes(photo, POSE, white, onFace);
    expect(Math.hypot((first?.xMm ?? NaN) - x, (first?.yMm ?? NaN) - y)).toBeLessThan(9);
  });

  it('is looked for as the picture shows it where too little of the face is bare', () => {
    const seen = surroundings(warm(draw(face, card(420, 220))));
    expect(inWhiteLight(seen, pattern, nothing)).toBe(seen);
  });

  it('in white light is no other, whatever a coloured face mirrors', () => {
    // The face is bluer than its profile says: sky in a film of water.
    const blue: Paint = (x, y) => (onFace(x, y) ? [190, 200, 214] : null);
    const seen = surroundings(draw(blue, card(420, 220)));
    const white = inWhiteLight(seen, pattern, onFace);
    expect(chromaAt(white, 455, 236)).toBeLessThan(0.1);
  });
});

describe('the search for cards', () => {
  const pattern = patternOf(findBoard('birch-30in') as MeasuringBoard);
  const none: LineEvidence = {
    rows: 1,
    rowMm: 2,
    seen: new Float32Array(pattern.lines.length).fill(-1),
    clearShare: 0,
  };

  /** Runs it with a decoder that answers by how often it was asked. */
  function search(
    photo: Raster,
    answer: (asked: number, picture: Raster) => readonly CodeSeen[],
  ): { seen: IdentifierSeen; asked: number } {
    const steps = searchIdentifier(photo, POSE, pattern, none);
    let asked = 0;
    let step = steps.next();
    while (!step.done) step = steps.next(answer(++asked, step.value));
    return { seen: step.value, asked };
  }

  /** The symbol as the decoder tells it: its corners in px of the picture that it was given. */
  const read = ({ widthPx }: Raster): CodeSeen => {
    const half = (widthPx / 60) * 15.7;
    const middle = widthPx / 2;
    return {
      text: 'lauta:1:K7Q4M:930:YT1P',
      corners: [[middle - half, middle - half], [middle + half, middle - half], [middle + half, middle + half], [middle - half, middle + half]], // prettier-ignore
    };
  };

  it('asks for the likeliest place first, and tells where the card lies', () => {
    const photo = draw(card(420, 140));
    const { seen, asked } = search(photo, (_, picture) => [read(picture)]);
    expect(asked).toBe(1);
    expect(seen.codes[0]?.identifier).toEqual({ eventCode: 'K7Q4M', entrantNumber: 930, code: 'YT1P' });
    const xs = seen.codes[0]?.cardMm.map(([x]) => x) ?? [];
    const ys = seen.codes[0]?.cardMm.map(([, y]) => y) ?? [];
    expect(Math.abs((Math.min(...xs) + Math.max(...xs)) / 2 - 420)).toBeLessThan(9);
    expect(Math.abs((Math.min(...ys) + Math.max(...ys)) / 2 - 140)).toBeLessThan(9);
    expect(seen.sheets).toEqual([]);
  });

  it('tries sharpened pictures and other scales before it gives up, and then looks for sheets', () => {
    const photo = draw(card(420, 140));
    const sizes: number[] = [];
    const { seen } = search(photo, (_, picture) => {
      sizes.push(picture.widthPx);
      return [];
    });
    // 60 mm at 8 cells a mm; the likeliest place sharpened twice, then at 12 and 5, then in one light.
    expect(sizes[0]).toBe(480);
    expect(sizes.slice(-5)).toEqual([480, 480, 720, 300, 480]);
    expect(seen.codes).toEqual([]);
    expect(seen.unread.length).toBeGreaterThan(0);
    expect(seen.sheets).toHaveLength(1);
  });

  it('tells how much of a card that was read shines', () => {
    const own = card(420, 140);
    const spot: Paint = (x, y) => (own(x, y) && Math.hypot(x - 445, y - 140) < 14 ? [255, 255, 255] : null);
    const photo = draw(own, spot);
    for (let i = 0; i < photo.data.length; i++) if (photo.data[i] > 244) photo.data[i] = 255;
    const shareOf = (picture: Raster) =>
      search(picture, (_, asked) => [read(asked)]).seen.codes[0]?.glareShare ?? NaN;
    // A disc of 14 mm on a card of 85.6 by 54 mm: 0.13 of it.
    expect(Math.abs(shareOf(photo) - (Math.PI * 14 ** 2) / (85.6 * 54))).toBeLessThan(0.04);
    expect(shareOf(draw(own))).toBe(0);
  });

  it('reads a second card as well', () => {
    const { seen } = search(draw(card(420, 140), card(180, 140)), (_, picture) => [read(picture)]);
    expect(seen.codes).toHaveLength(2);
  });

  it('finds and reads a card that a shadow’s edge divides in one light, and tells that', () => {
    const [x, y] = codeOf(420, 140);
    const photo = shaded(138);
    const found = findCodes(photo, POSE, inOneLight(surroundings(photo)), nothing);
    expect(Math.hypot((found[0]?.xMm ?? NaN) - x, (found[0]?.yMm ?? NaN) - y)).toBeLessThan(9);
    expect(found[0]?.whiteShare).toBeGreaterThan(0.7);
    // A decoder that reads nothing before light and shade were evened out: then the shaded white is as bright as the lit.
    const isEven = ({ data, widthPx, heightPx }: Raster): boolean => {
      const white = (row: number): number => data[4 * (row * widthPx + Math.round(0.08 * widthPx))];
      return Math.abs(white(Math.round(0.25 * heightPx)) - white(Math.round(0.75 * heightPx))) < 40;
    };
    const { seen } = search(photo, (_, asked) => (isEven(asked) ? [read(asked)] : []));
    expect(seen.codes).toHaveLength(1);
    expect(seen.codes[0]?.isUneven).toBe(true);
  });

  it('reads codes from a larger picture of the same, if it is given one', () => {
    const photo = draw(card(420, 140));
    const twice: Raster = { widthPx: 2 * SIZE.widthPx, heightPx: 2 * SIZE.heightPx, data: new Uint8ClampedArray(16 * SIZE.widthPx * SIZE.heightPx).fill(255) }; // prettier-ignore
    for (let i = 0; i < twice.data.length / 4; i++) {
      const from =
        Math.floor(Math.floor(i / twice.widthPx) / 2) * SIZE.widthPx + Math.floor((i % twice.widthPx) / 2);
      // Red is taken from it, so that its pictures are known.
      twice.data.set([0, photo.data[4 * from + 1], photo.data[4 * from + 2]], 4 * i);
    }
    const steps = searchIdentifier(photo, POSE, pattern, none, { photo: twice, pose: scaledPose(POSE, 2) });
    const asked = steps.next().value as Raster;
    const same = searchIdentifier(photo, POSE, pattern, none).next().value as Raster;
    const [larger, own] = [asked, same].map(({ data }) => data.filter((_, i) => i % 4 === 1)) as [Uint8ClampedArray, Uint8ClampedArray]; // prettier-ignore
    expect(asked.data.every((value, i) => i % 4 !== 0 || value === 0)).toBe(true);
    // The same place: but for the steps between px the pictures are equal.
    const apart = larger.reduce((sum, value, i) => sum + Math.abs(value - own[i]), 0) / own.length;
    expect(apart).toBeLessThan(20);
  });

  it('asks for nothing on bare ground, and keeps a text that is no identifier', () => {
    expect(search(draw(), () => []).seen).toEqual({ codes: [], unread: [], sheets: [] });
    const other = search(draw(card(420, 140)), (_, picture) => [{ ...read(picture), text: 'hello' }]);
    expect(other.seen.codes[0]).toMatchObject({ text: 'hello', identifier: null });
  });
});
