import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { StreamEvent } from '@lauta/contract';
import { claim, holdEvent, openWorld, type Person, type TestEvent, type World } from './world.ts';

let world: World;
let event: TestEvent;
let hidden: TestEvent;
let server: Server;
let base: string;
beforeAll(async () => {
  world = await openWorld();
  event = await holdEvent(world);
  hidden = await holdEvent(world, { isPublic: false });
  server = world.app.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(async () => {
  server.closeAllConnections();
  server.close();
  await world.close();
});

/** Reads messages off a stream until there are `count`. */
async function listen(of: TestEvent, person: Person | null, headers: Record<string, string> = {}) {
  const abort = new AbortController();
  const response = await fetch(`${base}/api/events/${of.eventId}/stream`, {
    headers: { ...headers, ...(person?.cookie ? { cookie: person.cookie } : {}) },
    signal: abort.signal,
  });
  const reader = response.body?.getReader();
  let text = '';
  return {
    status: response.status,
    close: () => abort.abort(),
    async messages(count: number): Promise<StreamEvent[]> {
      for (;;) {
        const found = [...text.matchAll(/^data: (.*)$/gm)].map(
          (match) => JSON.parse(match[1] ?? '') as StreamEvent,
        );
        if (found.length >= count) return found;
        const { value, done } = (await reader?.read()) ?? { done: true };
        if (done) return found;
        text += Buffer.from(value as Uint8Array).toString();
      }
    },
  };
}

const headOf = async (of: TestEvent) => (await world.lauta.storage.read.ledger.head(of.eventId))?.seq ?? 0;

describe('the live stream', () => {
  it('tells every listener of each growth of the ledger', async () => {
    const listeners = await Promise.all([listen(event, null), listen(event, event.rival)]);
    for (const listener of listeners) await listener.messages(1);
    await claim(world, event);
    const seq = await headOf(event);
    for (const listener of listeners) {
      expect((await listener.messages(2))[1]).toMatchObject({
        eventId: event.eventId,
        seq,
        kind: 'catch.claim',
      });
      listener.close();
    }
  });

  it('catches up after a break, and says nothing when nothing was missed', async () => {
    const before = await headOf(event);
    await claim(world, event);
    const behind = await listen(event, null, { 'last-event-id': String(before) });
    expect(await behind.messages(1)).toMatchObject([
      { eventId: event.eventId, seq: before + 1, kind: 'catch-up' },
    ]);
    behind.close();
    const level = await listen(event, null, { 'last-event-id': String(before + 1) });
    await claim(world, event);
    expect((await level.messages(1))[0]).toMatchObject({ seq: before + 2, kind: 'catch.claim' });
    level.close();
  });

  it('of one event is silent about another', async () => {
    const listener = await listen(event, null);
    await listener.messages(1);
    await claim(world, hidden);
    await claim(world, event);
    const seen = await listener.messages(2);
    expect(new Set(seen.map((one) => one.eventId))).toEqual(new Set([event.eventId]));
    listener.close();
  });

  it('of an event that is not public is for its people only', async () => {
    expect((await listen(hidden, null)).status).toBe(401);
    expect((await listen(hidden, event.angler)).status).toBe(404);
    const inside = await listen(hidden, hidden.angler);
    expect(inside.status).toBe(200);
    inside.close();
  });
});
