import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { afterAll, describe, expect, it } from 'vitest';
import { openCodeReader } from '@lauta/vision/codes';
import { flankPattern, likenessOf, type KnownFlank } from '@lauta/vision/same-fish';
import { parsePayload } from '@lauta/core/identifier';
import {
  BENCH_CHECKS,
  SHIPPED_BOARDS,
  analysisSteps,
  findBoard,
  runAnalysis,
  type MeasuringBoard,
  type PhotoAnalysis,
} from '@lauta/vision';
import { PHOTO_FAULTS, drawRangedScene, type PhotoFault } from '../camera/index.ts';
import { drawPhotos } from './drawPhotos.ts';
import { mixedFault } from './mix.ts';
import type { PhotoRecord } from './photoRecord.ts';

const dir = mkdtempSync(join(tmpdir(), 'lauta-sim-faults-'));
afterAll(() => rmSync(dir, { recursive: true }));

const readCodes = openCodeReader(
  new Uint8Array(readFileSync(fileURLToPath(import.meta.resolve('zxing-wasm/reader/zxing_reader.wasm'))))
    .buffer,
);

const analysed = new Map<string, Promise<PhotoAnalysis>>();

/** Each photograph is analysed once, whatever is asked of it. */
function analyse(record: PhotoRecord): Promise<PhotoAnalysis> {
  const known = analysed.get(record.file) ?? analyseFile(record);
  analysed.set(record.file, known);
  return known;
}

async function analyseFile(record: PhotoRecord): Promise<PhotoAnalysis> {
  const { data, info } = await sharp(join(dir, record.file))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const raster = { widthPx: info.width, heightPx: info.height, data: new Uint8ClampedArray(data) };
  const steps = analysisSteps(raster, findBoard(record.claimedBoard) as MeasuringBoard, {
    focal35Mm: record.camera.focal35,
    otherBoards: SHIPPED_BOARDS,
    expected: parsePayload(record.expectedPayload),
    withFlank: true,
  });
  return runAnalysis(steps, readCodes);
}

const FAULTY: Partial<Record<number, PhotoFault>> = {
  2036: 'nose-gap',
  2072: 'mouth-open',
  2044: 'tail-held',
  2014: 'identifier-wrong',
  2020: 'dorsal-near',
  2125: 'eye-covered',
};
const drawn = drawPhotos({
  dir,
  seeds: [2010, ...Object.keys(FAULTY).map(Number)],
  threads: 2,
  faultOf: (seed) => FAULTY[seed] ?? null,
});

describe('a drawn fault', () => {
  it.each(Object.entries(FAULTY))(
    'of seed %s is found: %s',
    async (seed, fault) => {
      const record = (await drawn).find(({ file }) => file.endsWith(`${fault ?? ''}-${seed}.jpg`));
      expect(record?.faults).toEqual([fault]);
      const { findings } = await analyse(record as PhotoRecord);
      const found = findings.find(({ check }) => check === fault);
      expect([fault, found?.tone]).toEqual([fault, 'fault']);
      expect(found?.confidence).toBeGreaterThan(0.5);
    },
    300_000,
  );

  it('has its measure: the nose’s gap and the jaws’ within a few mm', async () => {
    for (const record of await drawn) {
      if (!record.faults.includes('nose-gap')) continue;
      const { noseGapMm } = await analyse(record);
      expect(Math.abs((noseGapMm ?? NaN) - record.noseGapMm)).toBeLessThan(4);
    }
  }, 300_000);

  it('gives no length when a hand hides the tail', async () => {
    const record = (await drawn).find(({ faults }) => faults.includes('tail-held')) as PhotoRecord;
    expect(await analyse(record)).toMatchObject({ lengthMm: null, trouble: 'tail-held' });
  }, 300_000);
});

describe('a photograph without a fault', () => {
  it('has a finding for every check, none of them a fault, and its card is read', async () => {
    const record = (await drawn).find(({ faults }) => faults.length === 0) as PhotoRecord;
    const { findings, identifier } = await analyse(record);
    expect(findings.map(({ check }) => check).toSorted()).toEqual([...BENCH_CHECKS].toSorted());
    expect(findings.filter(({ tone }) => tone === 'fault')).toEqual([]);
    expect(identifier).toEqual({ visible: true, payload: record.expectedPayload });
  }, 300_000);
});

describe('a photograph without a board', () => {
  it('is left to people in every check that needs one', async () => {
    const grey = { widthPx: 640, heightPx: 480, data: new Uint8ClampedArray(640 * 480 * 4).fill(128) };
    const steps = analysisSteps(grey, SHIPPED_BOARDS[0], { focal35Mm: null });
    const { findings, trouble } = await runAnalysis(steps, readCodes);
    expect(trouble).toBe('no-board');
    expect(findings.map(({ check }) => check).toSorted()).toEqual([...BENCH_CHECKS].toSorted());
    const nose = findings.find(({ check }) => check === 'nose-gap');
    expect(nose).toMatchObject({ tone: 'look', isUnanswered: true, place: null });
  });
});

describe('one fish photographed twice', () => {
  it('is told from another of its length, whatever the board and the light', async () => {
    const pair = await drawPhotos({ dir, seeds: [7021, 7022], threads: 2, fishOf: () => 7021 });
    const [a, b] = await Promise.all(
      pair.map(async (record): Promise<KnownFlank> => {
        const { lengthMm, sigmaMm, flank } = await analyse(record);
        return {
          lengthMm: lengthMm ?? NaN,
          sigmaMm: sigmaMm ?? NaN,
          flank: flankPattern(flank?.pattern ?? ''),
        };
      }),
    );
    const same = likenessOf(a as KnownFlank, b as KnownFlank);
    expect(same.answer).toBe('same');
    expect(same.isSamePhoto).toBe(false);
    const [other] = await drawn;
    const { flank } = await analyse(other as PhotoRecord);
    const stranger = { ...(a as KnownFlank), flank: flankPattern(flank?.pattern ?? '') };
    expect(likenessOf(a as KnownFlank, stranger).answer).not.toBe('same');
  }, 180_000);
});

describe('the simulated faults', () => {
  it('are drawn each in turn, one photograph in three without', () => {
    const seeds = Array.from({ length: 3 * PHOTO_FAULTS.length }, (_, i) => 3000 + i);
    const faults = seeds.map(mixedFault);
    expect(faults.filter((fault) => fault === null)).toHaveLength(PHOTO_FAULTS.length);
    for (const fault of PHOTO_FAULTS) expect(faults.filter((one) => one === fault)).toHaveLength(2);
  });

  it.each(PHOTO_FAULTS)('%s changes the scene that its seed gives, and nothing else does', (fault) => {
    const wish = { boards: SHIPPED_BOARDS };
    const plain = drawRangedScene(4711, wish);
    const faulty = drawRangedScene(4711, { ...wish, fault });
    expect(faulty.fault).toBe(fault);
    expect(JSON.stringify(drawRangedScene(4711, { ...wish, fault }))).toBe(JSON.stringify(faulty));
    expect(JSON.stringify({ ...faulty, fault: null })).not.toBe(JSON.stringify({ ...plain, fault: null }));
  });
});
