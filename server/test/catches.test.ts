import { checkLedger, type LedgerCheck } from '../src/verify/checkLedger.ts';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import type { CatchView, StandingsView } from '@lauta/contract';
import {
  HANDLING,
  NOON,
  claim,
  claimBody,
  done,
  holdEvent,
  jpeg,
  judge,
  marks,
  openWorld,
  send,
  sendCommand,
  upload,
  type ClaimWish,
  type TestEvent,
  type World,
} from './world.ts';

let world: World;
let event: TestEvent;
beforeAll(async () => {
  world = await openWorld();
  event = await holdEvent(world);
});
afterAll(() => world.close());

async function view(catchId: string, person = event.judge): Promise<CatchView> {
  const response = await send(world, person, 'get', `/api/catches/${catchId}`);
  if (response.status !== 200) throw new Error(response.text);
  return response.body as CatchView;
}

async function standings(of: TestEvent, query = ''): Promise<StandingsView> {
  const response = await send(world, of.judge, 'get', `/api/events/${of.eventId}/standings${query}`);
  return response.body as StandingsView;
}

const refusedClaim = async (change: object) => {
  const body = { ...(await claimBody(world, event.angler, event.eventId, event.entrantId)), ...change };
  return sendCommand(world, event.angler, 'catch.claim', event.eventId, body as never);
};

describe('a claim', () => {
  it('is read anew by the server: 400 mm is 15.75 in, 62 steps reached and 63 not quite', async () => {
    const caught = await view(await claim(world, event, { lengthMm: 400 }));
    // 15¾ in is 400.05 mm (25.4 mm an inch).
    expect(caught.measurement.reading.apparentMm).toBeCloseTo(400, 6);
    expect(caught.measurement.reading).toMatchObject({ kind: 'board', made: 'hand' });
    expect(caught.claimedSteps).toBe(62);
    expect(caught.state).toBe('undecided');
  });

  it.each<[string, ClaimWish, string[]]>([
    ['before lines-in', { takenLocal: '2026:06:14 05:59:59' }, ['before-lines-in']],
    ['at lines-in', { takenLocal: '2026:06:14 06:00:00' }, []],
    ['at lines-out', { takenLocal: '2026:06:14 15:00:00' }, []],
    ['after lines-out', { takenLocal: '2026:06:14 15:00:01' }, ['after-lines-out']],
    ['of a kind that the sheet does not name', { speciesId: 'unicorn-fish' }, ['species-not-listed']],
    ['on a board that is not approved', { boardId: 'slate-75cm' }, ['board-not-approved']],
  ])('%s is kept and marked as it is', async (_what, wish, expected) => {
    world.setNow('2026-06-14T14:00:00Z');
    const caught = await view(await claim(world, event, wish));
    world.setNow(NOON);
    expect(caught.marks).toEqual(expected);
  });

  it('takes the file’s time over the sender’s word, in the event’s zone where it tells no offset', async () => {
    const captured = { at: '2026-06-14T04:30:00.000Z', source: 'photograph' as const };
    const withOffset = await view(await claim(world, event, { captured, takenLocal: '2026:06:14 10:00:00', offset: '+01:00' })); // prettier-ignore
    expect(withOffset.capturedAt).toBe('2026-06-14T09:00:00.000Z');
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    const photographId = uuidv7();
    await upload(world, event.angler, event.eventId, await jpeg({ takenLocal: '2026:06:14 10:00:00' }), photographId); // prettier-ignore
    await done(
      sendCommand(world, event.angler, 'catch.claim', event.eventId, {
        ...body,
        photographs: [{ photographId, role: 'board' }],
        measurement: { ...body.measurement, photographId },
      }),
    );
    expect((await view(body.catchId)).capturedAt).toBe('2026-06-14T08:00:00.000Z');
  });

  it('of a file without a time says that the device’s clock was taken', async () => {
    const photographId = uuidv7();
    await upload(world, event.angler, event.eventId, await jpeg(), photographId);
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    await done(
      sendCommand(world, event.angler, 'catch.claim', event.eventId, {
        ...body,
        photographs: [{ photographId, role: 'board' }],
        measurement: { ...body.measurement, photographId },
      }),
    );
    expect((await view(body.catchId)).capturedSource).toBe('device');
  });

  it.each([
    ['corners that are crossed', [[100, 200], [700, 320], [700, 200], [100, 320]], 'crossed'], // prettier-ignore
    ['corners on one line', [[100, 200], [400, 200], [700, 200], [100, 320]], 'collinear'], // prettier-ignore
  ])('with %s is refused by name', async (_what, corners, why) => {
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    const response = await refusedClaim({ measurement: { ...body.measurement, marks: { ...marks(), corners } }, photographs: body.photographs }); // prettier-ignore
    expect(response.status).toBe(422);
    expect(response.body).toMatchObject({ type: 'reading-refused', fields: { why } });
  });

  it('with the tail before the nose is refused by name', async () => {
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    const swapped = { ...marks(), nose: [500, 260], tail: [200, 260] };
    const response = await refusedClaim({ measurement: { ...body.measurement, marks: swapped }, photographs: body.photographs }); // prettier-ignore
    expect(response.body).toMatchObject({ type: 'reading-refused', fields: { why: 'tail-before-nose' } });
  });

  it('can’t use a photograph twice, nor another’s, nor one that never came', async () => {
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    await done(sendCommand(world, event.angler, 'catch.claim', event.eventId, body));
    const again = {
      ...body,
      catchId: uuidv7(),
      measurement: { ...body.measurement, measurementId: uuidv7() },
    };
    expect((await sendCommand(world, event.angler, 'catch.claim', event.eventId, again)).body).toMatchObject({ type: 'photograph-taken' }); // prettier-ignore
    const others = await claimBody(world, event.rival, event.eventId, event.rivalEntrantId);
    expect((await sendCommand(world, event.angler, 'catch.claim', event.eventId, { ...others, entrantId: event.entrantId })).body).toMatchObject({ type: 'photograph-missing' }); // prettier-ignore
    const never = { ...again, photographs: [{ photographId: uuidv7(), role: 'board' as const }] };
    const measurement = { ...never.measurement, photographId: never.photographs[0]?.photographId ?? '' };
    expect((await sendCommand(world, event.angler, 'catch.claim', event.eventId, { ...never, measurement })).body).toMatchObject({ type: 'photograph-missing' }); // prettier-ignore
  });

  it('with an id that is there already is refused', async () => {
    const catchId = await claim(world, event);
    expect((await refusedClaim({ catchId })).body).toMatchObject({ type: 'catch-exists' });
  });

  it('shows the angler the own code, and others nothing', async () => {
    const catchId = await claim(world, event);
    const [identifier] = await world.lauta.storage.read.events.identifiersOf(event.entrantId);
    expect((await view(catchId, event.angler)).expectedCode).toBe(identifier?.code);
    expect((await send(world, event.rival, 'get', `/api/catches/${catchId}`)).status).toBe(403);
  });
});

describe('a judge’s decision', () => {
  it('changes the score, and the standings with it', async () => {
    const own = await holdEvent(world);
    const catchId = await claim(world, own);
    expect((await standings(own)).standings[0]).toMatchObject({ score: { steps: 62 }, provisionalSteps: 62 });
    expect((await standings(own, '?include=official')).standings[0]).toMatchObject({ score: { steps: 0 } });
    await judge(world, own, catchId, { kind: 'accepted', steps: 62, infractions: ['mouth-open'], note: '' });
    expect((await standings(own, '?include=official')).standings[0]).toMatchObject({
      score: { measure: 'quarter-inch', steps: 61 },
      provisionalSteps: 0,
    });
  });

  it('can be revised; the former one stays in the record', async () => {
    const catchId = await claim(world, event);
    const first = await judge(world, event, catchId, {
      kind: 'refused',
      infractions: [],
      reason: 'No card.',
    });
    await judge(world, event, catchId, { kind: 'accepted', steps: 61, infractions: [], note: '' }, first);
    const caught = await view(catchId);
    expect(caught.verdicts.map((verdict) => verdict.decision.kind)).toEqual(['refused', 'accepted']);
    expect(caught.state).toBe('accepted');
    expect(caught.scoreSteps).toBe(61);
  });

  it('over a decision that its judge has not seen is refused', async () => {
    const catchId = await claim(world, event);
    await judge(world, event, catchId, { kind: 'accepted', steps: 62, infractions: [], note: '' });
    const response = await sendCommand(world, event.judge, 'catch.judge', event.eventId, {
      catchId,
      verdictId: uuidv7(),
      replaces: null,
      decision: { kind: 'refused', infractions: [], reason: 'Late.' },
    });
    expect(response.status).toBe(409);
    expect(response.body).toMatchObject({ type: 'verdict-moved-on' });
  });

  it('of two judges at the same moment counts once', async () => {
    const catchId = await claim(world, event);
    const decide = () =>
      sendCommand(world, event.judge, 'catch.judge', event.eventId, {
        catchId,
        verdictId: uuidv7(),
        replaces: null,
        decision: { kind: 'accepted', steps: 62, infractions: [], note: '' },
      });
    const statuses = (await Promise.all([decide(), decide(), decide()])).map((response) => response.status);
    expect(statuses.sort()).toEqual([200, 409, 409]);
    expect((await view(catchId)).verdicts).toHaveLength(1);
  });

  it('can be taken back: the catch is undecided again', async () => {
    const catchId = await claim(world, event);
    const first = await judge(world, event, catchId, {
      kind: 'accepted',
      steps: 62,
      infractions: [],
      note: '',
    });
    await judge(world, event, catchId, { kind: 'reopened' }, first);
    const caught = await view(catchId);
    expect(caught.state).toBe('undecided');
    expect(caught.verdicts).toHaveLength(2);
  });

  it('accepts a catch out of hours all the same, and a disqualifying infraction takes the score', async () => {
    const late = await claim(world, event, { takenLocal: '2026:06:14 15:10:00' });
    expect((await view(late)).notCounting).toBe('outside-session');
    await judge(world, event, late, { kind: 'accepted', steps: 62, infractions: [], note: 'Radio failed.' });
    expect((await view(late)).notCounting).toBeNull();
    const cardless = await claim(world, event);
    await judge(world, event, cardless, { kind: 'accepted', steps: 62, infractions: ['identifier-missing'], note: '' }); // prettier-ignore
    expect((await view(cardless)).notCounting).toBe('disqualified');
  });
});

describe('a request of the judge', () => {
  it('is answered with words and another photograph, and comes back to the queue', async () => {
    const own = await holdEvent(world);
    const catchId = await claim(world, own);
    const verdictId = await judge(world, own, catchId, { kind: 'sent-back', request: 'Another frame.' });
    expect((await view(catchId, own.angler)).state).toBe('sent-back');
    const photographId = uuidv7();
    await upload(world, own.angler, own.eventId, await jpeg(), photographId);
    await done(
      sendCommand(world, own.angler, 'catch.answer', own.eventId, {
        catchId,
        answerId: uuidv7(),
        verdictId,
        words: 'Here it is.',
        photographId,
      }),
    );
    const caught = await view(catchId, own.judge);
    expect(caught.state).toBe('answered');
    expect(caught.answers).toMatchObject([{ words: 'Here it is.', photographId }]);
    expect(caught.photographs).toHaveLength(2);
    const queue = await send(world, own.judge, 'get', `/api/events/${own.eventId}/queue`);
    expect(queue.body).toMatchObject({ total: 1, items: [{ catchId, state: 'answered' }] });
  });

  it('that was decided meanwhile can’t be answered any more', async () => {
    const catchId = await claim(world, event);
    const verdictId = await judge(world, event, catchId, { kind: 'sent-back', request: 'Another frame.' });
    await judge(world, event, catchId, { kind: 'refused', infractions: [], reason: 'Too late.' }, verdictId);
    const response = await sendCommand(world, event.angler, 'catch.answer', event.eventId, { catchId, answerId: uuidv7(), verdictId, words: 'Wait!', photographId: null }); // prettier-ignore
    expect(response.body).toMatchObject({ type: 'nothing-to-answer' });
  });

  it('wants words or a photograph', async () => {
    const response = await sendCommand(world, event.angler, 'catch.answer', event.eventId, { catchId: uuidv7(), answerId: uuidv7(), verdictId: uuidv7(), words: ' ', photographId: null }); // prettier-ignore
    expect(response.status).toBe(400);
  });
});

describe('a withdrawal', () => {
  it('takes the fish out of the standings, and undoing it brings it back as it stood', async () => {
    const own = await holdEvent(world);
    const catchId = await claim(world, own);
    await judge(world, own, catchId, { kind: 'accepted', steps: 62, infractions: [], note: '' });
    await done(sendCommand(world, own.angler, 'catch.withdraw', own.eventId, { catchId }));
    expect((await standings(own)).standings[0]?.score.steps).toBe(0);
    expect((await sendCommand(world, own.angler, 'catch.withdraw', own.eventId, { catchId })).status).toBe(
      409,
    );
    await done(sendCommand(world, own.angler, 'catch.restore', own.eventId, { catchId }));
    expect((await view(catchId, own.judge)).state).toBe('accepted');
    expect((await standings(own)).standings[0]?.score.steps).toBe(62);
    expect((await sendCommand(world, own.angler, 'catch.restore', own.eventId, { catchId })).status).toBe(
      409,
    );
  });
});

describe('the judge’s queue', () => {
  it('is searched by name or number, and comes whole as CSV', async () => {
    const own = await holdEvent(world);
    await claim(world, own);
    const find = async (search: string) => {
      const response = await send(
        world,
        own.judge,
        'get',
        `/api/events/${own.eventId}/queue?search=${search}`,
      );
      return (response.body as { total: number }).total;
    };
    expect([await find('angl'), await find('1'), await find('rival')]).toEqual([1, 1, 0]);
    const csv = await send(world, own.judge, 'get', `/api/events/${own.eventId}/catches.csv`);
    expect(csv.text.split('\r\n')[1]).toMatch(/,1,Angler,bass,.*,15½,15\.75,in,undecided,/);
  });

  it('gives an angler the own catches alone', async () => {
    const own = await holdEvent(world);
    await claim(world, own);
    const lines = async (person: typeof own.angler) =>
      (await send(world, person, 'get', `/api/events/${own.eventId}/own-catches.csv`)).text.split('\r\n')
        .length;
    expect(await lines(own.angler)).toBe(2);
    expect(await lines(own.rival)).toBe(1);
  });
});

describe('the standings', () => {
  it('fill the bag with the best, say what was culled, and are found by name', async () => {
    const own = await holdEvent(world);
    await claim(world, own, { claimedSteps: 50 });
    await claim(world, own, { claimedSteps: 60 });
    await claim(world, own, { claimedSteps: 55 });
    const { standings: all, entrants } = await standings(own);
    const [first] = all;
    if (first?.kind !== 'catches') throw new Error('expected catches');
    expect(first.bag.counting.map((fish) => fish.scoreSteps)).toEqual([60, 55]);
    expect(first.bag.culled.map((fish) => fish.scoreSteps)).toEqual([50]);
    expect(entrants.map((one) => one.name)).toEqual(['Angler', 'Rival']);
    expect((await standings(own, '?search=riv')).entrants.map((one) => one.name)).toEqual(['Rival']);
    expect((await standings(own, '?search=2')).entrants.map((one) => one.name)).toEqual(['Rival']);
  });

  it('come as CSV in which a name is never a formula', async () => {
    const own = await holdEvent(world);
    await world.pool.query("UPDATE accounts SET name = '=1+1' WHERE account_id = ?", [own.angler.accountId]);
    await claim(world, own);
    const response = await send(world, own.judge, 'get', `/api/events/${own.eventId}/standings.csv`);
    expect(response.headers['content-type']).toContain('text/csv');
    expect(response.text).toContain(`"'=1+1"`);
    expect(response.text).toContain('15½');
  });

  it('come in pages', async () => {
    const own = await holdEvent(world);
    const page = await standings(own, '?page=2&pageSize=1');
    expect(page).toMatchObject({ page: 2, pageSize: 1, total: 2 });
    expect(page.standings).toHaveLength(1);
  });
});

describe('how a fish was treated', () => {
  const handling = HANDLING;

  const ledgerCheck = (of: TestEvent): Promise<LedgerCheck> =>
    checkLedger(world.lauta.storage.read, of.eventId);

  it('stands in the record of the catch and in the ledger, and a changed row is found', async () => {
    const own = await holdEvent(world);
    const body = { ...(await claimBody(world, own.angler, own.eventId, own.entrantId)), handling };
    const sent = await sendCommand(world, own.angler, 'catch.claim', own.eventId, body as never);
    expect(sent.status).toBe(200);
    expect((await view(body.catchId, own.angler)).handling).toEqual(handling);
    expect((await ledgerCheck(own)).ok).toBe(true);
    await world.pool.query('UPDATE catches SET handling = NULL WHERE catch_id = ?', [body.catchId]);
    expect(await ledgerCheck(own)).toMatchObject({ ok: false, faults: [{ fault: 'record-differs' }] });
  });

  it('may be missing, as in claims of pages without the clock', async () => {
    expect((await view(await claim(world, event))).handling).toBeNull();
  });

  it.each([
    ['times that run backwards', { events: [...handling.events].reverse() }],
    ['a step that nobody knows', { events: [{ step: 'kissed', atMs: 1 }] }],
    ['water that boils', { waterCelsius: 100 }],
    ['a sign that nobody knows', { signs: { winks: 'yes' } }],
    ['more than eighty taps', { events: Array.from({ length: 81 }, () => handling.events[0]) }],
  ])('is refused with %s', async (_, change) => {
    expect((await refusedClaim({ handling: { ...handling, ...change } })).status).toBe(400);
  });

  describe('told after the claim', () => {
    const released = { step: 'released', atMs: 1_781_000_400_000 } as const;
    const later = { ...handling, events: [...handling.events, released], signs: { upright: 'yes' } };
    const tell = (own: TestEvent, catchId: string, told: object, person = own.angler) =>
      sendCommand(world, person, 'catch.handle', own.eventId, { catchId, handling: told } as never);
    const claimed = async (own: TestEvent): Promise<string> => {
      const body = { ...(await claimBody(world, own.angler, own.eventId, own.entrantId)), handling };
      await done(sendCommand(world, own.angler, 'catch.claim', own.eventId, body as never));
      return body.catchId;
    };

    it('is the record from then on; the claim keeps its own, and both rows are checked', async () => {
      const own = await holdEvent(world);
      const catchId = await claimed(own);
      await done(tell(own, catchId, later));
      expect((await view(catchId, own.angler)).handling).toEqual(later);
      expect((await ledgerCheck(own)).ok).toBe(true);
      await world.pool.query('UPDATE catches SET later_handling = NULL WHERE catch_id = ?', [catchId]);
      expect(await ledgerCheck(own)).toMatchObject({ ok: false, faults: [{ fault: 'record-differs' }] });
    });

    it('is told once, by its own angler, and leaves nothing of the claim out', async () => {
      const own = await holdEvent(world);
      const catchId = await claimed(own);
      expect((await tell(own, catchId, later, own.rival)).status).toBe(403);
      const without = { ...later, events: [handling.events[0], released] };
      expect((await tell(own, catchId, without)).body).toMatchObject({ type: 'handling-not-later' });
      await done(tell(own, catchId, later));
      expect((await tell(own, catchId, later)).body).toMatchObject({ type: 'handling-told' });
    });
  });
});

describe('the device’s clock', () => {
  it('is recorded with the claim, and a changed row is found', async () => {
    const own = await holdEvent(world);
    const body = {
      ...(await claimBody(world, own.angler, own.eventId, own.entrantId)),
      clockOffsetMs: -7_200_250,
    };
    await done(sendCommand(world, own.angler, 'catch.claim', own.eventId, body as never));
    const check = () => checkLedger(world.lauta.storage.read, own.eventId);
    expect((await check()).ok).toBe(true);
    await world.pool.query('UPDATE catches SET clock_offset_ms = 0 WHERE catch_id = ?', [body.catchId]);
    expect(await check()).toMatchObject({ ok: false, faults: [{ fault: 'record-differs' }] });
  });
});

describe('a fish measured with a tape', () => {
  const tapeBody = async (inches: readonly number[], change: object = {}) => {
    const marks: { tapeMm: number; photographId: string }[] = [];
    for (const inch of inches) {
      const photographId = uuidv7();
      await upload(world, event.angler, event.eventId, await jpeg(), photographId);
      marks.push({ tapeMm: 25.4 * inch, photographId });
    }
    return {
      ...(await claimBody(world, event.angler, event.eventId, event.entrantId)),
      catchId: uuidv7(),
      photographs: marks.map(({ photographId }) => ({ photographId, role: 'fish' })),
      measurement: { kind: 'tape', measurementId: uuidv7(), photographId: marks.at(-1)?.photographId, marks, gripOffsetMm: 25.4, ...change },
      claimedSteps: 160,
    }; // prettier-ignore
  };
  const claimTape = (body: object) =>
    sendCommand(world, event.angler, 'catch.claim', event.eventId, body as never);

  it('is read anew by the server: 41 in twice, an inch off for the grip, is 40 in; all readings are kept', async () => {
    const body = await tapeBody([43, 41, 41]);
    await done(claimTape(body));
    const caught = await view(body.catchId, event.judge);
    expect(caught.measurement.reading).toMatchObject({ kind: 'tape', taken: [1, 2] });
    expect(caught.measurement.reading.apparentMm).toBeCloseTo(40 * 25.4, 6);
    expect(caught.marks).toContain('by-tape');
    expect(caught.photographs).toHaveLength(3);
    // There is no board that the server could read by itself.
    expect((await send(world, event.judge, 'get', `/api/catches/${body.catchId}/bench-reading`)).status).toBe(
      404,
    );
    const check = await checkLedger(world.lauta.storage.read, event.eventId);
    expect(check.ok).toBe(true);
  });

  it('is refused as long as no two readings agree, or one has no photograph', async () => {
    expect((await claimTape(await tapeBody([40, 43]))).body).toMatchObject({ type: 'reading-refused' });
    expect((await claimTape(await tapeBody([41]))).status).toBe(400);
    const body = await tapeBody([41, 41]);
    expect((await claimTape({ ...body, photographs: body.photographs.slice(1) })).status).toBe(400);
    expect((await claimTape(await tapeBody([41, 41], { gripOffsetMm: 900 }))).status).toBe(400);
  });
});
