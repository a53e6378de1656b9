import { createHash } from 'node:crypto';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Role } from '@lauta/core/people';
import { findBoard, mapQuad, readBoard, type BenchNotes, type BoardMarks, type Point } from '@lauta/vision';
import { stepsReached } from '@lauta/core/rules';
import { wallTimeOf } from '@lauta/core/schedule';
import type { ProblemType, SignedCapture } from '@lauta/contract';
import { rollDice, seedFor, type PhotoTruth } from '@lauta/sim/camera';
import { driftOverMere, type SimulatedFix } from '@lauta/sim/position';
import {
  DEMO_ANGLERS,
  DEMO_EVENT,
  DEMO_OFFICIALS,
  DEMO_SHEET,
  DEMO_WATERS,
  IN_REED_BAY,
  demoId,
  planDemo,
  type DemoCatch,
  type DemoPerson,
} from '@lauta/sim/demo';
import type { Lauta } from '../context/lauta.ts';
import { Refusal } from '../base/refusal.ts';
import { isDatabaseAway } from '../storage/database.ts';
import type { Storage } from '../storage/storage.ts';
import { frozenClock } from '../base/clock.ts';
import { registerKey } from '../custody/registerKey.ts';
import { DEMO_EVENT_ID, ensureDirector, sendAs, takeUp } from './sendAs.ts';
import { loadBoatCup } from './loadBoatCup.ts';
import { loadSpecimen } from './loadSpecimen.ts';
import { uploadAs } from './uploadAs.ts';
import { openDemoDevice, type DemoDevice } from './demoDevices.ts';
import { openDemoCamera, type DemoCamera, type PhotographOrder } from './demoCamera.ts';
import type { AccountId, EntrantId } from '@lauta/core/ids';

export interface Demo {
  clockOffsetMs: number;
}

export interface LoadOptions {
  catches: number;
  cacheDir: string;
  say: (text: string) => void;
  signal: AbortSignal;
}

const BEFORE_SERVING = 12;
/** Between two tries while the database is away. */
const AWAY_MS = 1000;
const SIZE_PX = { widthPx: 1600, heightPx: 1200 };
const send = sendAs(DEMO_EVENT_ID);

/**
 * The demo of this installation: the one that is already in the database, or a new one where the database is empty
 * and a demo is wanted. Its clock was set when it was first loaded and goes on from there.
 */
export async function openDemo(storage: Storage, wanted: boolean): Promise<Demo | null> {
  const { settings, people } = storage.read;
  const known = await settings.get('demo-clock-offset-ms');
  if (known !== null) return { clockOffsetMs: Number(known) };
  if (!wanted || (await people.anyAccount())) return null;
  const clockOffsetMs = Date.parse(DEMO_EVENT.now) - Date.now();
  await settings.set('demo-clock-offset-ms', String(clockOffsetMs));
  return { clockOffsetMs };
}

/**
 * Loads the demo by the commands that people send. What is there already is left, so that a broken load goes on.
 * Returns when the event and the first dozen of catches are there; the rest comes in while the server serves.
 */
export async function loadDemo(lauta: Lauta, options: LoadOptions): Promise<{ finished: Promise<void> }> {
  const from = performance.now();
  const cast = await loadEvent(lauta);
  await loadBoatCup(lauta);
  const own = DEMO_ANGLERS.findIndex(({ email }) => email.startsWith('angler@'));
  const angler = cast.anglers[own];
  if (angler) await loadSpecimen(lauta, angler);
  const catches = planDemo(options.catches);
  const missing = [];
  for (const one of catches) {
    if (!(await lauta.storage.read.catches.find(catchIdOf(one)))) missing.push(one);
  }
  if (missing.length === 0) {
    await decideAll(lauta, cast, catches);
    return { finished: Promise.resolve() };
  }
  options.say(`demo: ${missing.length} catches to photograph`);
  const camera = await openDemoCamera(options.cacheDir);
  options.signal.addEventListener('abort', () => void camera.close());
  const loader = new Loader(lauta, cast, camera, options, missing);
  const timeline = planTimeline(catches);
  const first = timeline.findIndex(
    (_, i) => timeline.slice(0, i + 1).filter((act) => act.kind === 'claim').length === BEFORE_SERVING,
  );
  const split = first === -1 ? timeline.length : first + 1;
  loader.photographAhead(missing);
  await loader.play(timeline.slice(0, split));
  const finished = loader
    .play(timeline.slice(split))
    .then(() => {
      if (options.signal.aborted) return;
      const seconds = ((performance.now() - from) / 1000).toFixed(1);
      options.say(`demo: all ${catches.length} catches are in, after ${seconds} s`);
    })
    .catch((error: unknown) => {
      if (!options.signal.aborted) throw error;
    })
    .finally(() => camera.close());
  return { finished };
}

const catchIdOf = (one: DemoCatch): string => demoId(`catch ${one.index}`, one.capturedAtMs);
const verdictIdOf = (one: DemoCatch): string => demoId(`verdict ${one.index}`, one.decision?.atMs ?? 0);

interface Act {
  kind: 'claim' | 'decide';
  atMs: number;
  caught: DemoCatch;
}

function planTimeline(catches: readonly DemoCatch[]): Act[] {
  const acts = catches.flatMap((caught): Act[] => [
    { kind: 'claim', atMs: caught.receivedAtMs, caught },
    ...(caught.decision ? [{ kind: 'decide' as const, atMs: caught.decision.atMs, caught }] : []),
  ]);
  return acts.sort((a, b) => a.atMs - b.atMs);
}

/** Waits for a database that is away, as a sender would. Every act may be done again: its ids stay the same. */
async function patiently(signal: AbortSignal, act: () => Promise<void>): Promise<void> {
  while (!signal.aborted) {
    try {
      await act();
      return;
    } catch (error) {
      if (!isDatabaseAway(error)) throw error;
      await sleep(AWAY_MS);
    }
  }
}

interface Cast {
  judgeId: AccountId;
  anglers: {
    device: DemoDevice;
    /** Catches of which it has told what it signed. */
    told: Set<string>;
    accountId: AccountId;
    entrantId: EntrantId;
    number: number;
    codes: Map<string, string>;
  }[];
  dayIds: Map<string, string>;
  eventCode: string;
}

async function loadEvent(lauta: Lauta): Promise<Cast> {
  const stores = lauta.storage.read;
  const preparedMs = Date.parse(DEMO_EVENT.preparedAt);
  const director = await ensureDirector(lauta, preparedMs);
  const { name, zone, days } = DEMO_EVENT;
  const plan = days.map(({ date, sessions }) => ({ date, sessions: sessions.map((one) => ({ ...one })) }));
  await send(lauta, director, 'event', preparedMs, 'event.create', {
    eventId: DEMO_EVENT_ID,
    name,
    zone,
    isPublic: true,
    days: plan,
  });
  await send(lauta, director, 'rules', preparedMs + 60_000, 'rules.publish', { sheet: DEMO_SHEET });
  await send(lauta, director, 'waters', preparedMs + 90_000, 'waters.publish', { waters: DEMO_WATERS });
  const add = async (person: DemoPerson, role: Role, i: number): Promise<string> => {
    const atMs = preparedMs + 120_000 + i * 1000;
    const accountId = demoId(`account ${person.email}`, preparedMs);
    await send(lauta, director, `person ${person.email} ${role}`, atMs, 'people.add', {
      accountId,
      name: person.name,
      email: person.email,
      roles: [role],
    });
    await takeUp(lauta, DEMO_EVENT_ID, accountId, atMs);
    return accountId;
  };
  const judgeId = await add(DEMO_OFFICIALS.judge, 'judge', 0);
  await add(DEMO_OFFICIALS['weigh-master'], 'weigh-master', 1);
  const accountIds: AccountId[] = [];
  for (const [i, angler] of DEMO_ANGLERS.entries()) accountIds.push(await add(angler, 'angler', 2 + i));
  const entrants = await stores.people.entrantsOf(DEMO_EVENT_ID);
  const anglers = [];
  for (const accountId of accountIds) {
    const own = (await stores.people.entrantsWith(accountId)).find((one) => one.eventId === DEMO_EVENT_ID);
    const entrant = entrants.find((one) => one.entrantId === own?.entrantId);
    if (!entrant) throw new Error(`demo account ${accountId}: expected an entrant`);
    const identifiers = await stores.events.identifiersOf(entrant.entrantId);
    anglers.push({
      ...(await openDevice(lauta, accountId, entrant.entrantId, preparedMs)),
      accountId,
      entrantId: entrant.entrantId,
      number: entrant.number,
      codes: new Map(identifiers.map((one) => [one.dayId, one.code])),
    });
  }
  const event = await stores.events.find(DEMO_EVENT_ID);
  const dayIds = new Map((await stores.events.days(DEMO_EVENT_ID)).map((day) => [day.date, day.dayId]));
  return { judgeId, anglers, dayIds, eventCode: event?.eventCode ?? '' };
}

/** An angler's phone, registered, with its chain where it stands. */
async function openDevice(
  lauta: Lauta,
  accountId: AccountId,
  entrantId: EntrantId,
  startedMs: number,
): Promise<{ device: DemoDevice; told: Set<string> }> {
  const stores = lauta.storage.read;
  const captures = await stores.custody.capturesOf(entrantId);
  const chain = captures
    .map(({ statement, hash }) => ({ seq: statement.seq, hash }))
    .sort((a, b) => b.seq - a.seq);
  const device = openDemoDevice(
    accountId,
    { eventId: DEMO_EVENT_ID, entrantId, startedMs },
    chain[0] ?? null,
  );
  const { keyId, publicKey } = device;
  if (!(await stores.custody.findKey(keyId))) {
    const deviceId = demoId(`device ${accountId}`, startedMs);
    const then = { ...lauta, clock: frozenClock(new Date(startedMs + 300_000)) };
    const key = { keyId, accountId, deviceId, publicKey, pairingId: null };
    await lauta.storage.change((changed) => registerKey(then, changed, key));
  }
  return { device, told: new Set(captures.map(({ catchId }) => catchId)) };
}

/** Verdicts that a broken load left out. */
async function decideAll(lauta: Lauta, cast: Cast, catches: readonly DemoCatch[]): Promise<void> {
  for (const one of catches) {
    if (!one.decision) continue;
    const former = await lauta.storage.read.catches.verdictsOf(catchIdOf(one));
    if (former.length === 0) await decide(lauta, cast, one);
  }
}

async function decide(lauta: Lauta, cast: Cast, caught: DemoCatch): Promise<void> {
  if (!caught.decision) return;
  const catchId = catchIdOf(caught);
  const record = await lauta.storage.read.catches.find(catchId);
  const measurement = record && (await lauta.storage.read.catches.measurement(record.measurementId));
  if (!measurement) throw new Error(`demo catch ${caught.index}: expected a claim before its verdict`);
  const { atMs, ...planned } = caught.decision;
  const sent = send(lauta, cast.judgeId, `verdict ${caught.index}`, atMs, 'catch.judge', {
    catchId,
    verdictId: verdictIdOf(caught),
    replaces: null,
    decision:
      planned.kind === 'accepted'
        ? { ...planned, steps: stepsReached(DEMO_SHEET.measure, measurement.reading.apparentMm) }
        : planned,
  });
  await sent.catch((error: unknown) => {
    // A visitor was first: while the demo comes in people judge and withdraw already, and what they did stays.
    if (!(error instanceof Refusal && VISITED.has(error.type))) throw error;
  });
}

const VISITED: ReadonlySet<ProblemType> = new Set(['verdict-moved-on', 'catch-withdrawn']);

const sha256Of = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** Where the boat of a catch's angler was; in the closed bay where the scenario says so. */
function fixOf({ angler, capturedAtMs, custody }: DemoCatch): SimulatedFix {
  return custody === 'closed-area'
    ? { ...IN_REED_BAY, accuracyM: 7 }
    : driftOverMere(`demo ${angler}`, capturedAtMs);
}

class Loader {
  private readonly files = new Map<number, Promise<{ jpeg: Uint8Array; truth: PhotoTruth }>>();
  private taken = 0;
  private readonly lauta: Lauta;
  private readonly cast: Cast;
  private readonly camera: DemoCamera;
  private readonly options: LoadOptions;
  /** Those that are still to come in. */
  private readonly catches: readonly DemoCatch[];

  constructor(
    lauta: Lauta,
    cast: Cast,
    camera: DemoCamera,
    options: LoadOptions,
    catches: readonly DemoCatch[],
  ) {
    this.lauta = lauta;
    this.catches = catches;
    this.cast = cast;
    this.camera = camera;
    this.options = options;
  }

  /** Orders every photograph at once; the camera's threads take them in order. */
  photographAhead(catches: readonly DemoCatch[]): void {
    const inOrder = catches.toSorted((a, b) => a.receivedAtMs - b.receivedAtMs);
    for (const caught of inOrder) {
      const file = this.camera.take(this.orderFor(caught));
      // Whoever awaits it hears of a failure; nobody may, after an abort.
      file.catch(() => undefined);
      this.files.set(caught.index, file);
    }
  }

  async play(timeline: readonly Act[]): Promise<void> {
    for (const { kind, caught } of timeline) {
      await patiently(this.options.signal, () =>
        kind === 'decide' ? decide(this.lauta, this.cast, caught) : this.claim(caught),
      );
    }
  }

  private codeOf(caught: DemoCatch): string {
    const { dayIds, anglers } = this.cast;
    const date = new Date(caught.capturedAtMs).toISOString().slice(0, 10);
    return anglers[caught.angler]?.codes.get(dayIds.get(date) ?? '') ?? '';
  }

  private orderFor(caught: DemoCatch): PhotographOrder {
    const { local, offset } = wallTimeOf(caught.capturedAtMs, DEMO_EVENT.zone);
    const utc = new Date(caught.capturedAtMs);
    const { latitude, longitude } = fixOf(caught);
    return {
      seed: caught.seed,
      boardId: caught.boardId,
      look: caught.speciesId,
      lengthMm: caught.lengthMm,
      identifier: {
        eventCode: this.cast.eventCode,
        entrantNumber: this.cast.anglers[caught.angler]?.number ?? 0,
        code: this.codeOf(caught),
      },
      ...(caught.fault ? { fault: caught.fault } : {}),
      ...(caught.fishOf === null ? {} : { fishOf: caught.fishOf }),
      ...SIZE_PX,
      notes: {
        takenLocal: local.replaceAll('-', ':').replace('T', ' '),
        offset,
        device: 'simulated camera',
        position: { latitude, longitude },
        takenUtc: {
          date: utc.toISOString().slice(0, 10).replaceAll('-', ':'),
          hour: utc.getUTCHours(),
          minute: utc.getUTCMinutes(),
          second: utc.getUTCSeconds(),
        },
      },
    };
  }

  private async claim(caught: DemoCatch): Promise<void> {
    const file = this.files.get(caught.index);
    const angler = this.cast.anglers[caught.angler];
    // No order: it was claimed in an earlier run.
    if (!file || !angler) return;
    const { jpeg, truth } = await file;
    const photographId = demoId(`photograph ${caught.index}`, caught.capturedAtMs);
    await this.tellCaptures(caught);
    await uploadAs(this.lauta, angler.accountId, photographId, jpeg, caught.receivedAtMs);
    const { marks, bench } = marksOf(truth, caught);
    await send(this.lauta, angler.accountId, `claim ${caught.index}`, caught.receivedAtMs, 'catch.claim', {
      catchId: catchIdOf(caught),
      entrantId: angler.entrantId,
      speciesId: caught.speciesId,
      captured: { at: new Date(caught.capturedAtMs).toISOString(), source: 'photograph' },
      photographs: [{ photographId, role: 'board' }],
      measurement: {
        kind: 'board',
        measurementId: demoId(`measurement ${caught.index}`, caught.capturedAtMs),
        photographId,
        boardId: caught.boardId,
        marks,
        ...(bench ? { bench: { ...bench, byHand: [...bench.byHand] } } : {}),
      },
      claimedSteps: readSteps(caught, marks, bench, truth) + caught.overclaimSteps,
      identifierCode: this.codeOf(caught),
    });
    this.taken += 1;
    if (this.taken % 10 === 0) this.options.say(`demo: ${this.taken} catches in`);
  }

  /** Signs what the angler's phone had taken by then, in the order in which it was taken, and tells it. */
  private async tellCaptures(upTo: DemoCatch): Promise<void> {
    const angler = this.cast.anglers[upTo.angler];
    if (!angler) return;
    const captures: SignedCapture[] = [];
    for (const caught of this.unsigned(upTo, angler.told)) {
      const file = await this.files.get(caught.index);
      if (!file) continue;
      angler.told.add(catchIdOf(caught));
      captures.push(...this.signedOf(caught, angler.device, file.jpeg));
    }
    if (captures.length === 0) return;
    const { entrantId } = angler;
    await send(this.lauta, angler.accountId, `captures ${upTo.index}`, upTo.receivedAtMs, 'captures.tell', {
      entrantId,
      captures,
    });
  }

  private unsigned({ angler, capturedAtMs }: DemoCatch, told: ReadonlySet<string>): DemoCatch[] {
    return this.catches
      .filter((one) => one.angler === angler && one.capturedAtMs <= capturedAtMs && !told.has(catchIdOf(one)))
      .toSorted((a, b) => a.capturedAtMs - b.capturedAtMs);
  }

  private signedOf(caught: DemoCatch, device: DemoDevice, jpeg: Uint8Array): SignedCapture[] {
    const setBackMs = caught.custody === 'clock-set-back' ? 26 * 60_000 : 0;
    const fix = fixOf(caught);
    const at = new Date(caught.capturedAtMs - setBackMs).toISOString();
    const take = (name: string, photographSha256: string): SignedCapture =>
      device.capture({
        captureId: demoId(`${name} ${caught.index}`, caught.capturedAtMs),
        catchId: catchIdOf(caught),
        kind: caught.custody === 'chosen-file' ? 'file' : 'frame',
        photographSha256,
        at,
        monotonicMs: caught.capturedAtMs - Date.parse(DEMO_EVENT.preparedAt),
        position: { ...fix, at },
        identifierCode: this.codeOf(caught),
      });
    // Whoever leaves a capture out tells nothing of it: the next one names it all the same.
    if (caught.custody === 'left-out') take('left out', sha256Of(Buffer.from(`left out ${caught.index}`)));
    return [take('capture', sha256Of(jpeg))];
  }
}

/** Marks as an angler's thumb would set them: near the truth. */
/** Three of four anglers leave the marks as the bench set them, the others set all by hand. */
function marksOf(truth: PhotoTruth, caught: DemoCatch): { marks: BoardMarks; bench: BenchNotes | null } {
  const dice = rollDice(seedFor(caught.seed, 'made'));
  if (dice.chance(0.25)) return { marks: marksByHand(truth, caught), bench: null };
  const tail = truth.tailPx ?? [0, 0];
  return {
    marks: {
      corners: truth.corners,
      nose: truth.nosePx ?? [0, 0],
      tail: [tail[0] + 0.6 * dice.normal(), tail[1] + 0.6 * dice.normal()],
    },
    bench: { lens: { focalPx: truth.focalPx, k1: truth.k1 }, byHand: [], tipSigmaMm: 0.6 },
  };
}

function marksByHand(truth: PhotoTruth, caught: DemoCatch): BoardMarks {
  const dice = rollDice(seedFor(caught.seed, 'marks'));
  const near = ([x, y]: readonly [number, number]): Point => [
    Math.round((x + caught.markSigmaPx * dice.normal()) * 10) / 10,
    Math.round((y + caught.markSigmaPx * dice.normal()) * 10) / 10,
  ];
  return {
    corners: mapQuad(truth.corners, near),
    nose: near(truth.nosePx ?? [0, 0]),
    tail: near(truth.tailPx ?? [0, 0]),
  };
}

function readSteps(
  caught: DemoCatch,
  marks: BoardMarks,
  bench: BenchNotes | null,
  truth: PhotoTruth,
): number {
  const board = findBoard(caught.boardId);
  const reading = board && readBoard(board, marks, { ...SIZE_PX, focal35Mm: truth.focal35Mm, bench });
  if (!reading?.ok) throw new Error(`demo catch ${caught.index}: expected marks that can be read`);
  return stepsReached(DEMO_SHEET.measure, reading.value.apparentMm);
}
