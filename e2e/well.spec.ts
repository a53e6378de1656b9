import { expect, test, type Browser, type Locator, type Page } from '@playwright/test';
import type { EventView, WellView } from '@lauta/contract';
import { formatScaleLine } from '@lauta/core/scale';
import { liveWellOf } from '@lauta/core/well';
import { axe } from './axe.ts';
import { BOAT_CUP, PHONE, newAngler } from './people.ts';

/** Opens the Boat Cup's well for an angler of whom nobody has heard yet. */
async function emptyWell(browser: Browser): Promise<{ page: Page; url: string; close: () => Promise<void> }> {
  const { page, context, event } = await newAngler(browser, PHONE, BOAT_CUP);
  const url = `${event}/well`;
  await page.goto(url);
  await expect(page.getByText('The well is empty.')).toBeVisible();
  return { page, url, close: () => context.close() };
}

async function comesIn(page: Page, weight: string): Promise<void> {
  await page.getByRole('button', { name: 'A fish comes in' }).click();
  await page.getByLabel('Scale shows').fill(weight);
  await page.getByRole('button', { name: /^(Into the well|Aboard, one too many)$/ }).click();
}
/** Where a thing lies on its page, whatever was scrolled. */
const topOf = (thing: Element): number => thing.getBoundingClientRect().top + window.scrollY;
const count = (page: Page) => page.getByRole('region', { name: 'The well at a glance' });

/** The well as the server has heard of it. */
async function onServer(page: Page, url: string) {
  const eventId = /events\/([^/]+)/.exec(url)?.[1] ?? '';
  const who = (await (await page.request.get('/api/who')).json()) as { account: { entrants: { eventId: string; entrantId: string }[] } }; // prettier-ignore
  const entrantId = who.account.entrants.find((one) => one.eventId === eventId)?.entrantId ?? '';
  const event = (await (await page.request.get(`/api/events/${eventId}`)).json()) as EventView;
  const view = (await (await page.request.get(`/api/events/${eventId}/entrants/${entrantId}/well`)).json()) as WellView; // prettier-ignore
  return liveWellOf(view.days.find(({ dayId }) => dayId === event.days.at(-1)?.dayId)?.entries ?? []);
}

test('a day at the well: six aboard stop the fishing, the adviser names one, undo brings it back', async ({
  browser,
}) => {
  const { page, url, close } = await emptyWell(browser);
  for (const weight of ['1-9', '2 lb 4', '3.25', '1 lb 14 oz', '2-11']) await comesIn(page, weight);
  await expect(count(page)).toContainText('5 of 5');
  // 25 + 36 + 52 + 30 + 43 oz are 186, 11 lb 10 oz, less or more by the scale's doubt alone.
  await expect(count(page)).toContainText('11-10');
  await expect(page.getByText(/1 lb 10\.0 oz gains an ounce/)).toBeVisible();
  await axe(page);
  // A number that can be meant in two ways is asked about.
  await page.getByRole('button', { name: 'A fish comes in' }).click();
  await page.getByLabel('Scale shows').fill('4.2');
  await page.getByRole('button', { name: /^pounds and ounces/ }).click();
  await page.getByRole('button', { name: 'Aboard, one too many' }).click();
  await expect(page.getByText('6 aboard, the limit is 5. Do not cast.')).toBeVisible();
  await expect(page.getByText(/^Let 1 go: over 99 %\. No beam needed\.$/)).toBeVisible();
  await axe(page);
  await page.getByRole('button', { name: 'Let 1 go' }).click();
  await expect(count(page)).toContainText('5 of 5');
  // The winner carries the numbered tag; the spare is free again.
  await expect(page.getByText('The spare tag is in the well')).toHaveCount(0);
  await expect.poll(async () => (await onServer(page, url)).fish.map(({ tagId }) => tagId).sort()).toEqual(['tag-1', 'tag-2', 'tag-3', 'tag-4', 'tag-5']); // prettier-ignore
  await page.getByRole('button', { name: /^Undo: .* tagged$/ }).click();
  await expect(page.getByText('The spare tag is in the well')).toBeVisible();
  await page.getByRole('button', { name: /^Undo: .* let go$/ }).click();
  await expect(page.getByText('Do not cast.')).toBeVisible();
  await close();
});

test('two close ones hang on the beam, and what it said stands', async ({ browser }) => {
  const { page, url, close } = await emptyWell(browser);
  for (const weight of ['2-0', '2-0', '2-8', '3-0', '3-8', '4-0']) await comesIn(page, weight);
  await page.getByRole('button', { name: /^Hang 1 and 2$/ }).click();
  await expect(page.getByRole('group', { name: 'On the beam' })).toContainText('s hanging');
  await page.getByRole('button', { name: '1 lower' }).click();
  await expect(page.getByText(/^Let 2 go: /)).toBeVisible();
  await page.getByRole('button', { name: 'Let 2 go' }).click();
  await expect.poll(async () => (await onServer(page, url)).gone.length).toBe(1);
  const well = await onServer(page, url);
  expect(well.comparisons).toMatchObject([{ outcome: 'left' }]);
  expect(well.contradictions).toEqual([]);
  await close();
});

test('without a network the well goes on, survives a reload, and arrives once', async ({ browser }) => {
  const { page, url, close } = await emptyWell(browser);
  await comesIn(page, '2-0');
  await expect.poll(async () => (await onServer(page, url)).fish.length).toBe(1);
  await page.context().setOffline(true);
  for (const weight of ['2-8', '3-0']) await comesIn(page, weight);
  await page.locator('main li button').first().click();
  await page.getByRole('button', { name: 'bleeding', exact: true }).click();
  // What is shown of it is on the disk: the page may be reloaded from here on.
  await expect(page.locator('main li button').first()).toContainText('bleeding');
  await expect(count(page)).toContainText('3 of 5');
  await expect(page.getByRole('heading', { name: 'Waiting to be sent' })).toBeVisible();
  await page.context().setOffline(false);
  await page.reload();
  await expect(count(page)).toContainText('3 of 5');
  await expect.poll(async () => (await onServer(page, url)).fish.length).toBe(3);
  await expect
    .poll(
      async () => (await onServer(page, url)).fish.filter(({ condition }) => condition === 'bleeding').length,
    )
    .toBe(1);
  await close();
});

test('by keyboard alone: wrong input is told, a double Enter brings one fish', async ({ browser }) => {
  const { page, url, close } = await emptyWell(browser);
  await page.getByRole('button', { name: 'A fish comes in' }).focus();
  await page.keyboard.press('Enter');
  await page.getByLabel('Scale shows').focus();
  await page.keyboard.type('-3');
  await expect(page.getByText('as 3-4 or 3 lb 4')).toBeVisible();
  await page.getByLabel('Scale shows').fill('');
  await page.keyboard.type('2-8');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await expect(count(page)).toContainText('1 of 5');
  await expect.poll(async () => (await onServer(page, url)).fish.length).toBe(1);
  await close();
});

test('the second click of a double one is for what the first hit: it taps nothing that came to lie there', async ({
  browser,
}) => {
  const { page, close } = await emptyWell(browser);
  await page.getByRole('button', { name: 'A fish comes in' }).click();
  await page.getByLabel('Scale shows').fill('2-8');
  const middle = async (what: Locator): Promise<[number, number]> => {
    // Clear of what is fixed to the screen's lower edge.
    await what.evaluate((element) => element.scrollIntoView({ block: 'center' }));
    const { x, y, width, height } = (await what.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
    return [x + width / 2, y + height / 2];
  };
  await page.mouse.click(...(await middle(page.getByRole('button', { name: 'Into the well' }))));
  await expect(count(page)).toContainText('1 of 5');
  const water = page.getByRole('link', { name: 'Oxygen, ice and the pump' });
  const at = await middle(water);
  // The browser tells the second click of a double one by its count.
  await page.mouse.move(...at);
  await page.mouse.down({ clickCount: 2 });
  await page.mouse.up({ clickCount: 2 });
  // Long enough for the page to have gone there.
  await page.waitForTimeout(1500);
  await expect(page.getByRole('heading', { name: 'Keep them alive' })).toHaveCount(0);
  await expect(count(page)).toContainText('1 of 5');
  await page.mouse.click(...at);
  await expect(page.getByRole('heading', { name: 'Keep them alive' })).toBeVisible();
  // Two quick taps on neighbours that both stay are two taps.
  await page.goBack();
  await page.locator('main li button').first().click();
  const looks = page.getByRole('button', { name: 'weak', exact: true });
  await page.mouse.click(...(await middle(page.getByRole('button', { name: 'Count by hand' }))));
  await expect(page.getByRole('group', { name: 'Fish counted' })).toBeVisible();
  await page.mouse.move(...(await middle(looks)));
  await page.mouse.down({ clickCount: 2 });
  await page.mouse.up({ clickCount: 2 });
  await expect(page.getByRole('button', { name: /^Undo: .*looked at/ })).toBeVisible();
  await close();
});

test('one too many aboard is vermilion on every page, and a pump that is off is not forgotten on another', async ({
  browser,
}) => {
  const { page, url, close } = await emptyWell(browser);
  for (const weight of ['2-0', '2-4', '3-0', '1-12', '2-8']) await comesIn(page, weight);
  await expect(count(page)).toContainText('5 of 5');
  await page.getByRole('link', { name: 'Standings' }).first().click();
  await expect(page.getByRole('heading', { level: 1, name: 'Standings' })).toBeVisible();
  await expect(page.getByText('Do not cast.')).toHaveCount(0);
  await page.goBack();
  await comesIn(page, '2-2');
  await expect(count(page)).toContainText('6 aboard');
  await page.getByRole('link', { name: 'Standings' }).first().click();
  await expect(page.getByText('6 aboard, the limit is 5. Do not cast.')).toBeVisible();
  await axe(page);
  await page.getByRole('link', { name: 'To the well' }).click();
  await page.getByRole('button', { name: /^Undo: / }).click();
  await page.getByRole('button', { name: /^Undo: / }).click();
  await expect(count(page)).toContainText('5 of 5');
  await expect.poll(async () => (await onServer(page, url)).fish.length).toBe(5);

  // What was tapped just before stands on the next page at once, though the server does not answer.
  let answer = (): void => undefined;
  const answered = new Promise<void>((resolve) => (answer = resolve));
  await page.route(/\/entrants\/[^/]+\/well$/, async (route) => {
    await answered;
    await route.continue();
  });
  await page.goto(`${url}/water`);
  await page.getByRole('button', { name: 'The pump is off' }).click();
  await page.goto(url.replace(/well$/, 'standings'));
  await expect(page.getByText(/^The pump is off: \d+ min left/)).toBeVisible();
  await expect(page.getByText('Do not cast.')).toHaveCount(0);
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Well' }).click();
  await expect(count(page)).toContainText('5 of 5');
  answer();
  await page.getByRole('link', { name: 'To the pump' }).click();
  await page.getByRole('button', { name: 'The pump is on again' }).click();
  await page.getByRole('link', { name: 'Standings' }).first().click();
  await expect(page.getByRole('heading', { level: 1, name: 'Standings' })).toBeVisible();
  await expect(page.getByText(/The pump is off/)).toHaveCount(0);
  await close();
});

test('the way back closes what a tap opened; time in air is counted where it is tapped; a total is shared by choice', async ({
  browser,
}) => {
  const { page, url, close } = await emptyWell(browser);
  await page.getByRole('button', { name: 'A fish comes in' }).click();
  await page.goBack();
  await expect(count(page)).toContainText('0 of 5');
  await page.getByRole('button', { name: 'A fish comes in' }).click();
  await page.getByRole('button', { name: 'Out of the water' }).click();
  await expect(page.getByRole('timer')).toContainText('1 s');
  await page.getByLabel('Scale shows').fill('2-8');
  await page.getByRole('button', { name: 'Into the well' }).click();
  await expect(count(page)).toContainText('1 of 5');
  await expect.poll(async () => (await onServer(page, url)).fish[0]?.airSeconds).toBeGreaterThanOrEqual(1);

  const standings = await page.context().newPage();
  await standings.goto(url.replace(/well$/, 'standings'));
  const own = standings.getByRole('listitem').filter({ hasText: 'on the water 2-8, 1 fish, unofficial' });
  await expect(standings.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(own).toHaveCount(0);
  const share = page.getByRole('checkbox', { name: /Show the total to everybody/ });
  await share.click();
  await expect(share).toBeChecked();
  await expect(own).not.toHaveCount(0);
  await share.click();
  await expect(share).not.toBeChecked();
  await expect(own).toHaveCount(0);

  await page.locator('main li button').first().click();
  await page.getByRole('button', { name: 'Let go', exact: true }).click();
  await page.getByRole('button', { name: 'Out of the water' }).click();
  await expect(page.getByRole('timer')).toContainText('1 s');
  await page.getByRole('button', { name: 'Back in the water' }).click();
  await page.getByRole('button', { name: 'let go by choice' }).click();
  await expect.poll(async () => (await onServer(page, url)).gone[0]?.airSeconds).toBeGreaterThanOrEqual(2);
  await close();
});

test('from the demo’s scale: a fish that swings is waited for, a restless one is said', async ({
  browser,
}) => {
  const { page, url, close } = await emptyWell(browser);
  await page.getByRole('button', { name: 'A fish comes in' }).click();
  await page.getByRole('button', { name: 'Simulated scale' }).click();
  await expect(page.getByText('nothing hangs on it')).toBeVisible();
  await page.getByRole('button', { name: 'A restless one' }).click();
  await expect(page.getByText('it moves')).toBeVisible();
  // Whatever the scale says, what is tapped stays where it is: a thumb on its way would miss it.
  const top = await page.getByRole('button', { name: 'Taken when steady' }).evaluate(topOf);
  await expect(page.getByText(/does not settle/)).toBeVisible({ timeout: 20_000 });
  expect(await page.getByRole('button', { name: /^Take the middle/ }).evaluate(topOf)).toBe(top);
  await page.getByRole('button', { name: 'Off the hook' }).click();
  await page.getByRole('button', { name: 'A calm fish' }).click();
  await expect(page.getByText('steady', { exact: true })).toBeVisible({ timeout: 20_000 });
  await axe(page);
  await page.getByRole('button', { name: /^Take \d/ }).click();
  await page.getByRole('button', { name: 'Into the well' }).click();
  await expect.poll(async () => (await onServer(page, url)).fish[0]?.readings.length).toBe(1);
  await close();
});

test('a scale on a serial port speaks the same lines; pulled, it is said', async ({ browser }) => {
  const { page, context, event } = await newAngler(browser, PHONE, BOAT_CUP);
  const line = (massG: number, atMs: number): string => formatScaleLine({ kind: 'reading', atMs, massG, divisionG: 5, batteryPercent: 4 }); // prettier-ignore
  const lines = Array.from({ length: 40 }, (_, i) => line(i < 5 ? 0 : 1360, i * 100));
  await page.addInitScript((all: string[]) => {
    let sent = 0;
    let pull: (() => void) | null = null;
    const port = {
      open: () => Promise.resolve(),
      close: () => Promise.resolve(),
      writable: new WritableStream(),
      readable: new ReadableStream({
        start(controller) {
          // In pieces that break anywhere.
          const timer = setInterval(() => {
            const text = all[sent++] ?? '';
            if (text === '') return;
            controller.enqueue(new TextEncoder().encode(text.slice(0, 7)));
            controller.enqueue(new TextEncoder().encode(text.slice(7)));
          }, 50);
          pull = () => {
            clearInterval(timer);
            controller.close();
          };
        },
      }),
    };
    Object.defineProperty(navigator, 'serial', { value: { requestPort: () => Promise.resolve(port) } });
    Object.assign(window, { pullTheCable: () => pull?.() });
  }, lines);
  await page.goto(`${event}/well`);
  await page.getByRole('button', { name: 'A fish comes in' }).click();
  await page.getByRole('button', { name: 'Connect a scale' }).click();
  await expect(page.getByText('battery at 4 %')).toBeVisible();
  // 1360 g are 2 lb 15.97 oz (GNU units: 1360 g / ounce = 47.972588).
  await expect(page.getByRole('button', { name: 'Take 3 lb 0.0 oz' })).toBeEnabled({ timeout: 15_000 });
  await page.evaluate(() => (window as unknown as { pullTheCable: () => void }).pullTheCable());
  await expect(page.getByText(/The scale is disconnected/)).toBeVisible();
  await context.close();
});
