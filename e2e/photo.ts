import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { writeExif } from '@lauta/vision/exif-writer';
import { findBoard, mmPerUnit, type Raster } from '@lauta/vision';
import { wallTimeOf } from '@lauta/core/schedule';
import { drawScene, projectPoint, renderScene, type PhotoTruth, type Scene } from '@lauta/sim/camera';

/** For a photograph to be read: seconds by itself, more than a minute beside other browsers on a small machine. */
export const READ_MS = 120_000;

export interface Shot {
  jpeg: Buffer;
  truth: PhotoTruth;
  widthPx: number;
  heightPx: number;
}

/** A fish on a board as a phone would store it, with what is true of it. */
export async function shoot(
  seed: number,
  lengthMm: number,
  takenAt: Date,
  zone = 'Europe/Warsaw',
): Promise<Shot> {
  const board = findBoard('birch-30in');
  if (!board) throw new Error('birch-30in: expected a shipped board');
  const [widthPx, heightPx] = [1200, 900];
  const { raster, truth } = renderScene(
    drawScene(seed, { board, look: 'largemouth-bass', lengthMm, identifier: null, widthPx, heightPx }),
  );
  return { jpeg: await develop(raster, truth, takenAt, zone), truth, widthPx, heightPx };
}

/** A picture as a phone would store it. */
async function develop(
  { widthPx, heightPx, data }: Raster,
  { focal35Mm }: PhotoTruth,
  takenAt: Date,
  zone: string,
): Promise<Buffer> {
  const plain = await sharp(data, { raw: { width: widthPx, height: heightPx, channels: 4 } })
    .jpeg({ quality: 88 })
    .toBuffer();
  const { local, offset } = wallTimeOf(takenAt.getTime(), zone);
  const jpeg = writeExif(plain, {
    takenLocal: local.replaceAll('-', ':').replace('T', ' '),
    offset,
    focal35Mm,
    device: 'test camera',
    position: null,
    takenUtc: { date: '2026:06:14', hour: 0, minute: 0, second: 0 },
  });
  return Buffer.from(jpeg);
}

/** A scene as a phone would store it, in the middle of the demo's second day. */
export async function shootScene(scene: Scene): Promise<Buffer> {
  const { raster, truth } = renderScene(scene);
  return develop(raster, truth, new Date('2026-06-14T10:30:00Z'), 'Europe/Warsaw');
}

/** Puts the four marks of a photographed empty board where two of its lines truly are, and tells their numbers. */
export async function markLines(
  page: Page,
  { board, camera }: Scene,
  values: readonly [number, number],
): Promise<void> {
  const [lower, higher] = values;
  for (const [name, value, yMm] of [
    ['Lower, far', lower, 0],
    ['Higher, far', higher, 0],
    ['Higher, near', higher, board.widthMm],
    ['Lower, near', lower, board.widthMm],
  ] as const) {
    await page.getByRole('group', { name: 'Handles' }).getByRole('button', { name, exact: true }).click();
    const box = await page.getByAltText('The photograph of the empty board').boundingBox();
    if (!box) throw new Error('the photograph is not shown');
    const [x, y] = projectPoint(camera, [value * mmPerUnit(board), yMm, 0]);
    await page.mouse.click(
      box.x + (x / camera.widthPx) * box.width,
      box.y + (y / camera.heightPx) * box.height,
    );
  }
  await page.getByLabel('Lower number').fill(String(lower));
  await page.getByLabel('Higher number').fill(String(higher));
}

const NAMES = ['Zero, far', 'End, far', 'End, near', 'Zero, near', 'Nose', 'Tail'];

/** Waits until the bench has read the photograph, then asks for the handles. */
export async function takeByHand(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Correct by hand' }).click({ timeout: READ_MS });
}

/** Sets the six handles to where they truly belong: each is chosen, then its place is tapped. */
export async function setHandles(page: Page, { truth, widthPx, heightPx }: Shot): Promise<void> {
  const handles = page.getByRole('group', { name: 'Handles' });
  if (!(await handles.isVisible())) await takeByHand(page);
  const places = [...truth.corners, truth.nosePx ?? [0, 0], truth.tailPx ?? [0, 0]];
  for (const [i, [x, y]] of places.entries()) {
    await handles.getByRole('button', { name: NAMES[i] ?? '', exact: true }).click();
    const picture = page.getByAltText('The photograph on the bench');
    await picture.scrollIntoViewIfNeeded();
    const box = await picture.boundingBox();
    if (!box) throw new Error('the photograph is not shown');
    await page.mouse.click(box.x + (x / widthPx) * box.width, box.y + (y / heightPx) * box.height);
  }
}

export async function choose(page: Page, name: string, buffer: Buffer): Promise<void> {
  await page.getByLabel('Choose a JPEG').last().setInputFiles({ name, mimeType: 'image/jpeg', buffer });
}
