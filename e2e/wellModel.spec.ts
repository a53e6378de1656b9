import { expect, test, type Page } from '@playwright/test';
import fc from 'fast-check';
import type { EventView, WellView } from '@lauta/contract';
import { liveWellOf } from '@lauta/core/well';
import { BOAT_CUP, PHONE, newAngler, signedIn } from './people.ts';

/** What a person who watches the well believes: how many swim in it, and what was done last. */
interface Believed {
  aboard: number;
  done: ('came' | 'weighed' | 'gone' | 'looked')[];
  isOnline: boolean;
}

const LIMIT = 5;

/** One thing that is tapped, if it can be, and the count that has to stand on the screen after it. */
abstract class Tap implements fc.AsyncCommand<Believed, Page> {
  abstract check(believed: Readonly<Believed>): boolean;
  abstract tap(believed: Believed, page: Page): Promise<void>;
  async run(believed: Believed, page: Page): Promise<void> {
    await this.tap(believed, page);
    const face = page.getByRole('region', { name: 'The well at a glance' });
    await expect(face).toContainText(`${believed.aboard} of ${LIMIT}`);
    await expect(page.getByRole('list', { name: 'Fish in the well' }).locator(':scope > li')).toHaveCount(believed.aboard); // prettier-ignore
    // Whatever else is on the screen, one too many stops the fishing.
    await expect(page.getByText('Do not cast.')).toHaveCount(believed.aboard > LIMIT ? 1 : 0);
  }
  toString(): string {
    return this.constructor.name;
  }
}

class ComesIn extends Tap {
  private readonly ounces: number;
  private readonly isDouble: boolean;
  constructor(ounces: number, isDouble: boolean) {
    super();
    this.ounces = ounces;
    this.isDouble = isDouble;
  }
  check({ aboard }: Believed): boolean {
    return aboard <= LIMIT;
  }
  async tap(believed: Believed, page: Page): Promise<void> {
    // With one too many the page offers nothing but what brings it down again.
    if (believed.aboard > LIMIT) return;
    await page.getByRole('button', { name: 'A fish comes in' }).click();
    await page.getByLabel('Scale shows').fill(`${this.ounces} oz`);
    const into = page.getByRole('button', { name: /^(Into the well|Aboard, one too many)$/ });
    await (this.isDouble ? into.dblclick() : into.click());
    believed.aboard++;
    believed.done.push('came', 'weighed');
  }
  override toString(): string {
    return `ComesIn(${this.ounces} oz${this.isDouble ? ', twice' : ''})`;
  }
}

async function openRow(page: Page, pick: number, aboard: number): Promise<void> {
  const rows = page.getByRole('list', { name: 'Fish in the well' }).locator(':scope > li');
  await rows
    .nth(pick % aboard)
    .getByRole('button')
    .first()
    .click();
}

/** Something that is done with one fish of those aboard. */
abstract class WithOne extends Tap {
  protected readonly pick: number;
  constructor(pick: number) {
    super();
    this.pick = pick;
  }
  check({ aboard }: Believed): boolean {
    return aboard > 0;
  }
}

class LetGo extends WithOne {
  async tap(believed: Believed, page: Page): Promise<void> {
    await openRow(page, this.pick, believed.aboard);
    await page.getByRole('group', { name: 'What to do with it' }).getByRole('button', { name: 'Let go' }).click(); // prettier-ignore
    await page.getByRole('button', { name: 'let go by choice' }).click();
    believed.aboard--;
    believed.done.push('gone');
  }
}

class LooksAt extends WithOne {
  async tap(believed: Believed, page: Page): Promise<void> {
    await openRow(page, this.pick, believed.aboard);
    await page.getByRole('button', { name: 'weak', exact: true }).click();
    believed.done.push('looked');
  }
}

class Undo extends Tap {
  check({ done }: Believed): boolean {
    return done.length > 0;
  }
  async tap(believed: Believed, page: Page): Promise<void> {
    await page.getByRole('button', { name: /^Undo: / }).click();
    const last = believed.done.pop();
    if (last === 'came') believed.aboard--;
    if (last === 'gone') believed.aboard++;
  }
}

class LosesTheNetwork extends Tap {
  check({ isOnline }: Believed): boolean {
    return isOnline;
  }
  async tap(believed: Believed, page: Page): Promise<void> {
    await page.context().setOffline(true);
    believed.isOnline = false;
  }
}

class FindsTheNetworkAndReloads extends Tap {
  check({ isOnline }: Believed): boolean {
    return !isOnline;
  }
  async tap(believed: Believed, page: Page): Promise<void> {
    await page.context().setOffline(false);
    await page.reload();
    believed.isOnline = true;
  }
}

class GoesAwayAndBack extends Tap {
  check(): boolean {
    return true;
  }
  async tap(_believed: Believed, page: Page): Promise<void> {
    await page.getByRole('link', { name: 'Standings' }).first().click();
    await page.goBack();
  }
}

/** The phone's clock is set back by so many seconds, as phones do when they hear of the right time. */
class ClockIsSetBack extends Tap {
  private readonly seconds: number;
  constructor(seconds: number) {
    super();
    this.seconds = seconds;
  }
  check(): boolean {
    return true;
  }
  async tap(_believed: Believed, page: Page): Promise<void> {
    await page.evaluate((ms) => {
      localStorage.setItem('clock-set-back', String(ms + Number(localStorage.getItem('clock-set-back'))));
    }, 1000 * this.seconds);
  }
}

/** What the page takes for its clock can be set back. */
function settableClock(): void {
  const now = Date.now.bind(Date);
  Date.now = () => now() - Number(localStorage.getItem('clock-set-back'));
}

test('whatever is tapped in whatever order, offline and back: count, tags, server and ledger agree', async ({
  browser,
}) => {
  const pick = fc.nat({ max: 20 });
  const taps: fc.Arbitrary<fc.AsyncCommand<Believed, Page>>[] = [
    fc
      .tuple(fc.integer({ min: 12, max: 90 }), fc.boolean())
      .map(([ounces, twice]) => new ComesIn(ounces, twice)),
    fc
      .tuple(fc.integer({ min: 12, max: 90 }), fc.boolean())
      .map(([ounces, twice]) => new ComesIn(ounces, twice)),
    pick.map((one) => new LetGo(one)),
    pick.map((one) => new LooksAt(one)),
    fc.constant(new Undo()),
    fc.constant(new LosesTheNetwork()),
    fc.constant(new FindsTheNetworkAndReloads()),
    fc.constant(new GoesAwayAndBack()),
    fc.integer({ min: 1, max: 90 }).map((seconds) => new ClockIsSetBack(seconds)),
  ];
  await fc.assert(
    fc.asyncProperty(fc.array(fc.oneof(...taps), { minLength: 30, maxLength: 40 }), async (commands) => {
      const { page, context, event } = await newAngler(browser, PHONE, BOAT_CUP);
      await page.addInitScript(settableClock);
      await page.goto(`${event}/well`);
      await expect(page.getByText('The well is empty.')).toBeVisible();
      const believed: Believed = { aboard: 0, done: [], isOnline: true };
      await fc.asyncModelRun(() => ({ model: believed, real: page }), commands);
      await context.setOffline(false);
      const get = async <T>(path: string): Promise<T> => (await (await page.request.get(path)).json()) as T;
      const eventId = event.split('/').at(-1) ?? '';
      const who = await get<{ account: { entrants: { eventId: string; entrantId: string }[] } }>('/api/who');
      const entrantId = who.account.entrants.find((one) => one.eventId === eventId)?.entrantId ?? '';
      const today = (await get<EventView>(`/api/events/${eventId}`)).days.at(-1)?.dayId;
      await expect(page.getByRole('heading', { name: 'Waiting to be sent' })).toHaveCount(0, {
        timeout: 60_000,
      });
      const { days } = await get<WellView>(`/api/events/${eventId}/entrants/${entrantId}/well`);
      const entries = days.find(({ dayId }) => dayId === today)?.entries ?? [];
      const well = liveWellOf(entries);
      expect(well.fish).toHaveLength(believed.aboard);
      expect(well.contradictions, JSON.stringify(entries)).toEqual([]);
      const tags = well.fish.flatMap(({ tagId }) => tagId ?? []);
      expect(new Set(tags).size).toBe(tags.length);
      await context.close();
    }),
    { numRuns: 2, seed: 4310, endOnFailure: true },
  );
  const judge = await signedIn(browser, 'judge', {}, BOAT_CUP);
  const check = await judge.page.request.get(`${new URL(judge.page.url()).pathname.replace('/events/', '/api/events/')}/ledger/check`); // prettier-ignore
  expect(((await check.json()) as { ok: boolean }).ok).toBe(true);
  await judge.context.close();
});

test('an answer from before the last taps, heard after them, takes nothing back: not on this page nor on the next', async ({
  browser,
}) => {
  const { page, context, event } = await newAngler(browser, PHONE, BOAT_CUP);
  await page.goto(`${event}/well`);
  const face = page.getByRole('region', { name: 'The well at a glance' });
  const undo = page.getByRole('button', { name: /^Undo: / });
  await page.getByRole('button', { name: 'A fish comes in' }).click();
  await page.getByLabel('Scale shows').fill('2-8');
  await page.getByRole('button', { name: 'Into the well' }).click();
  await expect(undo).toBeVisible();
  const first = await undo.textContent();
  const waiting = page.getByRole('heading', { name: 'Waiting to be sent' });
  await expect(waiting).toHaveCount(0);
  // From here on every answer is the one that the server gave before the taps that follow.
  const path = /\/api\/events\/[^/]+\/entrants\/[^/]+\/well$/;
  const asked = page.waitForRequest(path);
  await page.reload();
  const body = await (await page.request.get((await asked).url())).text();
  await page.route(path, (route) => route.fulfill({ contentType: 'application/json', body }));
  const taken = page.waitForResponse('**/api/commands');
  await undo.click();
  await taken;
  await expect(waiting).toHaveCount(0);
  for (let i = 0; i < 3; i++) {
    await page.getByRole('link', { name: 'Standings' }).first().click();
    await page.goBack();
    await expect(undo).not.toHaveText(first ?? '');
    await expect(face).toContainText('1 of 5');
  }
  await undo.click();
  await expect(face).toContainText('0 of 5');
  await context.close();
});
