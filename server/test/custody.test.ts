import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import type { AnnouncedView, AskedFrameView, CustodyView, SignedCapture } from '@lauta/contract';
import { isSignedBy } from '../src/custody/isSignedBy.ts';
import { openDevice, register, sha256Of, type TestDevice } from './device.ts';
import {
  NOON,
  claimBody,
  done,
  holdEvent,
  jpeg,
  openWorld,
  send,
  sendCommand,
  upload,
  type TestEvent,
  type World,
} from './world.ts';

let world: World;
let event: TestEvent;
let device: TestDevice;
beforeAll(async () => {
  world = await openWorld();
  event = await holdEvent(world);
  device = await openDevice(event);
  await register(world, event.angler, device);
});
afterAll(() => world.close());

/** RFC 6979, A.2.5: ECDSA on P-256, message digest SHA-256. */
const hexToBase64url = (hex: string): string => Buffer.from(hex, 'hex').toString('base64url');
const RFC_KEY = {
  kty: 'EC',
  crv: 'P-256',
  x: hexToBase64url('60FED4BA255A9D31C961EB74C6356D68C049B8923B61FA6CE669622E60F29FB6'),
  y: hexToBase64url('7903FE1008B8BC99A41AE9E95628BC64F2F1B20C2D7E9F5177A3C294D4462299'),
} as const;
const RFC_SIGNATURES = {
  sample:
    'EFD48B2AACB6A8FD1140DD9CD45E81D69D2C877B56AAF991C34D0EA84EAF3716F7CB1C942D657C41D436C7A1B6E29F65F3E900DBB9AFF4064DC4AB2F843ACDA8',
  test: 'F1ABB023518351CD71D881567B1EA663ED3EFCF6C5132B354F28D3B0B7D38367019F4113742A2B14BD25926B49C649155F267E60D3814B4C0CC84250E46F0083',
};

describe('a signature', () => {
  it.each(Object.entries(RFC_SIGNATURES))('of RFC 6979, A.2.5, over “%s” fits', async (message, hex) => {
    expect(await isSignedBy(RFC_KEY, hexToBase64url(hex), Buffer.from(message))).toBe(true);
    expect(await isSignedBy(RFC_KEY, hexToBase64url(hex), Buffer.from(`${message}.`))).toBe(false);
  });

  it('by a key that is no point of the curve fits nothing', async () => {
    const off = { ...RFC_KEY, y: RFC_KEY.x };
    expect(await isSignedBy(off, hexToBase64url(RFC_SIGNATURES.test), Buffer.from('test'))).toBe(false);
  });
});

describe('a device’s key', () => {
  it('is registered by who holds it, once or again', async () => {
    const mine = await openDevice(event);
    const first = await register(world, event.angler, mine);
    expect(first.status, first.text).toBe(200);
    expect((await register(world, event.angler, mine)).body).toEqual(first.body);
    const own = await send(world, event.angler, 'get', '/api/own-keys');
    expect((own.body as { keyId: string }[]).map(({ keyId }) => keyId)).toContain(mine.keyId);
  });

  it('is not registered by who only knows it, nor by a second account', async () => {
    const mine = await openDevice(event);
    const stolen = { publicKey: mine.publicKey, deviceId: uuidv7(), proof: await device.proofFor(event.rival.accountId) }; // prettier-ignore
    expect((await send(world, event.rival, 'post', '/api/own-keys').send(stolen)).body).toMatchObject({ type: 'key-not-proven' }); // prettier-ignore
    await register(world, event.angler, mine);
    expect((await register(world, event.rival, mine)).body).toMatchObject({ type: 'key-registered' });
  });

  it('is struck off by its owner alone, and stays so from then on', async () => {
    const mine = await openDevice(event);
    await register(world, event.angler, mine);
    const strike = (who = event.angler) => send(world, who, 'post', `/api/own-keys/${mine.keyId}/revoke`).send({ why: 'lost' }); // prettier-ignore
    expect((await strike(event.rival)).status).toBe(404);
    const struck = await strike();
    expect(struck.body).toMatchObject({ revokedWhy: 'lost', revokedAt: NOON });
    expect((await strike()).body).toEqual(struck.body);
    expect((await send(world, event.angler, 'post', '/api/own-keys/nonsense/revoke').send({ why: 'lost' })).status).toBe(404); // prettier-ignore
  });
});

const tell = (captures: SignedCapture[], entrantId = event.entrantId, who = event.angler) =>
  sendCommand(world, who, 'captures.tell', event.eventId, { entrantId, captures });
const custodyOf = async (catchId: string): Promise<CustodyView> => {
  const response = await send(world, event.judge, 'get', `/api/catches/${catchId}/custody`);
  expect(response.status, response.text).toBe(200);
  return response.body as CustodyView;
};
const doubts = ({ findings }: CustodyView): string[] =>
  findings.filter(({ tone }) => tone !== 'clear').map(({ check, tone }) => `${check} ${tone}`);

/** A claim whose photograph `phone` signed: what is told and what is claimed may be changed on their way. */
async function caught(
  phone: TestDevice,
  change: {
    told?: (captures: SignedCapture[]) => SignedCapture[] | Promise<SignedCapture[]>;
    drafts?: Parameters<TestDevice['capture']>[0][] | undefined;
    draft?: Partial<Parameters<TestDevice['capture']>[0]>;
  } = {},
): Promise<{ catchId: string; captures: SignedCapture[] }> {
  const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
  const [photographId] = body.photographs.map((one) => one.photographId);
  const photograph = await world.lauta.storage.read.photographs.find(photographId ?? '');
  const own = { catchId: body.catchId, identifierCode: body.identifierCode };
  const captures = [
    await phone.capture({ ...own, photographSha256: sha256Of(await jpeg()), ...change.draft }),
    await phone.capture({ ...own, photographSha256: photograph?.sha256 ?? '', ...change.draft }),
  ];
  const told = change.told ? await change.told(captures) : captures;
  if (told.length > 0) await done(tell(told));
  await done(
    sendCommand(world, event.angler, 'catch.claim', event.eventId, {
      ...body,
      photographs: body.photographs.map((one) => ({ ...one, isFromOutside: false })),
    }),
  );
  return { catchId: body.catchId, captures };
}

describe('what a device signed', () => {
  it('is found without fault, and its exact place is for judges alone', async () => {
    const fix = { latitude: 51.05, longitude: 19.01, accuracyM: 8, at: NOON };
    const { catchId, captures } = await caught(device, { draft: { position: fix } });
    const custody = await custodyOf(catchId);
    expect(doubts(custody)).toEqual([]);
    expect(custody.position).toEqual(fix);
    expect(custody.captures.map((one) => [one.captureId, one.isClaimed])).toEqual(
      captures.map(({ statement }, i) => [statement.captureId, i === 1]),
    );
    for (const who of [event.angler, event.rival, event.director])
      expect((await send(world, who, 'get', `/api/catches/${catchId}/custody`)).status).toBe(403);
    const ledger = await send(world, event.judge, 'get', `/api/events/${event.eventId}/ledger.jsonl`);
    expect(ledger.text).not.toContain('51.05');
    expect(ledger.text).toContain(captures[0]?.statement.captureId);
  });

  const TAMPERINGS: [string, () => Promise<string>, string][] = [
    ['the time changed on its way', () => tampered((one) => ({ ...one, at: new Date(Date.parse(NOON) - 600_000).toISOString() })), 'signature-broken fault'],
    ['the position changed on its way', () => tampered((one) => ({ ...one, position: { latitude: 51, longitude: 19, accuracyM: 5, at: NOON } })), 'signature-broken fault'],
    ['the identifier changed on its way', () => tampered((one) => ({ ...one, identifierCode: 'ZZ99' })), 'signature-broken fault'],
    ['the photograph altered', () => photographAltered(), 'photograph-altered fault'],
    ['a capture left out', () => leftOut(), 'capture-missing fault'],
    ['another order', () => otherOrder(), 'chain-broken fault'],
    ['another account’s device', () => byAnother(), 'key-of-another fault'],
    ['a device that was never registered', () => byUnknown(), 'key-unknown fault'],
    ['another device’s signature under this device’s name', () => forged(), 'signature-broken fault'],
    ['nothing told', async () => (await caught(await phone(), { told: () => [] })).catchId, 'unsigned look'],
  ]; // prettier-ignore

  async function phone(): Promise<TestDevice> {
    const made = await openDevice(event);
    await register(world, event.angler, made);
    return made;
  }
  const tampered = async (
    change: (statement: SignedCapture['statement']) => SignedCapture['statement'],
  ): Promise<string> => {
    const told = (all: SignedCapture[]) => all.map((one) => ({ ...one, statement: change(one.statement) }));
    return (await caught(await phone(), { told })).catchId;
  };
  /** The claimed photograph is none of those that were signed. */
  const photographAltered = async (): Promise<string> =>
    (await caught(await phone(), { told: ([first]) => (first ? [first] : []) })).catchId;
  const leftOut = async (): Promise<string> =>
    (await caught(await phone(), { told: ([, second]) => (second ? [second] : []) })).catchId;
  const otherOrder = async (): Promise<string> => {
    const own = await phone();
    const told = ([first, second]: SignedCapture[]): Promise<SignedCapture[]> =>
      // Signed anew in each other's place: the signatures fit, the chain does not.
      first && second
        ? Promise.all([own.sign({ ...second.statement, seq: 1 }), own.sign({ ...first.statement, seq: 2 })])
        : Promise.resolve([]);
    return (await caught(own, { told })).catchId;
  };
  const byAnother = async (): Promise<string> => {
    const theirs = await openDevice(event);
    await register(world, event.rival, theirs);
    return (await caught(theirs)).catchId;
  };
  const byUnknown = async (): Promise<string> => (await caught(await openDevice(event))).catchId;
  const forged = async (): Promise<string> => {
    const own = await phone();
    const theirs = await openDevice(event);
    const told = (all: SignedCapture[]) => Promise.all(all.map(({ statement }) => theirs.sign(statement)));
    return (await caught(own, { told })).catchId;
  };

  it.each(TAMPERINGS)('with %s is found and named', async (_, make, named) => {
    expect(doubts(await custodyOf(await make()))).toContain(named);
  });

  it('is told for an own entrant and for its event alone', async () => {
    const captures = [await device.capture({ photographSha256: 'a'.repeat(64) })];
    expect((await tell(captures, event.rivalEntrantId)).status).toBe(403);
    expect((await tell(captures, event.rivalEntrantId, event.rival)).body).toMatchObject({
      type: 'capture-of-another',
    });
  });

  it('told twice stands once', async () => {
    const own = await phone();
    const { catchId, captures } = await caught(own);
    const once = await custodyOf(catchId);
    await done(tell(captures));
    expect(await custodyOf(catchId)).toEqual(once);
    expect(once.captures).toHaveLength(2);
  });

  it('is too much in one command from the 25th on', async () => {
    const one = await device.capture({ photographSha256: 'a'.repeat(64) });
    expect((await tell(Array.from({ length: 25 }, () => one))).status).toBe(400);
  });
});

describe('the same photograph claimed twice', () => {
  it('is found in both catches, and no more once one is withdrawn', async () => {
    const bytes = await jpeg();
    const ids = [];
    for (let i = 0; i < 2; i++) {
      const photographId = uuidv7();
      await upload(world, event.angler, event.eventId, bytes, photographId);
      const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
      await done(
        sendCommand(world, event.angler, 'catch.claim', event.eventId, {
          ...body,
          photographs: [{ photographId, role: 'board' }],
          measurement: { ...body.measurement, photographId },
        } as typeof body),
      );
      ids.push(body.catchId);
    }
    for (const id of ids) expect(doubts(await custodyOf(id))).toContain('claimed-twice fault');
    await done(sendCommand(world, event.angler, 'catch.withdraw', event.eventId, { catchId: ids[1] ?? '' }));
    expect(doubts(await custodyOf(ids[0] ?? ''))).not.toContain('claimed-twice fault');
  });
});

describe('a claim that is announced ahead of its photographs', () => {
  const announcementOf = (body: Awaited<ReturnType<typeof claimBody>>, sha256: string) => ({
    catchId: body.catchId,
    entrantId: body.entrantId,
    speciesId: body.speciesId,
    capturedAt: NOON,
    claimedSteps: body.claimedSteps,
    identifierCode: body.identifierCode,
    photographs: body.photographs.map(({ photographId }) => ({
      photographId,
      sha256,
      byteLength: 2_000_000,
    })),
  });
  const announced = async (): Promise<AnnouncedView[]> =>
    (await send(world, event.judge, 'get', `/api/events/${event.eventId}/announced`)).body as AnnouncedView[];

  it('is heard of then, is waited for, and is no more once it is there', async () => {
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    const photograph = await world.lauta.storage.read.photographs.find(
      body.photographs[0]?.photographId ?? '',
    );
    world.setNow('2026-06-14T10:05:00.000Z');
    await done(sendCommand(world, event.angler, 'catch.announce', event.eventId, announcementOf(body, photograph?.sha256 ?? ''))); // prettier-ignore
    expect((await announced()).map(({ catchId, bytes }) => [catchId, bytes])).toEqual([[body.catchId, 2_000_000]]); // prettier-ignore
    world.setNow('2026-06-14T10:45:00.000Z');
    await done(sendCommand(world, event.angler, 'catch.claim', event.eventId, body));
    expect(await announced()).toEqual([]);
    const custody = await custodyOf(body.catchId);
    expect(custody).toMatchObject({ heardAt: '2026-06-14T10:05:00.000Z', arrivedAt: '2026-06-14T10:45:00.000Z' }); // prettier-ignore
    expect(doubts(custody)).not.toContain('claimed-otherwise fault');
    world.setNow(NOON);
  });

  it('and claimed otherwise is found', async () => {
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    const told = { ...announcementOf(body, 'c'.repeat(64)), claimedSteps: body.claimedSteps - 4 };
    await done(sendCommand(world, event.angler, 'catch.announce', event.eventId, told));
    await done(sendCommand(world, event.angler, 'catch.claim', event.eventId, body));
    const custody = await custodyOf(body.catchId);
    expect(doubts(custody)).toContain('claimed-otherwise fault');
    expect(custody.findings.find(({ check }) => check === 'claimed-otherwise')?.reason).toEqual({
      code: 'claimed-otherwise',
      differences: ['length', 'photograph'],
    });
  });

  it('twice, after its claim, or for another’s entrant is refused', async () => {
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    const told = announcementOf(body, 'c'.repeat(64));
    await done(sendCommand(world, event.angler, 'catch.announce', event.eventId, told));
    expect((await sendCommand(world, event.angler, 'catch.announce', event.eventId, told)).body).toMatchObject({ type: 'catch-announced' }); // prettier-ignore
    const other = { ...told, catchId: uuidv7() };
    expect((await sendCommand(world, event.rival, 'catch.announce', event.eventId, other)).status).toBe(403);
  });
});

describe('a frame that stayed on the device', () => {
  const asked = async (who = event.angler): Promise<AskedFrameView[]> =>
    (await send(world, who, 'get', `/api/events/${event.eventId}/asked-frames`)).body as AskedFrameView[];

  it('is sent when a judge asks for it, byte for byte, once', async () => {
    const frame = await jpeg();
    const { catchId, captures } = await caught(device, {
      told: async (all) => [...all, await device.capture({ catchId: all[0]?.statement.catchId ?? '', photographSha256: sha256Of(frame) })], // prettier-ignore
    });
    const before = await custodyOf(catchId);
    const view = before.captures.find((one) => one.photographSha256 === sha256Of(frame));
    const captureId = view?.captureId ?? '';
    expect(view).toMatchObject({ frame: 'on-device', isClaimed: false });
    const ask = { catchId, captureIds: [captureId] };
    expect((await sendCommand(world, event.rival, 'frames.ask', event.eventId, ask)).status).toBe(403);
    await done(sendCommand(world, event.judge, 'frames.ask', event.eventId, ask));
    expect((await asked()).map((one) => one.captureId)).toEqual([captureId]);
    expect(await asked(event.rival)).toEqual([]);
    const photographId = uuidv7();
    const wrong = uuidv7();
    await upload(world, event.angler, event.eventId, await jpeg(), wrong);
    const answer = (id: string | null) => sendCommand(world, event.angler, 'frame.send', event.eventId, { catchId, captureId, photographId: id }); // prettier-ignore
    expect((await answer(wrong)).body).toMatchObject({ type: 'checksum-mismatch' });
    await upload(world, event.angler, event.eventId, frame, photographId);
    await done(answer(photographId));
    expect(await asked()).toEqual([]);
    const after = await custodyOf(catchId);
    expect(after.captures.find((one) => one.captureId === captureId)).toMatchObject({ frame: 'sent', photographId }); // prettier-ignore
    // What came later changes nothing of what is said of the claim.
    expect(doubts(after)).toEqual(doubts(before));
    expect((await answer(photographId)).body).toMatchObject({ type: 'frame-not-asked' });
    expect(captures).toHaveLength(2);
  });

  it('and is there no more is said to be so', async () => {
    const { catchId, captures } = await caught(device);
    const captureId = captures[0]?.statement.captureId ?? '';
    await done(
      sendCommand(world, event.judge, 'frames.ask', event.eventId, { catchId, captureIds: [captureId] }),
    );
    await done(sendCommand(world, event.angler, 'frame.send', event.eventId, { catchId, captureId, photographId: null })); // prettier-ignore
    const view = (await custodyOf(catchId)).captures.find((one) => one.captureId === captureId);
    expect(view).toMatchObject({ frame: 'gone', photographId: null });
  });
});
