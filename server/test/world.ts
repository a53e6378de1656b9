import { FlankKeeper } from '../src/same-fish/flankKeeper.ts';
import { createHash } from 'node:crypto';
import type { Express } from 'express';
import mysql from 'mysql2/promise';
import { pino } from 'pino';
import sharp from 'sharp';
import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import { inject } from 'vitest';
import type { CommandBody, CommandKind, MediaType, Receipt, RecordSpecimen } from '@lauta/contract';
import type { Role } from '@lauta/core/people';
import type { BoardMarks } from '@lauta/vision';
import type { RuleSheet } from '@lauta/core/rules';
import { createApp } from '../src/app/app.ts';
import type { Clock } from '../src/base/clock.ts';
import type { RouteLine } from '../src/http/routeTable.ts';
import type { Lauta } from '../src/context/lauta.ts';
import { note, openInstallation } from '../src/installation/installation.ts';
import { passingSigner } from '../src/keys/headSigner.ts';
import { openLiveHub } from '../src/live/liveHub.ts';
import { beginSignIn, enterAcceptance } from '../src/access/signIn.ts';
import { openPool } from '../src/storage/database.ts';
import { ENDLESS_DISK } from '../src/storage/diskWatch.ts';
import { openAnalysisPool } from '../src/bench/analysisPool.ts';
import { mariadbStorage } from '../src/app/storage.mariadb.ts';

declare module 'vitest' {
  export interface ProvidedContext {
    databaseAddress: string;
  }
}

export const HOST = '127.0.0.1:4310';
export const ORIGIN = `http://${HOST}`;

export interface Person {
  accountId: string;
  /** Null for someone who is not signed in. */
  cookie: string | null;
}

export const NOBODY: Person = { accountId: '', cookie: null };

/** A server of its own on a database of its own, with a clock that the test sets. */
export interface World {
  app: Express;
  routes: readonly RouteLine[];
  lauta: Lauta;
  pool: mysql.Pool;
  setNow(at: string): void;
  person(name: string, options?: { founder?: boolean }): Promise<Person>;
  /** The same person on another device. */
  signInAgain(person: Person): Promise<Person>;
  close(): Promise<void>;
}

export const NOON = '2026-06-14T10:00:00.000Z';

export async function openWorld(
  options: {
    isDemo?: boolean;
    triesPerAddress?: number;
    triesPerAccount?: number;
    writesPerMinute?: number;
  } = {},
): Promise<World> {
  const address = inject('databaseAddress');
  const name = `lauta_${process.pid}_${Math.random().toString(36).slice(2, 10)}`;
  const admin = await mysql.createConnection(address);
  await admin.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  const pool = openPool(address.replace(/\/$/, `/${name}`), { connectionLimit: 8 });
  const storage = mariadbStorage(pool);
  await storage.migrate();
  let now = new Date(NOON);
  const clock: Clock = { offsetMs: 0, frozenAt: null, now: () => new Date(now) };
  const lauta: Lauta = {
    storage,
    clock,
    hub: openLiveHub(),
    bench: openAnalysisPool({ threads: 1 }),
    flanks: new FlankKeeper(storage),
    disk: ENDLESS_DISK,
    signer: passingSigner(),
    secret: 'of this test',
    isDemo: options.isDemo ?? false,
    random: Math.random,
  };
  await openInstallation(lauta);
  const { app, routes } = createApp(lauta, {
    logger: pino({ level: process.env['LAUTA_TEST_LOG'] ?? 'silent' }),
    webDir: null,
    trustProxy: 0,
    hosts: [],
    triesPerAddress: options.triesPerAddress ?? 1000,
    triesPerAccount: options.triesPerAccount ?? 1000,
    ...(options.writesPerMinute ? { writesPerMinute: options.writesPerMinute } : {}),
  });
  return {
    app,
    routes,
    lauta,
    pool,
    setNow: (at) => {
      now = new Date(at);
    },
    async person(personName, { founder = false } = {}) {
      const accountId = uuidv7();
      const email = `${personName.toLowerCase().replaceAll(' ', '-')}-${accountId.slice(-6)}@test.example`;
      await storage.read.people.addAccount(
        { accountId, name: personName, email, passwordHash: null, founder, invitedByEventId: null },
        new Date(NOON),
      );
      if (founder)
        await storage.change((stores) =>
          note(lauta, stores, accountId, clock.now(), { kind: 'account.found', accountId }),
        );
      const { token } = await beginSignIn(storage.read, accountId);
      return { accountId, cookie: `lauta_sign_in=${token}` };
    },
    async signInAgain(person) {
      if (person.cookie === null) return person;
      const { token } = await beginSignIn(storage.read, person.accountId);
      return { ...person, cookie: `lauta_sign_in=${token}` };
    },
    async close() {
      await lauta.bench.close();
      await storage.close();
      await admin.query(`DROP DATABASE ${name}`);
      await admin.end();
    },
  };
}

type Method = 'get' | 'post' | 'put';

/** A request as the browser of `person` would send it. */
export function send(world: World, person: Person, method: Method, path: string): request.Test {
  const test = request(world.app)[method](path).set('Host', HOST);
  if (person.cookie) void test.set('Cookie', person.cookie);
  if (method !== 'get') void test.set('Origin', ORIGIN);
  return test;
}

export function commandOf<K extends CommandKind>(kind: K, eventId: string, body: CommandBody<K>) {
  return { v: 1, commandId: uuidv7(), eventId, madeAt: NOON, deviceId: uuidv7(), kind, body };
}

export function sendCommand<K extends CommandKind>(
  world: World,
  person: Person,
  kind: K,
  eventId: string,
  body: CommandBody<K>,
): request.Test {
  const command = commandOf(kind, eventId, body);
  return send(world, person, 'post', '/api/commands').set('Idempotency-Key', command.commandId).send(command);
}

export async function done(test: request.Test): Promise<Receipt> {
  const response = await test;
  if (response.status !== 200) throw new Error(`${response.status} ${response.text}`);
  return response.body as Receipt;
}

export const SHEET: RuleSheet = {
  schemaVersion: 1,
  title: 'Test sheet',
  measure: { kind: 'length', step: 'quarter-inch', rounding: 'down' },
  bagLimit: 2,
  bagPeriod: 'event',
  species: [
    { id: 'bass', name: 'Bass', minimumSteps: 40, counts: true },
    { id: 'carp', name: 'Carp', minimumSteps: null, counts: false },
  ],
  boards: ['birch-30in'],
  penalties: [
    { infraction: 'mouth-open', penalty: { kind: 'deduction', steps: 1 } },
    { infraction: 'identifier-missing', penalty: { kind: 'disqualification' } },
  ],
  tieBreaks: ['biggest-fish', 'next-biggest', 'earliest-completion'],
};

/** A day from 06:00 to 15:00 in Warsaw, with a director, a judge, and two anglers. */
/** How a fish was treated, from hook-up to the net. */
export const HANDLING = {
  events: [
    { step: 'hooked', atMs: 1_781_000_000_000 },
    { step: 'lifted', atMs: 1_781_000_095_000 },
    { step: 'returned', atMs: 1_781_000_101_000, tappedAtMs: 1_781_000_300_000 },
  ],
  airLimitSeconds: 6,
  guessedMassG: 907,
  waterCelsius: 21.5,
  airCelsius: null,
  hookPlace: 'lip',
  bleeds: false,
  signs: { upright: 'yes', fins: 'doubtful' },
} as const;

export interface TestEvent {
  eventId: string;
  director: Person;
  judge: Person;
  angler: Person;
  rival: Person;
  entrantId: string;
  rivalEntrantId: string;
  /** Its one day. */
  dayId: string;
}

export async function holdEvent(
  world: World,
  change: { isPublic?: boolean; sheet?: Partial<RuleSheet> | null } = {},
): Promise<TestEvent> {
  const director = await world.person('Director', { founder: true });
  const eventId = uuidv7();
  await done(
    sendCommand(world, director, 'event.create', eventId, {
      eventId,
      name: 'Test event',
      zone: 'Europe/Warsaw',
      isPublic: change.isPublic ?? true,
      days: [
        {
          date: '2026-06-14',
          sessions: [{ linesInLocal: '2026-06-14T06:00', linesOutLocal: '2026-06-14T15:00' }],
        },
      ],
    }),
  );
  if (change.sheet !== null) {
    await done(
      sendCommand(world, director, 'rules.publish', eventId, { sheet: { ...SHEET, ...change.sheet } }),
    );
  }
  const judge = await takePart(world, director, eventId, 'Judge', ['judge']);
  const angler = await takePart(world, director, eventId, 'Angler', ['angler']);
  const rival = await takePart(world, director, eventId, 'Rival', ['angler']);
  return {
    eventId,
    director,
    judge,
    angler,
    rival,
    entrantId: await entrantOf(world, angler, eventId),
    rivalEntrantId: await entrantOf(world, rival, eventId),
    dayId: (await world.lauta.storage.read.events.days(eventId))[0]?.dayId ?? '',
  };
}

export async function takePart(
  world: World,
  director: Person,
  eventId: string,
  name: string,
  roles: Role[],
): Promise<Person> {
  const person = await world.person(name);
  const account = await world.lauta.storage.read.people.findAccount(person.accountId);
  await done(
    sendCommand(world, director, 'people.add', eventId, {
      accountId: person.accountId,
      name,
      email: account?.email ?? '',
      roles,
    }),
  );
  // As by the link that the director hands over.
  await world.lauta.storage.change((stores) =>
    enterAcceptance(world.lauta, stores, eventId, person.accountId),
  );
  return person;
}

async function entrantOf(world: World, person: Person, eventId: string): Promise<string> {
  const own = await world.lauta.storage.read.people.entrantsWith(person.accountId);
  return own.find((one) => one.eventId === eventId)?.entrantId ?? '';
}

export interface JpegNotes {
  takenLocal?: string;
  offset?: string;
  focal35Mm?: number;
}

let serial = 0;

/** A small JPEG, each with other bytes than the last. */
export async function jpeg(notes: JpegNotes = {}, widthPx = 800, heightPx = 600): Promise<Buffer> {
  serial += 1;
  const exif: Record<string, string> = {};
  if (notes.takenLocal) exif['DateTimeOriginal'] = notes.takenLocal;
  if (notes.offset) exif['OffsetTimeOriginal'] = notes.offset;
  if (notes.focal35Mm) exif['FocalLengthIn35mmFilm'] = String(notes.focal35Mm);
  return sharp({
    create: {
      width: widthPx,
      height: heightPx,
      channels: 3,
      background: { r: serial % 256, g: (serial >> 8) % 256, b: 90 },
    },
  })
    .withExif({ IFD0: { Make: 'Test', Software: `file ${serial}` }, IFD2: exif })
    .jpeg()
    .toBuffer();
}

export function declare(
  world: World,
  person: Person,
  eventId: string,
  bytes: Uint8Array,
  photographId = uuidv7(),
  mediaType?: MediaType,
): request.Test {
  return send(world, person, 'put', `/api/photographs/${photographId}`).send({
    photographId,
    eventId,
    byteLength: bytes.length,
    sha256: createHash('sha256').update(bytes).digest('hex'),
    ...(mediaType ? { mediaType } : {}),
  });
}

/** Sends a photograph as the page does; the answer is the last one that came. */
export async function upload(
  world: World,
  person: Person,
  eventId: string,
  bytes: Uint8Array,
  photographId = uuidv7(),
  mediaType?: MediaType,
): Promise<request.Response> {
  const declared = await declare(world, person, eventId, bytes, photographId, mediaType);
  if (declared.status !== 200) return declared;
  const { chunkBytes } = declared.body as { chunkBytes: number };
  for (let seq = 0; seq * chunkBytes < bytes.length; seq++) {
    const sent = await send(world, person, 'put', `/api/photographs/${photographId}/chunks/${seq}`)
      .set('Content-Type', 'application/octet-stream')
      .send(Buffer.from(bytes.subarray(seq * chunkBytes, (seq + 1) * chunkBytes)));
    if (sent.status !== 200) return sent;
  }
  return send(world, person, 'post', `/api/photographs/${photographId}/complete`).send({});
}

/** The beginning of a WebM file, and some noise (RFC 8794, 8.1: the header's id). */
export const WEBM = new Uint8Array([0x1a, 0x45, 0xdf, 0xa3, ...Array.from({ length: 2000 }, (_, i) => (i * 37) & 255)]); // prettier-ignore

/** A clip that has come whole; its id. */
export async function uploadClip(world: World, person: Person, eventId: string): Promise<string> {
  const clipId = uuidv7();
  const sent = await upload(world, person, eventId, WEBM, clipId, 'video/webm');
  // Who may not upload has none: the command that names it is refused for that.
  if (sent.status !== 200) throw new Error(sent.text);
  return clipId;
}

/** On 800 px: a face of 600 px for 762 mm, so that a tail at x px reads (x − 100)·1.27 mm. */
export function marks(lengthMm = 400): BoardMarks {
  return {
    corners: [
      [100, 200],
      [700, 200],
      [700, 320],
      [100, 320],
    ],
    nose: [100, 260],
    tail: [100 + lengthMm / 1.27, 260],
  };
}

export interface ClaimWish extends JpegNotes {
  lengthMm?: number;
  claimedSteps?: number;
  speciesId?: string;
  boardId?: string;
  captured?: CommandBody<'catch.claim'>['captured'];
  identifierCode?: string | null;
}

export async function claimBody(
  world: World,
  person: Person,
  eventId: string,
  entrantId: string,
  wish: ClaimWish = {},
): Promise<CommandBody<'catch.claim'>> {
  const photographId = uuidv7();
  const bytes = await jpeg({ takenLocal: '2026:06:14 11:30:00', offset: '+02:00', focal35Mm: 24, ...wish });
  const uploaded = await upload(world, person, eventId, bytes, photographId);
  if (uploaded.status !== 200) throw new Error(uploaded.text);
  return {
    catchId: uuidv7(),
    entrantId,
    speciesId: wish.speciesId ?? 'bass',
    captured: wish.captured ?? { at: '2026-06-14T09:30:00.000Z', source: 'photograph' },
    photographs: [{ photographId, role: 'board' }],
    measurement: {
      kind: 'board',
      measurementId: uuidv7(),
      photographId,
      boardId: wish.boardId ?? 'birch-30in',
      marks: marks(wish.lengthMm),
    },
    claimedSteps: wish.claimedSteps ?? 62,
    identifierCode: wish.identifierCode ?? null,
  };
}

/** One claimed catch of the event's angler. */
export async function claim(world: World, event: TestEvent, wish: ClaimWish = {}): Promise<string> {
  const body = await claimBody(world, event.angler, event.eventId, event.entrantId, wish);
  await done(sendCommand(world, event.angler, 'catch.claim', event.eventId, body));
  return body.catchId;
}

export async function judge(
  world: World,
  event: TestEvent,
  catchId: string,
  decision: CommandBody<'catch.judge'>['decision'],
  replaces: string | null = null,
): Promise<string> {
  const verdictId = uuidv7();
  await done(
    sendCommand(world, event.judge, 'catch.judge', event.eventId, { catchId, verdictId, replaces, decision }),
  );
  return verdictId;
}

/** A carp of 9.07 kg, weighed in a sling on a scale of ten grams that stood at zero before and after. */
export function specimenBody(entrantId: string): RecordSpecimen {
  return {
    specimenId: uuidv7(),
    entrantId,
    weighedAt: '2026-06-14T09:30:00.000Z',
    clockOffsetMs: null,
    weighedHow: 'typed',
    specimen: {
      speciesId: 'other',
      lengthMm: 850,
      weighing: { tare: { kind: 'zeroed' }, grossG: 9070, emptyAfterG: 0, divisionG: 10 },
      care: ['mat-wet', 'sling-wet'],
      wounds: [{ place: 'hook-hole', isDressed: true }],
      photographs: [],
    },
    note: '',
    corrects: null,
  };
}
