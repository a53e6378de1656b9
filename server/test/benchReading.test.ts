import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import type { BenchReadingView } from '@lauta/contract';
import { writeExif } from '@lauta/vision/exif-writer';
import { findBoard, toStoredPx, type MeasuringBoard, type Point } from '@lauta/vision';
import { drawRangedScene, renderScene, type PhotoTruth } from '@lauta/sim/camera';
import { flankPattern } from '@lauta/vision/same-fish';
import type { CatchRecord } from '../src/catch/catchStore.ts';
import { FlankKeeper, type ReadCatch } from '../src/same-fish/flankKeeper.ts';
import type { StoredFlank } from '../src/same-fish/flankStore.ts';
import { analysePhotograph } from '../src/bench/analysePhotograph.ts';
import { openAnalysisPool, type AnalysisPool } from '../src/bench/analysisPool.ts';
import { decodePhotograph } from '../src/bench/decodePhotograph.ts';
import {
  done,
  holdEvent,
  openWorld,
  send,
  sendCommand,
  upload,
  type TestEvent,
  type World,
} from './world.ts';

const ROOT = join(import.meta.dirname, '../..');
const birch = findBoard('birch-30in') as MeasuringBoard;

let jpeg: Buffer;
let truth: PhotoTruth;
beforeAll(async () => {
  // A level, dry scene: what is tested here is the way from the file to the answer.
  const { scene } = drawRangedScene(31, { boards: [birch], widthPx: 1400, heightPx: 1050, maxTiltDeg: 8 });
  const photo = renderScene({ ...scene, hand: null, wet: null, blurPx: 0 });
  truth = photo.truth;
  const plain = await sharp(photo.raster.data, { raw: { width: 1400, height: 1050, channels: 4 } })
    .jpeg({ quality: 92 })
    .toBuffer();
  jpeg = Buffer.from(
    writeExif(plain, {
      takenLocal: '2026:06:14 10:00:00',
      offset: '+02:00',
      focal35Mm: truth.focal35Mm,
      device: 'test camera',
      position: null,
      takenUtc: { date: '2026:06:14', hour: 8, minute: 0, second: 0 },
    }),
  );
}, 60_000);

/** Claims a photograph as the bench marks it, the tail's mark shifted by so many px. */
async function claimPhoto(world: World, event: TestEvent, file: Buffer, shiftPx = 0): Promise<string> {
  const [catchId, photographId] = [uuidv7(), uuidv7()];
  await upload(world, event.angler, event.eventId, file, photographId);
  const { analysis } = await analysePhotograph(file, birch);
  const { marks, found } = analysis;
  if (!marks || !found) throw new Error('expected marks');
  await done(
    sendCommand(world, event.angler, 'catch.claim', event.eventId, {
      catchId,
      entrantId: event.entrantId,
      speciesId: 'largemouth-bass',
      captured: { at: '2026-06-14T08:00:00.000Z', source: 'photograph' },
      photographs: [{ photographId, role: 'board' }],
      measurement: {
        kind: 'board',
        measurementId: uuidv7(),
        photographId,
        boardId: 'birch-30in',
        marks: { ...marks, tail: [marks.tail[0] + shiftPx, marks.tail[1]] },
        bench: { lens: found.lens, byHand: [], tipSigmaMm: 0.6 },
      },
      claimedSteps: 60,
      identifierCode: null,
    }),
  );
  return catchId;
}

const cornersOff = (corners: readonly Point[] | undefined): number =>
  Math.max(
    ...truth.corners.map(([x, y], i) =>
      Math.hypot(x - (corners?.[i]?.[0] ?? NaN), y - (corners?.[i]?.[1] ?? NaN)),
    ),
  );

describe('an original', () => {
  it('is read: corners within 0.3 % of the width, the length within its doubt', async () => {
    const { analysis } = await analysePhotograph(jpeg, birch);
    expect(cornersOff(analysis.found?.corners)).toBeLessThan(0.003 * 1400);
    expect(Math.abs((analysis.lengthMm ?? NaN) - (truth.lengthMm ?? 0))).toBeLessThan(2);
    expect(analysis.budget.map(({ cause }) => cause).sort()).toEqual([
      'board-fit',
      'distortion',
      'tail-height',
      'tip-edge',
    ]);
  });

  it('turned in any of the eight ways of EXIF is the same picture', async () => {
    const upright = await decodePhotograph(jpeg);
    for (let orientation = 2; orientation <= 8; orientation++) {
      const decoded = await decodePhotograph(await storedAs(upright.raster.data, orientation));
      expect(decoded.exif.orientation).toBe(orientation);
      expect([decoded.raster.widthPx, decoded.raster.heightPx]).toEqual([1400, 1050]);
      // The files differ by a second compression in another direction alone.
      expect(meanDifference(decoded.raster.data, upright.raster.data), String(orientation)).toBeLessThan(3);
    }
  });

  it('turned by a quarter gives the same reading', async () => {
    const straight = await analysePhotograph(jpeg, birch);
    const upright = await decodePhotograph(jpeg);
    const found = await analysePhotograph(await storedAs(upright.raster.data, 6), birch);
    expect(found.orientation).toBe(6);
    expect([found.widthPx, found.heightPx]).toEqual([1400, 1050]);
    expect(Math.abs((found.analysis.lengthMm ?? NaN) - (straight.analysis.lengthMm ?? NaN))).toBeLessThan(
      0.4,
    );
    expect(found.analysis.findings.map(({ tone }) => tone)).toEqual(
      straight.analysis.findings.map(({ tone }) => tone),
    );
  });

  /** Mean difference of two pictures, levels of 8 bits. */
  function meanDifference(a: Uint8ClampedArray, b: Uint8ClampedArray): number {
    let sum = 0;
    for (let i = 0; i < a.length; i++) sum += Math.abs((a[i] ?? NaN) - (b[i] ?? NaN));
    return sum / a.length;
  }

  /** Writes upright px as a camera held another way would have stored them. */
  async function storedAs(data: Uint8ClampedArray, orientation: number): Promise<Buffer> {
    const turned = orientation >= 5;
    const [width, height] = turned ? [1050, 1400] : [1400, 1050];
    const stored = Buffer.alloc(width * height * 4);
    const from = new Uint32Array(data.buffer, data.byteOffset, 1400 * 1050);
    const to = new Uint32Array(stored.buffer, stored.byteOffset, width * height);
    for (let y = 0; y < 1050; y++) {
      for (let x = 0; x < 1400; x++) {
        const [sx, sy] = toStoredPx([x, y], orientation, width, height);
        to[sy * width + sx] = from[y * 1400 + x] as number;
      }
    }
    return sharp(stored, { raw: { width, height, channels: 4 } })
      .jpeg({ quality: 92 })
      .withExif({
        IFD0: { Orientation: String(orientation) },
        IFD2: { FocalLengthIn35mmFilm: String(truth.focal35Mm) },
      })
      .withMetadata({ orientation })
      .toBuffer();
  }

  it('in grey and in CMYK is read as well', async () => {
    const grey = await sharp(jpeg).greyscale().keepExif().jpeg().toBuffer();
    const inks = await sharp(jpeg).toColourspace('cmyk').keepExif().jpeg().toBuffer();
    expect((await sharp(inks).metadata()).channels).toBe(4);
    for (const file of [grey, inks]) {
      const { analysis } = await analysePhotograph(file, birch);
      expect(cornersOff(analysis.found?.corners)).toBeLessThan(0.003 * 1400);
    }
  });

  it('that breaks off is read as far as it goes, and that is said', async () => {
    const half = jpeg.subarray(0, Math.floor(jpeg.length * 0.8));
    const { isTruncated, widthPx } = await analysePhotograph(half, birch);
    expect(isTruncated).toBe(true);
    expect(widthPx).toBe(1400);
  });

  it('of 40 megapixels is decoded at a whole fraction and ends within its limit', async () => {
    const large = await sharp({ create: { width: 7300, height: 5480, channels: 3, background: '#777' } })
      .jpeg()
      .toBuffer();
    const { raster, widthPx } = await decodePhotograph(large);
    expect(raster.widthPx * raster.heightPx).toBeLessThan(17e6);
    expect(widthPx).toBe(7300);
    const { analysis } = await analysePhotograph(large, birch);
    expect(analysis.trouble).toBe('no-board');
  }, 30_000);

  it('with two boards in it is read on one of them', async () => {
    const two = await sharp({ create: { width: 1400, height: 2100, channels: 3, background: '#555' } })
      .composite([
        { input: jpeg, left: 0, top: 0 },
        { input: jpeg, left: 0, top: 1050 },
      ])
      .jpeg()
      .toBuffer();
    const { analysis } = await analysePhotograph(two, birch);
    expect(['birch-30in', undefined]).toContain(analysis.found?.boardId);
    expect(analysis.trouble === null || analysis.lengthMm === null).toBe(true);
  });
});

describe('the pool of threads', () => {
  const pools: AnalysisPool[] = [];
  afterAll(() => Promise.all(pools.map((pool) => pool.close())));
  const opened = (options: Parameters<typeof openAnalysisPool>[0]): AnalysisPool => {
    const pool = openAnalysisPool(options);
    pools.push(pool);
    return pool;
  };
  const task = (order: string[], name: string) => async () => {
    order.push(name);
    return { bytes: await bare, board: birch, otherBoards: [], limitTiltDeg: null, expected: null };
  };
  // Who comes first does not hang on what is in the picture: nothing, so that it is soon read.
  const bare = sharp({ create: { width: 640, height: 480, channels: 3, background: '#888' } }).jpeg().toBuffer(); // prettier-ignore

  it('takes what somebody waits for before what is made ahead, and each photograph once', async () => {
    const pool = opened({ threads: 1 });
    const order: string[] = [];
    const first = pool.analyse('a', task(order, 'a'), false);
    const ahead = pool.analyse('b', task(order, 'b'), false);
    const waited = pool.analyse('c', task(order, 'c'), true);
    const twice = pool.analyse('c', task(order, 'c again'), true);
    const results = await Promise.all([first, ahead, waited, twice]);
    expect(results.every(({ ok }) => ok)).toBe(true);
    expect(order).toEqual(['a', 'c', 'b']);
    expect(await pool.analyse('c', task(order, 'c remembered'), true)).toBe(results[2]);
    expect(order).toHaveLength(3);
  }, 60_000);

  it('is bounded: somebody who waits pushes out what was only made ahead, and nobody else', async () => {
    const pool = opened({ threads: 1, mostWaiting: 1 });
    const order: string[] = [];
    const running = pool.analyse('a', task(order, 'a'), true);
    const ahead = pool.analyse('b', task(order, 'b'), false);
    const urgent = pool.analyse('c', task(order, 'c'), true);
    expect(await ahead).toEqual({ ok: false, code: 'busy' });
    expect(await pool.analyse('d', task(order, 'd'), true)).toEqual({ ok: false, code: 'busy' });
    expect((await running).ok && (await urgent).ok).toBe(true);
  }, 60_000);

  it('ends a thread that takes too long and goes on with another', async () => {
    const pool = opened({ threads: 1, limitMs: 1 });
    const order: string[] = [];
    expect(await pool.analyse('a', task(order, 'a'), true)).toEqual({ ok: false, code: 'too-long' });
    expect(await pool.analyse('b', task(order, 'b'), true)).toEqual({ ok: false, code: 'too-long' });
    expect(order).toEqual(['a', 'b']);
  }, 60_000);

  it('answers for bytes that are no picture, and for none', async () => {
    const pool = opened({ threads: 1 });
    const rubbish = async () => ({
      bytes: Buffer.from('no picture'),
      board: birch,
      otherBoards: [],
      limitTiltDeg: null,
      expected: null,
    });
    expect(await pool.analyse('a', rubbish, true)).toEqual({ ok: false, code: 'broken' });
    expect(await pool.analyse('b', async () => null, true)).toEqual({ ok: false, code: 'broken' });
    await pool.close();
    expect(await pool.analyse('c', rubbish, true)).toEqual({ ok: false, code: 'closed' });
  }, 60_000);
});

describe('the server’s own reading of a catch', () => {
  let world: World;
  let event: TestEvent;
  beforeAll(async () => {
    world = await openWorld();
    event = await holdEvent(world);
  });
  afterAll(() => world.close());

  const claim = (shiftPx: number): Promise<string> => claimPhoto(world, event, jpeg, shiftPx);

  it('agrees with an honest device, and shows where one says more than the picture', async () => {
    const honest = await claim(0);
    const own = await send(world, event.judge, 'get', `/api/catches/${honest}/bench-reading`);
    const view = own.body as BenchReadingView;
    expect(own.status).toBe(200);
    expect(Math.abs(view.differenceMm ?? NaN)).toBeLessThan(0.1);
    expect(view.isDifferent).toBe(false);

    const stretched = await claim(25);
    const other = await send(world, event.judge, 'get', `/api/catches/${stretched}/bench-reading`);
    expect((other.body as BenchReadingView).isDifferent).toBe(true);
    expect((other.body as BenchReadingView).differenceMm ?? NaN).toBeLessThan(-10);
  }, 60_000);

  it('is for judges and for whose catch it is, not for other anglers or strangers', async () => {
    const catchId = await claim(0);
    const other = await world.person('Another angler');
    for (const [person, status] of [
      [event.judge, 200],
      [event.angler, 200],
      [other, 403],
      [{ accountId: '', cookie: null }, 401],
    ] as const) {
      const answer = await send(world, person, 'get', `/api/catches/${catchId}/bench-reading`);
      expect([answer.status, person.accountId]).toEqual([status, person.accountId]);
    }
    expect((await send(world, event.judge, 'get', `/api/catches/${uuidv7()}/bench-reading`)).status).toBe(
      404,
    );
  }, 60_000);
});

describe('a fish that is claimed again', () => {
  let world: World;
  let event: TestEvent;
  beforeAll(async () => {
    world = await openWorld();
    event = await holdEvent(world);
  });
  afterAll(() => world.close());

  const claim = (file: Buffer): Promise<string> => claimPhoto(world, event, file);

  const readAs = async (person: TestEvent['judge'], catchId: string): Promise<BenchReadingView> =>
    (await send(world, person, 'get', `/api/catches/${catchId}/bench-reading`)).body as BenchReadingView;

  it('is told to the judge with the places that match, and not to the angler', async () => {
    const first = await claim(jpeg);
    const cut = await sharp(jpeg)
      .extract({ left: 10, top: 14, width: 1370, height: 1020 })
      .keepExif()
      .jpeg({ quality: 80 })
      .toBuffer();
    const second = await claim(cut);
    let view = await readAs(event.judge, second);
    // The earlier one is read in the background.
    for (let tries = 0; view.alikeUnread > 0 && tries < 100; tries++) {
      await new Promise((resolve) => setTimeout(resolve, 200));
      view = await readAs(event.judge, second);
    }
    expect(view.alike).toHaveLength(1);
    const [alike] = view.alike;
    expect(alike).toMatchObject({ catchId: first, answer: 'same', isSamePhoto: true });
    expect(alike?.places.length).toBeGreaterThan(5);
    // The cut moved every px by the same way.
    for (const [[x, y], [otherX, otherY]] of alike?.places ?? [])
      expect(Math.hypot(otherX - x - 10, otherY - y - 14)).toBeLessThan(12);
    const own = await readAs(event.angler, second);
    expect([own.alike, own.evidence, own.alikeUnread]).toEqual([[], [], 0]);
    expect(own.analysis.findings.length).toBeGreaterThan(20);
    expect(own.analysis.flank).toBeNull();
  }, 120_000);

  it('is kept once, and found again by a server that has just started', async () => {
    const { read } = world.lauta.storage;
    const kept = await read.flanks.inEvent(event.eventId);
    expect(kept).toHaveLength(2);
    for (const { flank, lengthMm } of kept) {
      expect(flankPattern(flank?.pattern ?? '')).toHaveLength(7680);
      expect(lengthMm).toBeGreaterThan(100);
    }
    const own = kept[1] as StoredFlank;
    const record = (await read.catches.find(own.catchId)) as CatchRecord;
    const { catches, unread } = await new FlankKeeper(world.lauta.storage).alikeTo(record, own, () => {
      throw new Error('nothing is left to read');
    });
    expect([catches.map(({ catchId }) => catchId), unread]).toEqual([[kept[0]?.catchId], 0]);
  });

  it('is not compared with a fish of another kind, nor by a flank that is not free', async () => {
    const { read } = world.lauta.storage;
    const [own] = (await read.flanks.inEvent(event.eventId)) as [StoredFlank];
    const record = (await read.catches.find(own.catchId)) as CatchRecord;
    const keeper = new FlankKeeper(world.lauta.storage);
    const nobody: ReadCatch = () => Promise.resolve(null);
    const other = { ...record, speciesId: 'smallmouth-bass' };
    expect(await keeper.alikeTo(other, own, nobody)).toEqual({ catches: [], unread: 0 });
    expect(await keeper.alikeTo(record, { ...own, flank: null }, nobody)).toEqual({ catches: [], unread: 0 });
  });

  it('waits for earlier photographs that are read later, and not for one that never will be', async () => {
    const { read } = world.lauta.storage;
    const unreadId = await claim(jpeg);
    const [own] = (await read.flanks.inEvent(event.eventId)) as [StoredFlank];
    const record = (await read.catches.find(own.catchId)) as CatchRecord;
    const keeper = new FlankKeeper(world.lauta.storage);
    const asked: string[] = [];
    const answer =
      (what: 'unreadable' | null): ReadCatch =>
      (catchId) => {
        asked.push(catchId);
        return Promise.resolve(what);
      };
    const settle = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 50));
    expect((await keeper.alikeTo(record, own, answer(null))).unread).toBe(1);
    await settle();
    expect((await keeper.alikeTo(record, own, answer('unreadable'))).unread).toBe(1);
    await settle();
    expect((await keeper.alikeTo(record, own, answer('unreadable'))).unread).toBe(0);
    expect(asked).toEqual([unreadId, unreadId]);
  }, 60_000);

  it('and what its file says of itself: stored again, without a position', async () => {
    const catchId = await claim(await sharp(jpeg).jpeg({ quality: 70 }).toBuffer());
    const { evidence } = await readAs(event.judge, catchId);
    const verdictOf = (check: string): string | undefined =>
      evidence.find((one) => one.check === check)?.tone;
    expect(verdictOf('resaved')).toBe('look');
    expect(verdictOf('time-missing')).toBe('look');
    expect(verdictOf('place-missing')).toBe('look');
  }, 60_000);
});

describe('npm run compare-fish', () => {
  const dir = mkdtempSync(join(tmpdir(), 'lauta-compare-fish-'));
  afterAll(() => rmSync(dir, { recursive: true }));
  const board = join(ROOT, 'vision/data/boards/birch-30in.json');
  const run = (...args: string[]): Promise<{ stdout: string; stderr: string }> =>
    promisify(execFile)(
      process.execPath,
      ['--import', 'tsx', join(ROOT, 'server/src/bin/compareFish.ts'), ...args],
      { cwd: ROOT },
    );

  it('tells that a fish is itself, in one object of JSON, and ends with 2 for what is no picture', async () => {
    const [fish, rubbish] = [join(dir, 'fish.jpg'), join(dir, 'rubbish.jpg')];
    writeFileSync(fish, jpeg);
    writeFileSync(rubbish, 'rubbish');
    const { stdout } = await run(fish, fish, '--board-a', board, '--board-b', board);
    const answer = JSON.parse(stdout) as { score: number; verdict: string; why: string };
    expect(answer.verdict).toBe('same');
    expect(answer.score).toBeGreaterThan(0.9);
    expect(answer.why).not.toBe('');
    await expect(run(fish, rubbish, '--board-a', board, '--board-b', board)).rejects.toMatchObject({
      code: 2,
    });
    await expect(run(fish, '--board-a', board)).rejects.toMatchObject({ code: 2 });
  }, 60_000);
});

describe('npm run read-photo', () => {
  const dir = mkdtempSync(join(tmpdir(), 'lauta-read-photo-'));
  afterAll(() => rmSync(dir, { recursive: true }));
  const board = join(ROOT, 'vision/data/boards/birch-30in.json');
  const run = async (...args: string[]): Promise<{ code: number; out: string; err: string }> => {
    try {
      const { stdout, stderr } = await promisify(execFile)(
        process.execPath,
        ['--import', 'tsx', join(ROOT, 'server/src/bin/readPhoto.ts'), ...args],
        { cwd: ROOT },
      );
      return { code: 0, out: stdout, err: stderr };
    } catch (error) {
      const { code, stdout, stderr } = error as { code: number; stdout: string; stderr: string };
      return { code, out: stdout, err: stderr };
    }
  };

  it('prints one line of JSON a photograph, in order, and knows a picture without a board', async () => {
    const [fish, meadow] = [join(dir, 'fish.jpg'), join(dir, 'meadow.jpg')];
    writeFileSync(fish, jpeg);
    writeFileSync(
      meadow,
      await sharp({ create: { width: 900, height: 700, channels: 3, background: '#6a7a58' } })
        .jpeg()
        .toBuffer(),
    );
    const { code, out } = await run(fish, meadow, '--board', board);
    expect(code).toBe(0);
    const [first, second] = out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Record<string, unknown>);
    expect(first).toMatchObject({
      photo: fish,
      board: 'birch-30in',
      identifier: { visible: true, payload: expect.stringMatching(/^lauta:1:K7Q4M:\d+:[0-9A-Z]{4}$/) },
    });
    expect(first?.['lengthMm']).toBeTypeOf('number');
    expect(cornersOff(first?.['corners'] as Point[])).toBeLessThan(0.003 * 1400);
    expect(second).toMatchObject({ photo: meadow, corners: null, lengthMm: null, reason: 'no-board' });
  }, 60_000);

  it('ends with 2 and one line for what is missing, no picture, or a broken profile', async () => {
    const rubbish = join(dir, 'rubbish.jpg');
    writeFileSync(rubbish, 'rubbish');
    const broken = join(dir, 'broken.json');
    writeFileSync(broken, '{"id":"x"}');
    const fish = join(dir, 'again.jpg');
    writeFileSync(fish, jpeg);
    for (const args of [
      [join(dir, 'missing.jpg'), '--board', board],
      [rubbish, '--board', board],
      [fish, '--board', broken],
      [fish],
      [fish, '--board', board, '--corners', '1,2,3'],
    ]) {
      const { code, err } = await run(...args);
      expect([code, args]).toEqual([2, args]);
      expect(err.trim().split('\n')).toHaveLength(1);
    }
  }, 60_000);
});
