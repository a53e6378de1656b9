import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { writeExif } from '@lauta/vision/exif-writer';
import { SHIPPED_BOARDS, type MeasuringBoard } from '@lauta/vision';
import { drawEmptyBoard, drawRangedScene, renderScene, type PhotoFault } from '../camera/index.ts';
import { widened, type Family } from '../families/index.ts';
import { developed } from './developed.ts';
import { recordOf, type PhotoRecord } from './photoRecord.ts';

/** One photograph to draw from its seed and to store in a folder. */
export interface PhotoOrder {
  seed: number;
  dir: string;
  name: string;
  widthPx: number;
  heightPx: number;
  fish: boolean;
  maxTiltDeg: number;
  /** Boards to choose from; by default the shipped ones. */
  boards?: readonly MeasuringBoard[];
  /** The first of these boards, empty, as somebody photographs it to have it described. */
  isEmptyBoard?: boolean;
  fault?: PhotoFault;
  /** The seed of the scene whose fish this is. */
  fishOf?: number;
  /** What the scene is widened by; by default nothing. */
  families?: readonly Family[];
}

/** Draws a photograph and stores it with what is known of it. */
export async function draw(order: PhotoOrder): Promise<PhotoRecord> {
  const { seed, dir, name, widthPx, heightPx, fish, maxTiltDeg } = order;
  const boards = order.boards ?? SHIPPED_BOARDS;
  const drawn = order.isEmptyBoard
    ? drawEmptyBoard(seed, boards[0], { widthPx, heightPx })
    : drawRangedScene(seed, {
        boards,
        widthPx,
        heightPx,
        maxTiltDeg,
        fish,
        ...(order.fault ? { fault: order.fault } : {}),
        ...(order.fishOf === undefined ? {} : { fishOf: order.fishOf }),
      });
  const ranged = widened(drawn, order.families ?? []);
  const { raster, truth } = renderScene(ranged.scene);
  const plain = await developed(raster, ranged);
  const jpeg = writeExif(plain, {
    takenLocal: '2026:06:14 09:30:00',
    offset: '+02:00',
    focal35Mm: truth.focal35Mm,
    device: 'simulated camera',
    position: null,
    takenUtc: { date: '2026:06:14', hour: 7, minute: 30, second: 0 },
  });
  const record = recordOf(name, ranged, truth);
  await writeFile(join(dir, name), jpeg);
  await writeFile(join(dir, name.replace(/\.jpg$/, '.json')), JSON.stringify(record));
  return record;
}
