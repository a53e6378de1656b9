import type { LineFamily, MeasuringBoard } from '@lauta/vision';
import { rollDice, seedFor, type Dice } from './dice.ts';

/** Draws a kind of board that nobody has described: other lines, numerals, colours, sizes and uprights by its seed. */
export function drawBoardKind(seed: number): MeasuringBoard {
  const dice = rollDice(seedFor(seed, 'kind'));
  const unit = dice.chance(0.6) ? 'in' : 'cm';
  const isDark = dice.chance(0.35);
  const widthMm = Math.round(dice.between(95, 210));
  const tint = [dice.between(-14, 14), dice.between(-14, 14), dice.between(-14, 14)] as const;
  const light = dice.between(205, 245);
  const dark = dice.between(22, 58);
  const numeralEvery = unit === 'in' ? dice.pick([1, 2]) : dice.pick([5, 10]);
  const heightMm = Math.round(dice.between(8, unit === 'in' ? 13 : 16) * 2) / 2;
  const strokes = [dice.between(1.5, 2.4), dice.between(1.1, 1.5), dice.between(0.8, 1.1)] as const;
  return {
    id: `kind-${seed}`,
    name: `Kind ${seed}`,
    unit,
    scaleLength: unit === 'in' ? dice.whole(18, 34) : 5 * dice.whole(9, 17),
    widthMm,
    face: hex(isDark ? dark : light, tint),
    ink: hex(isDark ? light : dark, tint),
    lines: unit === 'in' ? inchLines(dice, strokes) : centimetreLines(dice, strokes),
    numerals: { every: numeralEvery, heightMm, centresAt: placeNumerals(dice, widthMm, heightMm) },
    stop: {
      heightMm: Math.round(dice.between(35, 75)),
      thicknessMm: Math.round(dice.between(3, 8)),
      colour: hex(dice.between(40, 200), [
        dice.between(-40, 40),
        dice.between(-40, 40),
        dice.between(-40, 40),
      ]),
      band: dice.chance(0.3) ? hex(150, [70, -40, -60]) : null,
    },
    wall: dice.chance(0.35)
      ? {
          heightMm: Math.round(dice.between(25, 60)),
          thicknessMm: 4,
          colour: hex(dice.between(60, 200), [dice.between(-20, 20), 0, dice.between(-20, 20)]),
        }
      : null,
  };
}

type Strokes = readonly [number, number, number];

function inchLines(dice: Dice, [broad, middle, thin]: Strokes): LineFamily[] {
  const mirrored = dice.chance(0.6);
  const half = dice.between(0.24, 0.4);
  const quarter = half - dice.between(0.08, 0.14);
  const families: LineFamily[] = [
    { every: 1, spans: [[0, 1]], strokeMm: broad },
    { every: 0.5, spans: edgeSpans(half, mirrored), strokeMm: middle },
    { every: 0.25, spans: edgeSpans(quarter, mirrored), strokeMm: thin },
  ];
  if (dice.chance(0.35))
    families.push({ every: 0.125, spans: edgeSpans(quarter - 0.06, mirrored), strokeMm: thin });
  return families;
}

function centimetreLines(dice: Dice, [broad, middle, thin]: Strokes): LineFamily[] {
  const mirrored = dice.chance(0.6);
  const one = dice.between(0.2, 0.34);
  const families: LineFamily[] = [
    { every: dice.pick([5, 10]), spans: [[0, 1]], strokeMm: broad },
    { every: 1, spans: edgeSpans(one, mirrored), strokeMm: middle },
  ];
  if (dice.chance(0.7)) families.push({ every: 0.5, spans: edgeSpans(one - 0.07, mirrored), strokeMm: thin });
  return families;
}

/** Lines at both edges of the face, or at the angler's alone. */
function edgeSpans(share: number, mirrored: boolean): [number, number][] {
  return mirrored
    ? [
        [0, share],
        [1 - share, 1],
      ]
    : [[1 - share, 1]];
}

function placeNumerals(dice: Dice, widthMm: number, heightMm: number): number[] {
  const inset = (heightMm / 2 + dice.between(4, 14)) / widthMm + 0.12;
  const pick = dice.pick(['both', 'far', 'middle'] as const);
  if (pick === 'both') return [inset, 1 - inset];
  return pick === 'far' ? [inset] : [dice.between(0.42, 0.55)];
}

function hex(light: number, [r, g, b]: readonly [number, number, number]): string {
  const part = (value: number): string =>
    Math.round(Math.min(250, Math.max(12, value)))
      .toString(16)
      .padStart(2, '0');
  return `#${part(light + r)}${part(light + g)}${part(light + b)}`;
}
