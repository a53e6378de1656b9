import { FlankKeeper } from '../src/same-fish/flankKeeper.ts';
import { openAnalysisPool } from '../src/bench/analysisPool.ts';
import { createHash } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import { lookLive } from '@lauta/vision/live';
import { findBoard, readBoard, type BoardMarks } from '@lauta/vision';
import type { RuleSheet } from '@lauta/core/rules';
import { rankEntrants, type ScoringCatch } from '@lauta/core/scoring';
import { drawScene, renderScene } from '@lauta/sim/camera';
import { createApp } from '../src/app/app.ts';
import { realClock } from '../src/base/clock.ts';
import { applyCommand } from '../src/dispatch/applyCommand.ts';
import { secureRandom, type Lauta } from '../src/context/lauta.ts';
import { installationSecret, openInstallation } from '../src/installation/installation.ts';
import { passingSigner } from '../src/keys/headSigner.ts';
import { ENDLESS_DISK } from '../src/storage/diskWatch.ts';
import { openLiveHub } from '../src/live/liveHub.ts';
import { beginSignIn } from '../src/access/signIn.ts';
import { openPool } from '../src/storage/database.ts';
import { mariadbStorage } from '../src/app/storage.mariadb.ts';

const ROUNDS = 5;

const SHEET: RuleSheet = {
  schemaVersion: 1,
  title: 'Bench',
  measure: { kind: 'length', step: 'quarter-inch', rounding: 'down' },
  bagLimit: 5,
  bagPeriod: 'event',
  species: [{ id: 'bass', name: 'Bass', minimumSteps: 40, counts: true }],
  boards: ['birch-30in'],
  penalties: [],
  tieBreaks: ['biggest-fish', 'next-biggest', 'earliest-completion'],
};

const MARKS: BoardMarks = {
  corners: [[150, 400], [1450, 420], [1440, 690], [160, 670]],
  nose: [155, 540],
  tail: [840, 548],
}; // prettier-ignore

/** Median over some rounds of what one round measured. */
async function median(measure: () => Promise<number> | number): Promise<number> {
  const values: number[] = [];
  for (let i = 0; i < ROUNDS; i++) values.push(await measure());
  return values.sort((a, b) => a - b)[Math.floor(ROUNDS / 2)] ?? 0;
}

function readingsPerSecond(): number {
  const board = findBoard('birch-30in');
  if (!board) throw new Error('birch-30in: expected a shipped board');
  const count = 500;
  const from = performance.now();
  for (let i = 0; i < count; i++) {
    readBoard(
      board,
      { ...MARKS, tail: [840 + i / count, 548] },
      { widthPx: 1600, heightPx: 1200, focal35Mm: 24 },
    );
  }
  return (1000 * count) / (performance.now() - from);
}

const LIVE_FRAMES = 8;
/** How far the hand moves from frame to frame, px. */
const HAND_PX = 3;

/** A frame of the live view is looked at, its board followed from the frame before, on one core; ms each. */
function liveLookMs(): number {
  const board = findBoard('birch-30in');
  if (!board) throw new Error('birch-30in: expected a shipped board');
  const identifier = { eventCode: 'K7Q4', entrantNumber: 7, code: 'T4KX' };
  const scene = drawScene(11, {
    board,
    look: 'largemouth-bass',
    lengthMm: 402,
    identifier,
    widthPx: 960,
    heightPx: 720,
  });
  const { raster } = renderScene(scene);
  const options = { focal35Mm: scene.camera.focal35Mm, otherBoards: [], limitTiltDeg: 20 };
  let track = lookLive(raster, board, null, options).track;
  const from = performance.now();
  for (let i = 0; i < LIVE_FRAMES; i++) {
    const data = new Uint8ClampedArray(raster.data);
    data.copyWithin(4 * HAND_PX * (i % 3), 0);
    track = lookLive({ ...raster, data }, board, track, options).track;
  }
  return (performance.now() - from) / LIVE_FRAMES;
}

function standingsMs(entrants: number, fishEach: number): number {
  const ids = Array.from({ length: entrants }, (_, i) => `entrant-${i}`);
  let state = 1;
  const next = (): number => (state = (state * 48_271) % 2_147_483_647);
  const catches: ScoringCatch[] = ids.flatMap((entrantId, e) =>
    Array.from({ length: fishEach }, (_, f) => ({
      catchId: `catch-${e}-${f}`,
      entrantId,
      speciesId: 'bass',
      ruleVersion: 1,
      dayId: 'day',
      claimedSteps: 40 + (next() % 40),
      capturedAtMs: next() % 30_000_000,
      inSession: true,
      withdrawn: false,
      decision: null,
    })),
  );
  const from = performance.now();
  rankEntrants({ current: SHEET, versions: new Map([[1, SHEET]]) }, ids, catches, { include: 'all' });
  return performance.now() - from;
}

interface Bench {
  lauta: Lauta;
  base: string;
  cookie: string;
  eventId: string;
  entrantId: string;
  jpeg: Buffer;
}

async function openBench(): Promise<Bench & { close: () => Promise<void> }> {
  const storage = mariadbStorage(openPool(process.env['LAUTA_DB'] ?? ''));
  await storage.migrate();
  const lauta: Lauta = {
    storage,
    clock: realClock(),
    hub: openLiveHub(),
    bench: openAnalysisPool(),
    flanks: new FlankKeeper(storage),
    disk: ENDLESS_DISK,
    signer: passingSigner(),
    secret: await installationSecret(storage),
    isDemo: false,
    random: secureRandom,
  };
  await openInstallation(lauta);
  const { app } = createApp(lauta, {
    logger: pino({ level: 'silent' }),
    webDir: null,
    trustProxy: 0,
    hosts: [],
    triesPerAccount: 10,
    triesPerAddress: 10,
  });
  const server = app.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const accountId = uuidv7();
  const email = 'bench@lauta.example';
  await storage.read.people.addAccount(
    { accountId, name: 'Bench', email, passwordHash: null, founder: true, invitedByEventId: null },
    new Date(),
  );
  const eventId = uuidv7();
  const send = (kind: string, body: unknown) => {
    const commandId = uuidv7();
    const envelope = { v: 1, commandId, eventId, madeAt: new Date().toISOString(), deviceId: uuidv7() };
    return applyCommand(lauta, accountId, commandId, { ...envelope, kind, body } as never);
  };
  const date = new Date().toISOString().slice(0, 10);
  const sessions = [{ linesInLocal: `${date}T00:00`, linesOutLocal: `${date}T23:59` }];
  await send('event.create', {
    eventId,
    name: 'Bench',
    zone: 'UTC',
    isPublic: true,
    days: [{ date, sessions }],
  });
  await send('rules.publish', { sheet: SHEET });
  const added = await send('people.add', { accountId, name: 'Bench', email, roles: ['angler'] });
  const { token } = await beginSignIn(storage.read, accountId);
  return {
    lauta,
    base: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    cookie: `lauta_sign_in=${token}`,
    eventId,
    entrantId: String(added.result['entrantId']),
    jpeg: await sharp({ create: { width: 800, height: 600, channels: 3, background: '#776' } })
      .jpeg()
      .toBuffer(),
    close: async () => {
      server.closeAllConnections();
      server.close();
      await storage.close();
    },
  };
}

async function call(bench: Bench, method: string, path: string, body: unknown, headers = {}): Promise<void> {
  const isBytes = body instanceof Uint8Array;
  const response = await fetch(bench.base + path, {
    method,
    headers: {
      cookie: bench.cookie,
      origin: bench.base,
      'content-type': isBytes ? 'application/octet-stream' : 'application/json',
      ...headers,
    },
    body: isBytes ? new Uint8Array(body) : JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
}

async function uploadOne(bench: Bench): Promise<string> {
  const photographId = uuidv7();
  const sha256 = createHash('sha256').update(bench.jpeg).digest('hex');
  const path = `/api/photographs/${photographId}`;
  await call(bench, 'PUT', path, {
    photographId,
    eventId: bench.eventId,
    byteLength: bench.jpeg.length,
    sha256,
  });
  await call(bench, 'PUT', `${path}/chunks/0`, bench.jpeg);
  await call(bench, 'POST', `${path}/complete`, {});
  return photographId;
}

/** Claims a photograph that is there; again with the same key where its answer is said to be lost. */
async function claimOne(bench: Bench, photographId: string, times = 1): Promise<void> {
  const marks = { corners: [[100, 200], [700, 200], [700, 320], [100, 320]], nose: [100, 260], tail: [410, 260] }; // prettier-ignore
  const commandId = uuidv7();
  const command = {
    v: 1,
    commandId,
    eventId: bench.eventId,
    madeAt: new Date().toISOString(),
    deviceId: uuidv7(),
    kind: 'catch.claim',
    body: {
      catchId: uuidv7(),
      entrantId: bench.entrantId,
      speciesId: 'bass',
      captured: { at: new Date().toISOString(), source: 'device' },
      photographs: [{ photographId, role: 'board' }],
      measurement: { kind: 'board', measurementId: uuidv7(), photographId, boardId: 'birch-30in', marks },
      claimedSteps: 60,
      identifierCode: null,
    },
  };
  for (let i = 0; i < times; i++)
    await call(bench, 'POST', '/api/commands', command, { 'idempotency-key': commandId });
}

/** Claims of photographs that are there already, four at a time over HTTP on loopback. */
async function claimsPerSecond(bench: Bench, photographIds: readonly string[]): Promise<number> {
  const queue = [...photographIds];
  const from = performance.now();
  const one = async (): Promise<void> => {
    for (let photographId = queue.pop(); photographId; photographId = queue.pop())
      await claimOne(bench, photographId);
  };
  await Promise.all([one(), one(), one(), one()]);
  return (1000 * photographIds.length) / (performance.now() - from);
}

const DEVICES = 200;
const CATCHES_EACH = 5;
const LOOK_MS = 250;

/**
 * A fleet that comes back into the network at once: each device sends its catches one after the other, every claim
 * twice, as after a lost answer; somebody looks at the standings meanwhile. One account stands for all devices.
 */
async function fleetReturns(bench: Bench, say: (text: string) => void): Promise<void> {
  const { catches } = bench.lauta.storage.read;
  const before = await catches.countIn(bench.eventId);
  const looks: number[] = [];
  let isOver = false;
  const spectator = async (): Promise<void> => {
    while (!isOver) {
      const from = performance.now();
      const response = await fetch(`${bench.base}/api/events/${bench.eventId}/standings`);
      await response.arrayBuffer();
      looks.push(performance.now() - from);
      await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
    }
  };
  const device = async (): Promise<void> => {
    for (let i = 0; i < CATCHES_EACH; i++) await claimOne(bench, await uploadOne(bench), 2);
  };
  const from = performance.now();
  const watching = spectator();
  await Promise.all(Array.from({ length: DEVICES }, device));
  const seconds = (performance.now() - from) / 1000;
  isOver = true;
  await watching;
  const arrived = (await catches.countIn(bench.eventId)) - before;
  const sorted = looks.sort((a, b) => a - b);
  say(
    `${DEVICES} devices with ${CATCHES_EACH} catches each at once, every claim sent twice: ${arrived} of ${DEVICES * CATCHES_EACH} catches there after ${seconds.toFixed(0)} s; standings meanwhile in ${sorted[sorted.length >> 1]?.toFixed(0)} ms, at worst ${sorted.at(-1)?.toFixed(0)} ms (${sorted.length} looks)`,
  );
}

async function main(): Promise<void> {
  const say = (text: string): void => void process.stdout.write(`${text}\n`);
  say(`medians of ${ROUNDS} rounds, Node ${process.version}`);
  say(`readings with their error budget: ${(await median(readingsPerSecond)).toFixed(0)} a second`);
  say(
    `standings of 1,000 entrants with 30 catches each: ${(await median(() => standingsMs(1000, 30))).toFixed(0)} ms`,
  );
  say(`  of 100 entrants with 30 each: ${(await median(() => standingsMs(100, 30))).toFixed(1)} ms`);
  say(`live frames of 960 px, the board followed: ${(await median(liveLookMs)).toFixed(0)} ms each`);
  const bench = await openBench();
  const from = performance.now();
  const photographs: string[] = [];
  for (let i = 0; i < 40 * ROUNDS; i++) photographs.push(await uploadOne(bench));
  say(`photographs of ${(bench.jpeg.length / 1000).toFixed(0)} kB taken, checked and copied, one after the other: ${((1000 * photographs.length) / (performance.now() - from)).toFixed(0)} a second`); // prettier-ignore
  say(`claims over HTTP on loopback, four at a time, durable: ${(await median(() => claimsPerSecond(bench, photographs.splice(0, 40)))).toFixed(0)} a second`); // prettier-ignore
  await fleetReturns(bench, say);
  await bench.close();
}

await main();
