/**
 * npm run -s drawings: what the bench sees of one drawn photograph, for docs/measuring.md. Nothing in them is drawn by
 * hand: lines, outline and lengths are the analysis' own.
 */
import { mkdir } from 'node:fs/promises';
import sharp from 'sharp';
import { drawScene, renderScene } from '@lauta/sim/camera';
import {
  analysePhoto,
  boardLines,
  boardMap,
  rectifyStrip,
  shippedBoard,
  stripFrame,
  type Point,
  type Raster,
} from '@lauta/vision';

const DIR = 'docs/drawings';
const SHOWN_PX = 1100;
const INK = { board: '#ff5a2b', fish: '#ffd34d', far: '#00b7c7' };

const board = shippedBoard('birch-30in');
const { raster } = renderScene(
  drawScene(23, { board, look: 'largemouth-bass', lengthMm: 418, identifier: null, hand: false, maxTiltDeg: 16, widthPx: 1600, heightPx: 1200 }), // prettier-ignore
);
const analysis = analysePhoto(raster, board, { focal35Mm: null });
const { found, marks, outline, apparentMm } = analysis;
if (!found || !marks || !outline || apparentMm === null)
  throw new Error(`drawings: expected a reading, got ${String(analysis.trouble)}`);
const { corners } = marks;
const map = boardMap(board, corners, found.lens, raster);

const pathOf = (points: readonly Point[]): string =>
  points.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ');
const line = (points: readonly Point[], ink: string, width: number): string =>
  `<polyline points="${pathOf(points)}" fill="none" stroke="${ink}" stroke-width="${width}"/>`;
const ring = ([x, y]: Point, ink: string): string =>
  `<circle cx="${x}" cy="${y}" r="12" fill="none" stroke="${ink}" stroke-width="4"/>`;

async function draw(
  name: string,
  { widthPx, heightPx, data }: Raster,
  shapes: readonly string[],
  cut?: { left: number; top: number; width: number; height: number },
): Promise<void> {
  const over = `<svg xmlns="http://www.w3.org/2000/svg" width="${widthPx}" height="${heightPx}">${shapes.join('')}</svg>`;
  const whole = await sharp(data, { raw: { width: widthPx, height: heightPx, channels: 4 } })
    .composite([{ input: Buffer.from(over) }])
    .png()
    .toBuffer();
  await sharp(whole)
    .extract(cut ?? { left: 0, top: 0, width: widthPx, height: heightPx })
    .flatten({ background: '#f4efe3' })
    .resize(SHOWN_PX)
    .webp({ quality: 82 })
    .toFile(`${DIR}/${name}.webp`);
}

/** The board with so many px about it. */
function aboutBoard(px: number): { left: number; top: number; width: number; height: number } {
  const xs = corners.map(([x]) => x);
  const ys = corners.map(([, y]) => y);
  const [left, top] = [Math.round(Math.min(...xs) - px), Math.round(Math.min(...ys) - px)];
  return {
    left,
    top,
    width: Math.round(Math.max(...xs) + px) - left,
    height: Math.round(Math.max(...ys) + px) - top,
  };
}

await mkdir(DIR, { recursive: true });

// The photograph: every printed line where the fitted pose and lens put it, the fish's two edges, nose and tail.
await draw(
  'board',
  raster,
  [
    ...boardLines(board).flatMap(({ xMm, spans }) =>
      spans.map(([from = 0, to = 1]) =>
        line(
          [map.toPhoto([xMm, from * board.widthMm]), map.toPhoto([xMm, to * board.widthMm])],
          INK.board,
          1.4,
        ),
      ),
    ),
    line([...marks.corners, marks.corners[0]], INK.board, 4),
    line(outline.upper, INK.fish, 4),
    line(outline.lower, INK.fish, 4),
    ring(marks.nose, INK.far),
    ring(marks.tail, INK.far),
  ],
  aboutBoard(60),
);

// The face straight from above: there the tail's farthest point falls on the scale.
const frame = stripFrame(board, 3);
const onStrip = (px: Point): Point => {
  const [xMm, yMm] = map.toBoard(px);
  return [(xMm - frame.fromMm) * frame.pxPerMm, (yMm - frame.fromYMm) * frame.pxPerMm];
};
const tailX = (apparentMm - frame.fromMm) * frame.pxPerMm;
const strip = rectifyStrip(raster, board, marks.corners, frame, found.lens);
await draw('face', strip, [
  line(outline.upper.map(onStrip), INK.fish, 3),
  line(outline.lower.map(onStrip), INK.fish, 3),
  line([[tailX, 0], [tailX, strip.heightPx]], INK.far, 3), // prettier-ignore
  ring(onStrip(marks.tail), INK.far),
]);
console.log(`${DIR}: board.webp, face.webp; ${apparentMm.toFixed(1)} mm read`);
