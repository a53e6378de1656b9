import type { Role } from '@lauta/core/people';
import {
  BOAT_CUP,
  BOAT_CUP_SHEET,
  DEMO_ANGLERS,
  DEMO_OFFICIALS,
  demoId,
  planBenchScale,
  planWeighIn,
  planWell,
  type PlannedBag,
  type DemoPerson,
} from '@lauta/sim/demo';
import type { Lauta } from '../context/lauta.ts';
import { BOAT_CUP_ID, ensureDirector, sendAs, takeUp } from './sendAs.ts';

const send = sendAs(BOAT_CUP_ID);
const PREPARED_MS = Date.parse(BOAT_CUP.preparedAt);
/** As many as a phone would send in one go. */
const AT_ONCE = 12;

/** The demo's second event: boats, weight, and the well of its angler as it is at noon. */
export async function loadBoatCup(lauta: Lauta): Promise<void> {
  const stores = lauta.storage.read;
  const director = await ensureDirector(lauta, PREPARED_MS);
  await send(lauta, director, 'event', PREPARED_MS, 'event.create', {
    eventId: BOAT_CUP_ID,
    name: BOAT_CUP.name,
    zone: BOAT_CUP.zone,
    isPublic: true,
    days: BOAT_CUP.days.map(({ date, sessions }) => ({
      date,
      sessions: sessions.map((one) => ({ ...one })),
    })),
  });
  await send(lauta, director, 'rules', PREPARED_MS + 60_000, 'rules.publish', { sheet: BOAT_CUP_SHEET });
  const cast: { person: DemoPerson; role: Role }[] = [
    { person: DEMO_OFFICIALS.judge, role: 'judge' },
    { person: DEMO_OFFICIALS['weigh-master'], role: 'weigh-master' },
    ...DEMO_ANGLERS.slice(0, BOAT_CUP.boats).map((person) => ({ person, role: 'angler' as const })),
  ];
  for (const [i, { person, role }] of cast.entries()) {
    await send(
      lauta,
      director,
      `person ${person.email} ${role}`,
      PREPARED_MS + 120_000 + i * 1000,
      'people.add',
      {
        accountId: demoId(`account ${person.email}`, PREPARED_MS),
        name: person.name,
        email: person.email,
        roles: [role],
      },
    );
    await takeUp(
      lauta,
      BOAT_CUP_ID,
      demoId(`account ${person.email}`, PREPARED_MS),
      PREPARED_MS + 120_000 + i * 1000,
    );
  }
  await weighDayOne(lauta, director);
  const accountId = demoId('account angler@kestrel-mere.example', PREPARED_MS);
  const own = (await stores.people.entrantsWith(accountId)).find(({ eventId }) => eventId === BOAT_CUP_ID);
  const today = (await stores.events.days(BOAT_CUP_ID)).at(-1);
  if (!own || !today) throw new Error('demo: expected the angler among the boats');
  const { entrantId } = own;
  const entries = planWell();
  for (let from = 0; from < entries.length; from += AT_ONCE) {
    const some = entries.slice(from, from + AT_ONCE);
    const atMs = some.at(-1)?.atMs ?? PREPARED_MS;
    await send(lauta, accountId, `well ${from}`, atMs, 'well.enter', {
      entrantId,
      dayId: today.dayId,
      entries: some,
    });
  }
}

/** The first day's bags: entered by the weigh master, confirmed by the director. */
async function weighDayOne(lauta: Lauta, director: string): Promise<void> {
  const stores = lauta.storage.read;
  const [first] = await stores.events.days(BOAT_CUP_ID);
  const entrants = await stores.people.entrantsOf(BOAT_CUP_ID);
  if (!first) throw new Error('demo: expected a first day');
  const weighMaster = demoId(`account ${DEMO_OFFICIALS['weigh-master'].email}`, PREPARED_MS);
  const bench = planBenchScale();
  await send(lauta, weighMaster, 'bench scale', bench.at(-1)?.atMs ?? 0, 'weigh-in.enter', {
    entries: bench,
  });
  const ids = entrants.toSorted((a, b) => a.number - b.number).map(({ entrantId }) => entrantId);
  for (const { boat, acts } of planWeighIn(first.dayId, ids)) {
    for (const [i, some] of byPerson(acts).entries()) {
      const accountId = some[0]?.isConfirmation ? director : weighMaster;
      await send(lauta, accountId, `weigh-in ${boat} ${i}`, some.at(-1)?.atMs ?? 0, 'weigh-in.enter', {
        entries: some.map(({ entryId, atMs, act }) => ({ entryId, atMs, act })),
      });
    }
  }
}

/** Runs of acts by one person. */
function byPerson(acts: PlannedBag['acts']): PlannedBag['acts'][] {
  const runs: PlannedBag['acts'][] = [];
  for (const act of acts) {
    const run = runs.at(-1);
    if (run?.[0]?.isConfirmation === act.isConfirmation) run.push(act);
    else runs.push([act]);
  }
  return runs;
}
