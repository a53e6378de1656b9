import { expect, test, type Page } from '@playwright/test';
import type { EventView, StandingsView, WeighInView } from '@lauta/contract';
import { weighInOf } from '@lauta/core/weigh-in';
import { axe } from './axe.ts';
import { BOAT_CUP, newAngler, signedIn } from './people.ts';

const eventOf = (page: Page): string => /events\/([^/]+)/.exec(page.url())?.[1] ?? '';

/** Today's bags as the server has heard of them. */
async function today(page: Page) {
  const eventId = eventOf(page);
  const event = (await (await page.request.get(`/api/events/${eventId}`)).json()) as EventView;
  const view = (await (await page.request.get(`/api/events/${eventId}/weigh-in`)).json()) as WeighInView;
  const { tickets } = weighInOf(view.entries);
  return { view, tickets: tickets.filter(({ dayId }) => dayId === event.days.at(-1)?.dayId) };
}

/** A boat's bag of today as the server has heard of it. */
async function bagOf(page: Page, boat: number) {
  const { view, tickets } = await today(page);
  const entrantId = view.entrants.find(({ number }) => number === boat)?.entrantId;
  return tickets.find((ticket) => ticket.entrantId === entrantId);
}

async function openStation(page: Page): Promise<void> {
  await page.goto(`/events/${eventOf(page)}/weigh-in`);
  await expect(page.getByRole('heading', { level: 1, name: 'Weigh-in' })).toBeVisible();
}

/** Draws a name with the mouse. */
async function draw(page: Page, label: string): Promise<void> {
  const group = page.getByRole('group', { name: label });
  await group.scrollIntoViewIfNeeded();
  const box = await group.getByRole('img').boundingBox();
  if (!box) throw new Error('expected a field to draw in');
  await page.mouse.move(box.x + 20, box.y + 40);
  await page.mouse.down();
  for (let i = 1; i <= 8; i++) await page.mouse.move(box.x + 20 + 15 * i, box.y + 40 + 25 * (i % 2));
  await page.mouse.up();
  await group.getByRole('button', { name: 'Sign' }).click();
}

/** An entrant of whom nobody has heard yet, by name or number. */
async function newBoat(browser: Parameters<typeof newAngler>[0], page: Page): Promise<number> {
  const { context } = await newAngler(browser, {}, BOAT_CUP);
  await context.close();
  const { view } = await today(page);
  return Math.max(...view.entrants.map(({ number }) => number));
}

async function queue(page: Page, number: number): Promise<void> {
  await page.getByLabel('Find a boat by name or number').fill(String(number));
  await page.getByLabel('Find a boat by name or number').press('Enter');
  // The bag at the scale stays there until another one is chosen.
  const last = page.getByRole('region', { name: 'Queue' }).getByRole('button').last();
  await expect(last).toContainText('waits');
  await last.click();
  await expect(last).toHaveAttribute('aria-current', 'true');
}

async function weigh(page: Page, gross: string): Promise<void> {
  await page.getByRole('button', { name: /^Call number/ }).click();
  await page.getByRole('button', { name: 'Bag checked', exact: true }).click();
  await page.getByLabel('Gross').fill(gross);
  await page.getByLabel('Wet bag').fill('15 oz');
  await page.getByRole('button', { name: 'Confirm weight' }).click();
}

test('a bag goes from the queue to the tank: two people, two signatures, a ticket, and the standings move', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'weigh-master', {}, BOAT_CUP);
  const boat = await newBoat(browser, page);
  await openStation(page);
  await queue(page, boat);
  await weigh(page, '14-2');
  await expect(page.getByText('A second person signs in and confirms this weight.')).toBeVisible();
  await axe(page);
  const director = await signedIn(browser, 'director', {}, BOAT_CUP);
  await openStation(director.page);
  await director.page
    .getByRole('button', { name: new RegExp(`13-3`) })
    .last()
    .click();
  await director.page.getByRole('button', { name: 'I see the same figures: confirm' }).click();
  await expect(director.page.getByText('to be signed').first()).toBeVisible();
  await director.context.close();
  // The other screen hears of it by itself.
  await expect(page.getByRole('group', { name: 'The angler signs' })).toBeVisible();
  await draw(page, 'The angler signs');
  await draw(page, 'The weigh master signs');
  await axe(page);
  await page.getByRole('button', { name: '5 into tank 1' }).click();
  await expect.poll(async () => (await bagOf(page, boat))?.released?.alive).toBe(5);
  const ticket = await bagOf(page, boat);
  const entrantId = ticket?.entrantId;
  expect(ticket).toMatchObject({ signatures: { angler: { signature: { kind: 'drawn' } } } });
  const pdf = await page.request.get(
    `/api/events/${eventOf(page)}/tickets/${ticket?.ticketId ?? ''}/ticket.pdf`,
  );
  expect([pdf.status(), pdf.headers()['content-type']]).toEqual([200, 'application/pdf']);
  const { standings } = (await (await page.request.get(`/api/events/${eventOf(page)}/standings?pageSize=200`)).json()) as StandingsView; // prettier-ignore
  // 14 lb 2 oz less 15 oz are 211 oz.
  expect(standings.find((one) => one.entrantId === entrantId)).toMatchObject({ score: { steps: 211 }, provisionalSteps: 0 }); // prettier-ignore
  await context.close();
});

test('without a network bags go on; a wrong weight is told, a signed one is corrected with its reason', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'weigh-master', {}, BOAT_CUP);
  const boat = await newBoat(browser, page);
  await openStation(page);
  await expect(page.getByRole('heading', { name: 'A bag arrives' })).toBeVisible();
  await context.setOffline(true);
  await queue(page, boat);
  await page.getByRole('button', { name: /^Call number/ }).click();
  await page.getByRole('button', { name: 'Bag checked', exact: true }).click();
  await page.getByLabel('Gross').fill('1-0');
  await page.getByLabel('Wet bag').fill('2-0');
  await expect(page.getByRole('button', { name: 'Confirm weight' })).toBeDisabled();
  await page.getByLabel('Gross').fill('9-0');
  await page.getByLabel('Wet bag').fill('1-0');
  await page.getByRole('button', { name: 'Confirm weight' }).click();
  await expect(page.getByText('8-0').first()).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Waiting to be sent' })).toBeVisible();
  await context.setOffline(false);
  const grossOz = async (): Promise<number> => Math.round(((await bagOf(page, boat))?.weight?.grossG ?? 0) / 28.349523125); // prettier-ignore
  await expect.poll(grossOz).toBe(9 * 16);
  await page.getByRole('button', { name: 'Correct it' }).click();
  await page.getByLabel('Gross').fill('8-8');
  await page.getByRole('button', { name: 'Confirm weight' }).click();
  await expect(page.getByText('7-8').first()).toBeVisible();
  await expect.poll(grossOz).toBe(8 * 16 + 8);
  // Taken back: the former weight holds again.
  await page.getByRole('button', { name: 'Undo: weighed' }).click();
  await expect(page.getByText('8-0').first()).toBeVisible();
  await expect.poll(grossOz).toBe(9 * 16);
  await context.close();
});

test('a scale’s plate and its checks: one that is off is told until it is right, and no bag is too heavy for it', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'weigh-master', {}, BOAT_CUP);
  const boat = await newBoat(browser, page);
  await openStation(page);
  const book = page.locator('details', { has: page.getByRole('heading', { name: /scale/i }) });
  await page.locator('summary', { hasText: /scale/i }).click();
  await page.getByRole('button', { name: 'Another scale' }).click();
  const name = `Scale by the door ${Date.now()}`;
  await book.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Weighs up to').fill('10-0');
  await page.getByLabel('Its division, e').selectOption('0.01 lb');
  await book.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('heading', { name })).toBeVisible();
  const summary = page.locator('summary', { hasText: name });
  await expect(summary).toContainText('not checked today');
  const check = async (known: string, shows: string): Promise<void> => {
    await page.getByLabel('A known weight').fill(known);
    await page.getByLabel('shows', { exact: true }).fill(shows);
    await book.getByRole('button', { name: 'Keep', exact: true }).first().click();
  };
  // 500 divisions of a hundredth may be off by one (NIST Handbook 44, 2.20, table 6): an ounce is six.
  await check('5-0', '5-1');
  await expect(summary).toContainText('more than its class allows');
  await expect(book.getByText('outside its class')).toBeVisible();
  await axe(page);
  await book.getByRole('button', { name: 'Undo: scale checked' }).click();
  await expect(summary).toContainText('not checked today');
  await book.getByRole('button', { name: 'Empty, it shows zero' }).click();
  await check('5-0', '5-0');
  await expect(summary).toContainText('checked');
  await expect(book.getByText('within its class')).toHaveCount(2);

  await queue(page, boat);
  await page.getByRole('button', { name: /^Call number/ }).click();
  await page.getByRole('button', { name: 'Bag checked', exact: true }).click();
  await page.getByLabel('Gross').fill('11-0');
  await page.getByLabel('Wet bag').fill('15 oz');
  await page.getByRole('button', { name: 'Confirm weight' }).click();
  await expect(page.getByText('More than this scale can weigh')).toBeInViewport();
  await page.getByLabel('Gross').fill('9-0');
  await page.getByRole('button', { name: 'Confirm weight' }).click();
  await expect(page.getByText('8-1').first()).toBeVisible();
  await expect
    .poll(async () => {
      const { scales } = weighInOf((await today(page)).view.entries);
      return scales.get((await bagOf(page, boat))?.weight?.scaleId ?? '')?.name;
    })
    .toBe(name);
  // The way back leads to the bag before, not off the page.
  const first = page.getByRole('region', { name: 'Queue' }).getByRole('button').first();
  const here = await page.getByRole('heading', { level: 2, name: /^\d+ / }).textContent();
  await first.click();
  if ((await page.getByRole('region', { name: 'Queue' }).getByRole('button').count()) > 1)
    await expect(page.getByRole('heading', { level: 2, name: here ?? '' })).toHaveCount(0);
  await page.goBack();
  await expect(page.getByRole('heading', { level: 2, name: here ?? '' })).toBeVisible();
  await context.close();
});

test('ten bags by one operator, the application’s part of each', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'weigh-master', {}, BOAT_CUP);
  const director = await signedIn(browser, 'director', {}, BOAT_CUP);
  await openStation(page);
  await openStation(director.page);
  const free = (await today(page)).view.entrants.filter(({ name }) => name !== '');
  const queued = new Set((await today(page)).tickets.map(({ entrantId }) => entrantId));
  const boats = free.filter(({ entrantId }) => !queued.has(entrantId)).slice(0, 10);
  const seconds: number[] = [];
  for (const { number } of boats) {
    const from = performance.now();
    await queue(page, number);
    const called = page.getByRole('button', { name: /^Call number/ });
    const ticketNumber = /\d+/.exec((await called.textContent()) ?? '')?.[0] ?? '';
    await weigh(page, '10-0');
    const theirs = director.page
      .getByRole('region', { name: 'Queue' })
      .getByRole('button', { name: new RegExp(`^${ticketNumber}\\b`) });
    await theirs.first().click();
    await director.page.getByRole('button', { name: 'I see the same figures: confirm' }).click();
    await page
      .getByRole('region', { name: 'Queue' })
      .getByRole('button', { name: new RegExp(`^${ticketNumber}\\b`) })
      .first()
      .click();
    await draw(page, 'The angler signs');
    await draw(page, 'The weigh master signs');
    await page.getByRole('button', { name: /into tank 1/ }).click();
    await page.getByRole('button', { name: 'Next bag' }).click();
    seconds.push((performance.now() - from) / 1000);
  }
  const median = seconds.toSorted((a, b) => a - b)[seconds.length >> 1] ?? 0;
  console.log(`a bag in ${seconds.map((one) => one.toFixed(1)).join(', ')} s, median ${median.toFixed(1)} s`);
  expect(boats.length).toBeGreaterThan(5);
  // Machines are noisy; the wish is 25 s a bag.
  expect(median).toBeLessThan(25);
  await context.close();
  await director.context.close();
});

test('an angler sees numbers and calls, and nothing to enter', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler', {}, BOAT_CUP);
  await page.goto(`/events/${eventOf(page)}/weigh-in`);
  await expect(page.getByRole('heading', { level: 1, name: 'Weigh-in' })).toBeVisible();
  await expect(page.getByText(/wait\.$|No bag yet/)).toBeVisible();
  await expect(page.getByRole('button', { name: /Call number/ })).toHaveCount(0);
  await axe(page);
  // The event speaks of bags where nothing is claimed by photograph.
  await page.goto(`/events/${eventOf(page)}`);
  await expect(page.getByText('not yet signed')).toBeVisible();
  await expect(page.getByText('await a judge')).toHaveCount(0);
  await context.close();
});
