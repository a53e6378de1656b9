import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CustodyView, Waters, WatersView } from '@lauta/contract';
import { openDevice, register } from './device.ts';
import { NOON, claimBody, done, holdEvent, openWorld, send, sendCommand, type TestEvent, type World } from './world.ts'; // prettier-ignore

let world: World;
let event: TestEvent;
beforeAll(async () => {
  world = await openWorld();
  event = await holdEvent(world);
});
afterAll(() => world.close());

const square = (west: number, south: number, size: number): number[][] => [
  [west, south],
  [west + size, south],
  [west + size, south + size],
  [west, south + size],
  [west, south],
];
const watersOf = (...areas: { ring: number[][]; use?: string; name?: string }[]) => ({
  type: 'FeatureCollection',
  features: areas.map(({ ring, ...properties }) => ({
    type: 'Feature',
    geometry: { type: 'Polygon', coordinates: [ring] },
    properties,
  })),
});
const MERE = watersOf(
  { ring: square(19, 51, 0.1), name: 'mere' },
  { ring: square(19, 51, 0.02), name: 'bay', use: 'closed' },
);
const publish = (waters: unknown, who = event.director) =>
  sendCommand(world, who, 'waters.publish', event.eventId, { waters: waters as Waters });

describe('the waters of an event', () => {
  it('are published by the director, version after version, and seen by everyone of the event', async () => {
    expect((await send(world, event.angler, 'get', `/api/events/${event.eventId}/waters`)).body).toBeNull();
    expect((await publish(MERE, event.judge)).status).toBe(403);
    await done(publish(watersOf({ ring: square(18, 50, 0.1), name: 'elsewhere' })));
    await done(publish(MERE));
    const seen = (await send(world, event.angler, 'get', `/api/events/${event.eventId}/waters`))
      .body as WatersView;
    expect(seen.version).toBe(2);
    expect(seen.waters.features.map(({ properties }) => properties)).toEqual([
      { name: 'mere', use: 'open' },
      { name: 'bay', use: 'closed' },
    ]);
  });

  it.each([
    ['a ring that is not closed', watersOf({ ring: [...square(19, 51, 0.1).slice(0, 4), [19, 51.001]] }), 422],
    ['a ring that crosses itself', watersOf({ ring: [[19, 51], [19.1, 51.1], [19.1, 51], [19, 51.1], [19, 51]] }), 422],
    ['closed areas alone', watersOf({ ring: square(19, 51, 0.1), use: 'closed' }), 422],
    ['latitude before longitude', watersOf({ ring: [[51, 119], [51, 120], [52, 120], [51, 119]] }), 400],
    ['a line', { type: 'FeatureCollection', features: [{ type: 'Feature', geometry: { type: 'LineString', coordinates: [[19, 51], [20, 52]] }, properties: {} }] }, 400],
    ['nothing', { type: 'FeatureCollection', features: [] }, 400],
    ['no GeoJSON', { hello: 'world' }, 400],
  ])('with %s are refused', async (_, waters, status) => {
    expect((await publish(waters)).status).toBe(status);
  }); // prettier-ignore

  it('say of a capture whether it lies on them', async () => {
    await done(publish(MERE));
    const device = await openDevice(event);
    await register(world, event.angler, device);
    const placed = async (latitude: number, longitude: number): Promise<CustodyView> => {
      const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
      const photograph = await world.lauta.storage.read.photographs.find(
        body.photographs[0]?.photographId ?? '',
      );
      const position = { latitude, longitude, accuracyM: 8, at: NOON };
      const { catchId } = body;
      const captures = [
        await device.capture({ catchId, photographSha256: photograph?.sha256 ?? '', position }),
      ];
      await done(sendCommand(world, event.angler, 'captures.tell', event.eventId, { entrantId: event.entrantId, captures })); // prettier-ignore
      await done(sendCommand(world, event.angler, 'catch.claim', event.eventId, body));
      return (await send(world, event.judge, 'get', `/api/catches/${catchId}/custody`)).body as CustodyView;
    };
    const verdictOf = ({ findings }: CustodyView, check: string) =>
      findings.find((one) => one.check === check)?.tone;
    const open = await placed(51.05, 19.05);
    expect(open.place).toMatchObject({ where: 'open', name: 'mere' });
    expect(verdictOf(open, 'device-place-outside')).toBe('clear');
    const closed = await placed(51.01, 19.01);
    expect(closed.place).toMatchObject({ where: 'closed', name: 'bay' });
    expect(verdictOf(closed, 'device-place-outside')).toBe('fault');
    // A tenth of a second later, a hundred kilometres on.
    const far = await placed(52, 19.05);
    expect(verdictOf(far, 'device-place-outside')).toBe('fault');
    expect(verdictOf(far, 'device-too-far-too-soon')).toBe('fault');
  });
});
