import { readFileSync, readdirSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import { ROLES } from '@lauta/core/people';
import { rollDice } from '@lauta/sim/camera';
import { holdEvent, openWorld, send, takePart, type Person, type TestEvent, type World } from './world.ts';

/** All fields of all commands when the attack is run; a sample of them in every run of the tests. */
const IS_WHOLE = process.env['LAUTA_ATTACK'] === 'whole';
const SAMPLE = 240;
const SEED = 20261130;

const deep = (levels: number): unknown => (levels === 0 ? 1 : [deep(levels - 1)]);
/** What a field is not expecting: 39 values. */
const VALUES: unknown[] = [
  null, true, false, 0, -0, -1, 1, 1.5, 1e20, -1e20, 1e308, 2 ** 53, 2 ** 31, 0.1 + 0.2, '', ' ', 'a', 'A'.repeat(100_000),
  '\ud800', '\udfff tail', '\u0000', 'a\u202eb', '\u200b', 'é'.normalize('NFD'), '💥', "'; DROP TABLE catches; --", '<script>',
  '../../etc/passwd', '00000000-0000-0000-0000-000000000000', uuidv7().toUpperCase(), '0000-01-01T00:00:00Z',
  '9999-12-31T23:59:59.999Z', '2026-02-30T00:00:00Z', [], [null], {}, { __proto__: 1, constructor: 2 }, deep(60),
  Array.from({ length: 1000 }, (_, i) => i),
]; // prettier-ignore

type Path = readonly (string | number)[];
interface Landed {
  kind: string;
  eventId: string;
  body: Record<string, unknown>;
}

/** Every place in a value at which another could stand. */
function pathsOf(value: unknown, path: Path = []): Path[] {
  if (typeof value !== 'object' || value === null) return [path];
  return [path, ...Object.entries(value).flatMap(([name, inner]) => pathsOf(inner, [...path, Array.isArray(value) ? Number(name) : name]))]; // prettier-ignore
}

function withAt(value: unknown, path: Path, put: unknown): unknown {
  const [name, ...rest] = path;
  if (name === undefined) return put;
  if (Array.isArray(value)) return value.map((inner, i) => (i === name ? withAt(inner, rest, put) : inner) as unknown); // prettier-ignore
  return { ...(value as object), [name]: withAt((value as Record<string, unknown>)[name], rest, put) };
}

let world: World;
let event: TestEvent;
let everybody: Person;
let entrantId: string;
beforeAll(async () => {
  // Else most are told to wait, and nothing is tried.
  world = await openWorld({ writesPerMinute: 1e9 });
  event = await holdEvent(world);
  everybody = await takePart(world, event.director, event.eventId, 'Everybody', [...ROLES]);
  entrantId = (await world.lauta.storage.read.people.entrantsWith(everybody.accountId))[0]?.entrantId ?? '';
});
afterAll(() => world.close());

/** One command of each kind as landed pages sent it, with this event's own ids in place of theirs. */
function commands(): Landed[] {
  const fixtures = new URL('./fixtures/', import.meta.url);
  const kinds = new Map<string, Landed>();
  for (const name of readdirSync(fixtures).filter((one) => /^commands\./.test(one)))
    for (const command of JSON.parse(readFileSync(new URL(name, fixtures), 'utf8')) as Landed[])
      kinds.set(command.kind, command);
  kinds.set('people.accept', { kind: 'people.accept', eventId: '', body: { token: 'x'.repeat(43) } });
  kinds.set('people.remove', { kind: 'people.remove', eventId: '', body: { accountId: uuidv7(), roles: ['judge'], why: '' } }); // prettier-ignore
  return [...kinds.values()].map(({ kind, body }) => {
    const own = { ...body };
    if ('entrantId' in own) own['entrantId'] = entrantId;
    if ('dayId' in own) own['dayId'] = event.dayId;
    return { kind, eventId: event.eventId, body: own };
  });
}

describe('a field of a command that holds what it should not', () => {
  it('has 39 values to be tried with', () => {
    expect(VALUES).toHaveLength(39);
  });

  it(`is refused or taken, and never a fault of the server${IS_WHOLE ? '' : ' (a sample)'}`, async () => {
    const all = commands().flatMap((command) => {
      const whole = { v: 1, commandId: uuidv7(), madeAt: '2026-06-14T10:00:00.000Z', deviceId: uuidv7(), ...command }; // prettier-ignore
      return pathsOf(whole).flatMap((path) => VALUES.map((put, i) => ({ kind: command.kind, path, i, sent: withAt(whole, path, put) }))); // prettier-ignore
    });
    const dice = rollDice(SEED);
    const tried = IS_WHOLE ? all : Array.from({ length: SAMPLE }, () => all[Math.floor(dice.next() * all.length)] as (typeof all)[number]); // prettier-ignore
    const faults: string[] = [];
    const statuses = new Map<number, number>();
    for (const { kind, path, i, sent } of tried) {
      const key = uuidv7();
      const body = typeof sent === 'object' && sent !== null && 'commandId' in sent && path[0] !== 'commandId' ? { ...sent, commandId: key } : sent; // prettier-ignore
      const { status } = await send(world, everybody, 'post', '/api/commands').set('Idempotency-Key', key).set('Content-Type', 'application/json').send(JSON.stringify(body)); // prettier-ignore
      statuses.set(status, (statuses.get(status) ?? 0) + 1);
      if (status >= 500) faults.push(`${kind} ${path.join('.')} value ${i}: ${status}`);
      // An account that was taken away by a value that happened to fit would only be asked to sign in.
      if (status === 401) everybody = await world.signInAgain(everybody);
    }
    process.stdout.write(`fuzz: ${tried.length} of ${all.length} commands: ${[...statuses].sort().map(([status, count]) => `${count} × ${status}`).join(', ')}\n`); // prettier-ignore
    expect(faults).toEqual([]);
    // Each was looked at: none was put off, and of all of them some fit.
    expect(statuses.get(429)).toBeUndefined();
    if (IS_WHOLE) expect(statuses.get(200)).toBeGreaterThan(0);
  }, 3_600_000);
});
