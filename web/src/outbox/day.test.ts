import { seededDice } from '@lauta/core/dice';
import 'fake-indexeddb/auto';
import { createHash } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import { commandSchema, type Receipt } from '@lauta/contract';
import { sendJson } from '../door/ask.ts';
import { uploadPhotograph } from '../door/uploadPhotograph.ts';
import { openOutboxStore, type OutboxFile } from './outboxStore.ts';
import { sendNext, type Outcome } from './sender.ts';

const EVENT = '0190c1d2-0000-7000-8000-000000000002';
const CATCHES = 30;
const PHOTO_BYTES = 200_000;
const CHUNK_BYTES = 64 * 1024;
/** Of a hundred requests so many are lost before they arrive, so many answers on their way back, and so many chunks are cut. */
const LOST = 0.2;
const UNANSWERED = 0.1;
const CUT = 0.15;

const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** A server in miniature that keeps the contract of photographs and commands, behind a connection that drops. */
function lake(chance: () => number) {
  const photographs = new Map<string, { sha256: string; byteLength: number; chunks: Map<number, Uint8Array>; isWhole: boolean }>(); // prettier-ignore
  const receipts = new Map<string, { body: string; receipt: Receipt }>();
  const done: { catchId: string; madeAt: string }[] = [];
  let [requests, lost, cut] = [0, 0, 0];
  const answer = (body: unknown, status = 200): Response =>
    new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
  const refuse = (type: string): Response => answer({ type, title: type, status: 422 }, 422);

  const handle = async (path: string, init: RequestInit): Promise<Response> => {
    const [, , , photographId = '', what, seq] = path.split('/');
    if (path === '/api/commands') {
      const body = String(init.body);
      const key = new Headers(init.headers).get('idempotency-key') ?? '';
      const known = receipts.get(key);
      if (known) return known.body === body ? answer(known.receipt) : refuse('idempotency-key-reused');
      const command = commandSchema.parse(JSON.parse(body));
      if (command.kind !== 'catch.claim') return refuse('invalid-request');
      if (!command.body.photographs.every((one) => photographs.get(one.photographId)?.isWhole))
        return refuse('photograph-missing');
      done.push({ catchId: command.body.catchId, madeAt: command.madeAt });
      const receipt: Receipt = { commandId: key, kind: command.kind, eventId: EVENT, seq: done.length, receivedAt: '', result: {} }; // prettier-ignore
      receipts.set(key, { body, receipt });
      return answer(receipt);
    }
    const known = photographs.get(photographId);
    const state = () => {
      const { chunks, isWhole } = photographs.get(photographId) ?? { chunks: new Map<number, Uint8Array>(), isWhole: false }; // prettier-ignore
      return answer({ photographId, state: isWhole ? 'complete' : 'receiving', chunkBytes: CHUNK_BYTES, received: [...chunks.keys()] }); // prettier-ignore
    };
    if (what === undefined) {
      const { sha256, byteLength } = JSON.parse(String(init.body)) as { sha256: string; byteLength: number };
      if (!known) photographs.set(photographId, { sha256, byteLength, chunks: new Map(), isWhole: false });
      return state();
    }
    if (!known) return refuse('photograph-missing');
    if (what === 'complete') {
      const whole = Buffer.concat([...known.chunks].sort(([a], [b]) => a - b).map(([, bytes]) => bytes));
      if (sha256(whole) !== known.sha256) return refuse('checksum-mismatch');
      known.isWhole = true;
      return state();
    }
    let bytes = new Uint8Array(await (init.body as Blob).arrayBuffer());
    if (chance() < CUT) {
      cut++;
      bytes = bytes.subarray(0, bytes.length >> 1);
    }
    const digest = new Headers(init.headers).get('content-digest');
    if (digest !== `sha-256=:${createHash('sha256').update(bytes).digest('base64')}:`) return refuse('checksum-mismatch'); // prettier-ignore
    known.chunks.set(Number(seq), bytes);
    return answer({ ok: true });
  };
  const connection = async (path: string, init: RequestInit = {}): Promise<Response> => {
    requests++;
    const fate = chance();
    if (fate < LOST + UNANSWERED) lost++;
    if (fate < LOST) throw new TypeError('failed to fetch');
    const response = await handle(path, init);
    if (fate < LOST + UNANSWERED) throw new TypeError('failed to fetch');
    return response;
  };
  return { connection, photographs, done, counts: () => ({ requests, lost, cut }) };
}

// Waits between tries are over at once: what they are is tested elsewhere.
beforeEach(() => vi.stubGlobal('setTimeout', (act: () => void) => setImmediate(act)));
afterEach(() => vi.unstubAllGlobals());

describe('a day without a network', () => {
  it('of thirty catches arrives over a connection that drops a third: each once, byte for byte, with its own time', async () => {
    const next = seededDice(20);
    const server = lake(next);
    vi.stubGlobal('fetch', server.connection);
    const name = uuidv7();
    const store = openOutboxStore(name);
    const photos = new Map<string, string>();
    const times = new Map<string, string>();
    for (let i = 0; i < CATCHES; i++) {
      const bytes = Uint8Array.from({ length: PHOTO_BYTES }, () => Math.floor(256 * next()));
      const catchId = uuidv7();
      const file: OutboxFile = { fileId: uuidv7(), blob: new Blob([bytes]), sha256: sha256(bytes), mediaType: 'image/jpeg' }; // prettier-ignore
      const madeAt = new Date(Date.UTC(2026, 5, 14, 6, 15 * i)).toISOString();
      photos.set(file.fileId, file.sha256);
      times.set(catchId, madeAt);
      const command = commandSchema.parse({
        v: 1,
        commandId: uuidv7(),
        eventId: EVENT,
        madeAt,
        deviceId: '0190c1d2-0000-7000-8000-000000000003',
        kind: 'catch.claim',
        body: {
          catchId,
          entrantId: '0190c1d2-0000-7000-8000-000000000005',
          speciesId: 'bass',
          captured: { at: madeAt, source: 'device' },
          photographs: [{ photographId: file.fileId, role: 'board', isFromOutside: false }],
          measurement: { kind: 'board', measurementId: uuidv7(), photographId: file.fileId, boardId: 'birch-30in', marks: { corners: [[0, 0], [9, 0], [9, 2], [0, 2]], nose: [0, 1], tail: [5, 1] } }, // prettier-ignore
          claimedSteps: 60,
          identifierCode: null,
        },
      });
      const listed = [{ fileId: file.fileId, sha256: file.sha256, mediaType: file.mediaType, byteLength: bytes.length }]; // prettier-ignore
      await store.put({ command, accountId: 'me', order: i, files: listed, refused: null }, [file]);
    }
    const outcomes: Outcome[] = [];
    // Each try from a store that is opened anew, as after a page that was killed.
    for (let i = 0; i < 400 && outcomes.at(-1) !== 'nothing'; i++) {
      outcomes.push(
        await sendNext({
          store: openOutboxStore(name),
          attempts: new Map(),
          accountId: () => 'me',
          upload: ({ fileId, blob, sha256: sum, mediaType }, eventId, onProgress) =>
            uploadPhotograph({ photographId: fileId, photo: blob, sha256: sum, mediaType, eventId, onProgress }), // prettier-ignore
          post: (command) => sendJson('POST', '/api/commands', command, { 'idempotency-key': command.commandId }), // prettier-ignore
          onProgress: () => undefined,
          onSent: () => Promise.resolve(),
        }),
      );
    }
    expect(outcomes.at(-1)).toBe('nothing');
    expect(outcomes).not.toContain('refused');
    expect((await store.all()).entries).toEqual([]);
    expect(new Map(server.done.map(({ catchId, madeAt }) => [catchId, madeAt]))).toEqual(times);
    expect(server.done).toHaveLength(CATCHES);
    for (const [fileId, sum] of photos) {
      const { chunks, isWhole } = server.photographs.get(fileId) ?? { chunks: new Map<number, Uint8Array>(), isWhole: false }; // prettier-ignore
      expect(isWhole).toBe(true);
      expect(sha256(Buffer.concat([...chunks].sort(([a], [b]) => a - b).map(([, bytes]) => bytes)))).toBe(sum); // prettier-ignore
    }
    // The connection was as bad as it was meant to be.
    const { requests, lost, cut } = server.counts();
    expect(lost / requests).toBeGreaterThan(0.25);
    expect(cut).toBeGreaterThan(5);
  }, 120_000);
});
