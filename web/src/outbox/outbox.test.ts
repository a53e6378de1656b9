import 'fake-indexeddb/auto';
import { describe, expect, it, vi } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import { commandSchema, type Receipt } from '@lauta/contract';
import { ApiProblem } from '../door/ask.ts';
import { bytesOf, isDoneAlready, nextEntry, waitMs } from './nextEntry.ts';
import { openOutboxStore, type OutboxEntry, type OutboxFile, type OutboxStore } from './outboxStore.ts';
import { sendNext, sendingLoop, type Outcome, type SenderParts } from './sender.ts';

const EVENT = '0190c1d2-0000-7000-8000-000000000002';
let order = 0;

function entryOf(catchId: string, change: Partial<OutboxEntry> = {}): OutboxEntry {
  const command = commandSchema.parse({
    v: 1,
    commandId: uuidv7(),
    eventId: EVENT,
    madeAt: '2026-06-14T10:00:00.000Z',
    deviceId: '0190c1d2-0000-7000-8000-000000000003',
    kind: 'catch.withdraw',
    body: { catchId },
  });
  return { command, accountId: 'me', order: order++, files: [], refused: null, ...change };
}
const fileOf = (text: string): OutboxFile => ({
  fileId: uuidv7(),
  blob: new Blob([text]),
  sha256: 'ab',
  mediaType: 'image/jpeg',
});
const listed = (files: readonly OutboxFile[]): OutboxEntry['files'] =>
  files.map(({ fileId, sha256, mediaType, blob }) => ({ fileId, sha256, mediaType, byteLength: blob.size }));
const withBytes = (catchId: string, byteLength: number): OutboxEntry =>
  entryOf(catchId, { files: [{ fileId: uuidv7(), sha256: 'ab', mediaType: 'image/jpeg', byteLength }] });

function setUpOf(kind: 'board.add' | 'rules.publish', eventId = EVENT): OutboxEntry {
  const entry = entryOf(uuidv7());
  return {
    ...entry,
    command: { ...entry.command, eventId, kind, body: {} } as unknown as OutboxEntry['command'],
  };
}

describe('what a director sets up', () => {
  it('goes in its order: a sheet after the board that it approves', () => {
    const [board, sheet] = [setUpOf('board.add'), setUpOf('rules.publish')];
    expect(nextEntry([sheet, board], 'me')).toBe(board);
    expect(nextEntry([sheet], 'me')).toBe(sheet);
  });

  it('waits for no other event, and for no set-up that was refused', () => {
    const refused = {
      ...setUpOf('board.add'),
      refused: { type: 'board-exists', title: '', status: 409 },
    } as const;
    const other = setUpOf('rules.publish', '0190c1d2-0000-7000-8000-000000000009');
    const sheet = setUpOf('rules.publish');
    expect(nextEntry([refused, sheet], 'me')).toBe(sheet);
    expect(nextEntry([other, sheet], 'me')).toBe(other);
  });
});

describe('what is sent next', () => {
  it('is the smallest of what each catch has waiting longest: nothing overtakes within a catch', () => {
    const [a, b] = [uuidv7(), uuidv7()];
    const claimA = withBytes(a, 2_000_000);
    const releaseA = entryOf(a);
    const claimB = withBytes(b, 900_000);
    const all = [releaseA, claimB, claimA].sort((x, y) => y.order - x.order);
    expect(nextEntry(all, 'me')).toBe(claimB);
    expect(nextEntry([claimA, releaseA], 'me')).toBe(claimA);
    expect(bytesOf(claimA)).toBe(2_000_000);
  });

  it('is never another person’s, nor what was refused', () => {
    const theirs = entryOf(uuidv7(), { accountId: 'they' });
    const refused = entryOf(uuidv7(), { refused: { type: 'own-catch', title: '', status: 403 } });
    expect(nextEntry([theirs, refused], 'me')).toBeNull();
    expect(nextEntry([theirs, refused], 'they')).toBe(theirs);
    expect(nextEntry([theirs], null)).toBeNull();
  });

  it('waits longer after each failure, up to two minutes, never the same for a fleet', () => {
    expect([1, 2, 3, 4].map((failures) => waitMs(failures, 1))).toEqual([1000, 2000, 4000, 8000]);
    expect(waitMs(40, 1)).toBe(120_000);
    expect(waitMs(3, 0)).toBe(2000);
  });
});

describe('the store', () => {
  it('holds commands and photographs byte for byte, and gives them back to a page that comes later', async () => {
    const name = uuidv7();
    const files = [fileOf('one'), fileOf('two')];
    const entry = entryOf(uuidv7(), { files: listed(files) });
    expect(await openOutboxStore(name).put(entry, files)).toEqual({ isStored: true });
    const later = openOutboxStore(name);
    expect((await later.all()).entries).toEqual([entry]);
    const blob = await later.file(files[1]?.fileId ?? '');
    expect(await blob?.text()).toBe('two');
    await later.remove(entry.command.commandId);
    expect(await openOutboxStore(name).all()).toEqual({ entries: [], unreadable: [] });
    expect(await later.file(files[0]?.fileId ?? '')).toBeNull();
  });

  it('keeps what it cannot read, and shows it beside the rest', async () => {
    const name = uuidv7();
    const store = openOutboxStore(name);
    const entry = entryOf(uuidv7());
    await store.put(entry, []);
    await store.put({ ...entryOf(uuidv7()), order: 'first' } as unknown as OutboxEntry, []);
    const { entries, unreadable } = await openOutboxStore(name).all();
    expect(entries).toEqual([entry]);
    expect(unreadable).toHaveLength(1);
    expect(unreadable[0]?.value).toMatchObject({ order: 'first' });
  });

  it('of a browser that refuses to store holds the command as long as the page lives, and says so', async () => {
    const store = openOutboxStore(uuidv7());
    const files = [fileOf('kept')];
    // A function can't be cloned into IndexedDB: the transaction fails as it does when there is no room.
    const entry = { ...entryOf(uuidv7(), { files: listed(files) }), stuck: () => undefined };
    expect(await store.put(entry as OutboxEntry, files)).toEqual({ isStored: false });
    expect((await store.all()).entries).toHaveLength(1);
    expect(await (await store.file(files[0]?.fileId ?? ''))?.text()).toBe('kept');
    await store.remove(entry.command.commandId);
    expect((await store.all()).entries).toEqual([]);
  });
});

/** A server that answers by the list, the last one for ever. */
function world(store: OutboxStore, answers: (Receipt | Error)[]) {
  const posted: string[] = [];
  const uploaded: string[] = [];
  const sent: (Receipt | null)[] = [];
  const parts: SenderParts = {
    store,
    attempts: new Map(),
    accountId: () => 'me',
    upload: async ({ blob }, _event, onProgress) => {
      uploaded.push(await blob.text());
      onProgress(1);
    },
    post: async ({ commandId }) => {
      posted.push(commandId);
      const answer = answers.length > 1 ? answers.shift() : answers[0];
      if (answer instanceof Error || !answer) throw answer ?? new Error('expected an answer');
      return answer;
    },
    onProgress: () => undefined,
    onSent: async (_entry, receipt) => void sent.push(receipt),
  };
  return { parts, posted, uploaded, sent };
}
const RECEIPT: Receipt = { commandId: '', kind: '', eventId: EVENT, seq: 7, receivedAt: '', result: {} };
const problem = (type: string, status: number) => new ApiProblem({ type, title: type, status });

async function held(files: OutboxFile[] = []): Promise<{ store: OutboxStore; entry: OutboxEntry }> {
  const store = openOutboxStore(uuidv7());
  const entry = entryOf(uuidv7(), { files: listed(files) });
  await store.put(entry, files);
  return { store, entry };
}

describe('the sender', () => {
  it('sends files first, then the command, and only then forgets both', async () => {
    const { store, entry } = await held([fileOf('photo'), fileOf('with the person')]);
    const { parts, posted, uploaded, sent } = world(store, [RECEIPT]);
    expect(await sendNext(parts)).toBe('sent');
    expect(uploaded).toEqual(['photo', 'with the person']);
    expect(posted).toEqual([entry.command.commandId]);
    expect(sent).toEqual([RECEIPT]);
    expect(await sendNext(parts)).toBe('nothing');
  });

  it('tells what was sent while it is still in the store: a list of both never lacks it', async () => {
    const { store, entry } = await held();
    const { parts } = world(store, [RECEIPT]);
    const removed: string[] = [];
    const told: string[] = [];
    await sendNext({
      ...parts,
      store: { ...store, remove: async (commandId) => (removed.push(commandId), store.remove(commandId)) },
      onSent: async ({ command }) => void told.push(...(removed.length === 0 ? [command.commandId] : [])),
    });
    expect(told).toEqual([entry.command.commandId]);
    expect(removed).toEqual(told);
  });

  it.each<[string, Error, Outcome]>([
    ['no network', problem('network', 0), 'away'],
    ['a database that is away', problem('database-away', 503), 'away'],
    ['a server’s fault', problem('server-fault', 500), 'away'],
    ['a page that was stopped', new DOMException('stopped', 'AbortError'), 'away'],
    ['a session that has ended', problem('not-signed-in', 401), 'sign-in'],
  ])('after %s keeps everything, and the same command goes again', async (_what, error, outcome) => {
    const { store, entry } = await held([fileOf('photo')]);
    const { parts, posted } = world(store, [error, RECEIPT]);
    expect(await sendNext(parts)).toBe(outcome);
    expect((await store.all()).entries).toEqual([entry]);
    expect(await sendNext(parts)).toBe('sent');
    expect(posted).toEqual([entry.command.commandId, entry.command.commandId]);
  });

  it('keeps what the server refuses, with its reason, goes on with the rest, and tries again when asked', async () => {
    const { store, entry } = await held();
    const other = entryOf(uuidv7());
    await store.put(other, []);
    const { parts, posted } = world(store, [problem('no-rule-sheet', 409), RECEIPT]);
    expect(await sendNext(parts)).toBe('refused');
    expect(await sendNext(parts)).toBe('sent');
    expect(await sendNext(parts)).toBe('nothing');
    expect((await store.all()).entries).toMatchObject([{ refused: { type: 'no-rule-sheet' } }]);
    await store.refuse(entry.command.commandId, null);
    expect(await sendNext(parts)).toBe('sent');
    expect(posted).toEqual([entry.command.commandId, other.command.commandId, entry.command.commandId]);
  });

  it('takes “done already” for done: an answer that was lost, or another tab', async () => {
    const { store } = await held();
    const { parts, sent } = world(store, [problem('catch-withdrawn', 409)]);
    expect(await sendNext(parts)).toBe('sent');
    expect(sent).toEqual([null]);
  });

  it('sends a file that arrived damaged again, and gives up in the end without losing it', async () => {
    const { store } = await held([fileOf('photo')]);
    const { parts } = world(store, [problem('checksum-mismatch', 422)]);
    const outcomes: Outcome[] = [];
    for (let i = 0; i < 5; i++) outcomes.push(await sendNext(parts));
    expect(outcomes).toEqual(['away', 'away', 'away', 'away', 'refused']);
    expect((await store.all()).entries).toMatchObject([{ refused: { type: 'checksum-mismatch' } }]);
  });

  it('says so when the photograph is no longer there, and keeps the command', async () => {
    const { store, entry } = await held();
    const lost = { ...entry, files: listed([fileOf('gone')]) };
    await store.put(lost, []);
    const { parts, posted } = world(store, [RECEIPT]);
    expect(await sendNext(parts)).toBe('refused');
    expect(posted).toEqual([]);
    expect((await store.all()).entries).toMatchObject([{ refused: { type: 'file-gone' } }]);
  });
});

describe('sending, again and again', () => {
  /** Runs through these outcomes; each may do something while it is tried. */
  function through(outcomes: [Outcome, (() => void)?][]) {
    const told: Outcome[] = [];
    const loop = sendingLoop(
      async () => {
        const [outcome, act] = outcomes[told.length] ?? ['nothing'];
        await Promise.resolve();
        act?.();
        return outcome;
      },
      async (outcome) => void told.push(outcome),
      () => false,
    );
    const over = loop.run(() => told.length >= outcomes.length);
    return { told, over, wake: loop.wake };
  }

  it('goes on at once after what was sent or refused', async () => {
    const { told, over } = through([['sent'], ['refused'], ['sent']]);
    await over;
    expect(told).toEqual(['sent', 'refused', 'sent']);
  });

  it('does not sleep over what was written while it looked and found nothing', async () => {
    const found = through([['nothing', () => found.wake()], ['sent']]);
    await found.over;
    expect(found.told).toEqual(['nothing', 'sent']);
  });

  it('sleeps when nothing is left, until it is woken', async () => {
    const { told, over, wake } = through([['nothing'], ['sent']]);
    await new Promise((resolve) => setTimeout(resolve, 30));
    expect(told).toEqual(['nothing']);
    wake();
    await over;
    expect(told).toEqual(['nothing', 'sent']);
  });

  it('tries again by itself when nobody answered', async () => {
    const { told, over } = through([['away'], ['sent']]);
    await over;
    expect(told).toEqual(['away', 'sent']);
  });
});

describe('a claim whose id is taken', () => {
  const claimEntry = (measurementId: string): OutboxEntry => {
    const photographId = uuidv7();
    const command = commandSchema.parse({
      v: 1,
      commandId: uuidv7(),
      eventId: EVENT,
      madeAt: '2026-06-14T10:00:00.000Z',
      deviceId: '0190c1d2-0000-7000-8000-000000000003',
      kind: 'catch.claim',
      body: {
        catchId: '0190c1d2-0000-7000-8000-000000000007',
        entrantId: '0190c1d2-0000-7000-8000-000000000005',
        speciesId: 'bass',
        captured: { at: '2026-06-14T10:00:00.000Z', source: 'device' },
        photographs: [{ photographId, role: 'board' }],
        measurement: { kind: 'board', measurementId, photographId, boardId: 'birch-30in', marks: { corners: [[0, 0], [9, 0], [9, 2], [0, 2]], nose: [0, 1], tail: [5, 1] } }, // prettier-ignore
        claimedSteps: 60,
        identifierCode: null,
      },
    });
    return { command, accountId: 'me', order: order++, files: [], refused: null };
  };
  const exists = (fields?: Record<string, unknown>) => ({ type: 'catch-exists', title: 'catch exists', status: 409, ...(fields ? { fields } : {}) }); // prettier-ignore

  it('was done before where its own measurement stands under it, or where an older server does not say', () => {
    const own = uuidv7();
    expect(isDoneAlready(claimEntry(own), exists({ measurementId: own }))).toBe(true);
    expect(isDoneAlready(claimEntry(own), exists())).toBe(true);
  });

  it('is another phone’s where another measurement stands there: it is kept, and can be claimed as its own', async () => {
    const entry = claimEntry(uuidv7());
    expect(isDoneAlready(entry, exists({ measurementId: uuidv7() }))).toBe(false);
    const store = openOutboxStore('number taken');
    const file = fileOf('photo');
    await store.put({ ...entry, files: listed([file]) }, [file]);
    const command = { ...entry.command, commandId: uuidv7() };
    await store.replace(entry.command.commandId, { ...entry, command, files: listed([file]) });
    expect((await store.all()).entries.map((one) => one.command.commandId)).toEqual([command.commandId]);
    expect(await (await store.file(file.fileId))?.text()).toBe('photo');
  });

  it('goes after its announcement, which goes before all megabytes', async () => {
    const store = openOutboxStore('announced');
    const [a, b] = [claimEntry(uuidv7()), claimEntry(uuidv7())];
    const file = fileOf('x'.repeat(500));
    const ahead = entryOf(uuidv7());
    await store.put({ ...a, order: 1, files: listed([file]) }, [file]);
    await store.put({ ...b, order: 3, files: listed([file]) }, [file], [{ ...ahead, order: 2 }]);
    const { entries } = await store.all();
    expect(entries).toHaveLength(3);
    expect(nextEntry(entries, 'me')?.command.commandId).toBe(ahead.command.commandId);
  });
});

describe('a server that is down for an hour', () => {
  it('is asked now and then, less and less often, and gets everything once it is back', async () => {
    vi.useFakeTimers();
    try {
      let isBack = false;
      let waiting = 3;
      const asked: number[] = [];
      const loop = sendingLoop(
        async () => {
          asked.push(Date.now());
          if (!isBack) return 'away';
          if (waiting === 0) return 'nothing';
          waiting--;
          return 'sent';
        },
        async () => undefined,
        () => false,
      );
      let isOver = false;
      void loop.run(() => isOver);
      const begun = Date.now();
      await vi.advanceTimersByTimeAsync(3_600_000);
      // Often at first, then every minute or two: neither a storm nor asleep.
      const tries = asked.length;
      expect(tries).toBeGreaterThan(25);
      expect(tries).toBeLessThan(80);
      expect(asked.filter((at) => at - begun < 60_000).length).toBeGreaterThan(5);
      isBack = true;
      await vi.advanceTimersByTimeAsync(120_000);
      expect(waiting).toBe(0);
      isOver = true;
      loop.wake();
    } finally {
      vi.useRealTimers();
    }
  });
});
