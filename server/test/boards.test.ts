import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BoardView } from '@lauta/contract';
import { SHIPPED_BOARDS, type MeasuringBoard } from '@lauta/vision';
import {
  SHEET,
  claim,
  done,
  holdEvent,
  openWorld,
  send,
  sendCommand,
  type TestEvent,
  type World,
} from './world.ts';

const birch = SHIPPED_BOARDS[0] as MeasuringBoard;
/** The same face, half as long: a tail at half the length reads the same. */
const SHORT: MeasuringBoard = { ...birch, id: 'alder-15in', name: 'Alder 15', scaleLength: 15 };

let world: World;
let event: TestEvent;
beforeAll(async () => {
  world = await openWorld();
  event = await holdEvent(world);
});
afterAll(() => world.close());

const add = (board: unknown, to = event) =>
  sendCommand(world, to.director, 'board.add', to.eventId, { board } as never);
const listed = async (eventId: string): Promise<BoardView[]> => {
  const response = await send(world, event.director, 'get', `/api/events/${eventId}/boards`);
  return response.body as BoardView[];
};

describe('a kind of board that a director adds', () => {
  it('is there for its event alone, with its hash, and never changes', async () => {
    const own = await holdEvent(world);
    const receipt = await done(add(SHORT, own));
    expect(receipt.result).toMatchObject({ boardId: 'alder-15in' });
    expect(await listed(own.eventId)).toMatchObject([{ profile: SHORT, sha256: receipt.result['sha256'] }]);
    expect(await listed(event.eventId)).toEqual([]);
    await expect(world.pool.query("UPDATE boards SET board_id = 'other'")).rejects.toThrow(/never changes/);
  });

  it('is approved by a rule sheet and measured on, by its own length', async () => {
    const own = await holdEvent(world, { sheet: null });
    await done(add(SHORT, own));
    await done(sendCommand(world, own.director, 'rules.publish', own.eventId, { sheet: { ...SHEET, boards: ['alder-15in'] } })); // prettier-ignore
    // The corners of the test's picture are now 15 inches apart, not 30.
    const catchId = await claim(world, own, { boardId: 'alder-15in', lengthMm: 400, claimedSteps: 31 });
    const response = await send(world, own.judge, 'get', `/api/catches/${catchId}`);
    const { measurement, marks } = response.body as {
      measurement: { reading: { apparentMm: number; boardId: string } };
      marks: string[];
    };
    expect(measurement.reading.boardId).toBe('alder-15in');
    expect(measurement.reading.apparentMm).toBeCloseTo(200, 1);
    expect(marks).toEqual([]);
  });

  it('is not known in other events', async () => {
    const own = await holdEvent(world);
    const response = await sendCommand(world, own.director, 'rules.publish', own.eventId, { sheet: { ...SHEET, boards: ['alder-15in'] } }); // prettier-ignore
    expect(response.body).toMatchObject({ type: 'board-not-known' });
  });
});

describe('a kind of board is refused', () => {
  it('under an id that is taken, by a shipped one or an own one', async () => {
    expect((await add(birch)).body).toMatchObject({ type: 'board-exists' });
    const own = await holdEvent(world);
    await done(add(SHORT, own));
    expect((await add({ ...SHORT, widthMm: 100 }, own)).body).toMatchObject({ type: 'board-exists' });
  });

  it.each([
    ['without lines', { lines: [] }],
    [
      'with lines by the thousand',
      { lines: [{ every: 0.05, spans: [[0, 1]], strokeMm: 1 }], scaleLength: 250 },
    ],
    ['with a span that runs backwards', { lines: [{ every: 1, spans: [[1, 0]], strokeMm: 1 }] }],
    ['of no width', { widthMm: 0 }],
    ['with a colour that is a word', { face: 'birch' }],
    ['with a unit that is none', { unit: 'ft' }],
    ['with an id that is a path', { id: '../birch' }],
    ['without a name', { name: ' ' }],
    ['with an endless number', { scaleLength: Infinity }],
  ])('%s', async (_what, part) => {
    const response = await add({ ...SHORT, id: 'other', ...part });
    expect(response.status).toBe(400);
    expect(response.body).toMatchObject({ type: 'invalid-request' });
  });

  it('beyond a dozen in one event', async () => {
    const own = await holdEvent(world);
    for (let i = 0; i < 12; i++) await done(add({ ...SHORT, id: `kind-${i}` }, own));
    const response = await add({ ...SHORT, id: 'kind-12' }, own);
    expect(response.status).toBe(409);
    expect(response.body).toMatchObject({ type: 'too-many-boards' });
  });
});
