import { expect, test, type Page } from '@playwright/test';
import type { Role } from '@lauta/core/people';
import { axe, axeInEachLook } from './axe.ts';
import { PHONE, signedIn } from './people.ts';
import { READ_MS } from './photo.ts';

/** Nothing is on its way any more. */
async function settled(page: Page): Promise<void> {
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(page.locator('.loading')).toHaveCount(0);
}

const PAGES: [string, Role, string, RegExp][] = [
  ['event', 'director', '', /Kestrel Mere Board Open/],
  ['rules', 'director', '/rules', /Rule sheet, version/],
  ['people', 'director', '/people', /People/],
  ['boards', 'director', '/boards', /Kinds of board/],
  ['new board', 'director', '/boards/new', /A new kind of board/],
  ['water', 'angler', '/water', /Water/],
  ['well', 'angler', '/well', /Well/],
  ['settings', 'angler', '/settings', /Settings/],
  ['judge', 'judge', '/judge', /Judge/],
  ['specimens', 'angler', '/specimens', /On the bank/],
  ['standings', 'angler', '/standings', /Standings/],
  ['records', 'judge', '/records', /Records/],
];

for (const role of ['director', 'angler', 'judge'] as const) {
  test(`every page for a role, ${role}, is without a fault that axe finds, in each look`, async ({
    browser,
  }) => {
    const { context, page } = await signedIn(browser, role);
    const event = page.url();
    for (const [, of, path, heading] of PAGES) {
      if (of !== role) continue;
      await page.goto(event + path);
      await expect(page.getByRole('heading', { level: 1, name: heading })).toBeVisible();
      await settled(page);
      await axeInEachLook(page);
    }
    await context.close();
  });
}

test('the judge’s desk, a catch and the sign-in page are without a fault that axe finds, on a phone too', async ({
  browser,
}) => {
  for (const options of [{}, PHONE]) {
    const context = await browser.newContext(options);
    const page = await context.newPage();
    await page.goto('/sign-in');
    await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
    await axe(page);
    await context.close();
    const judge = await signedIn(browser, 'judge', options);
    await judge.page.goto(`${judge.page.url()}/judge?show=decided`);
    await judge.page
      .locator('main')
      .getByRole('link', { name: /accepted/ })
      .first()
      .click();
    await expect(judge.page.getByRole('img', { name: 'The board, seen straight from above' })).toBeVisible();
    await axe(judge.page);
    await judge.context.close();
  }
});

test('nothing is wider than a phone’s screen', async ({ browser }) => {
  for (const [, role, path] of PAGES) {
    const { context, page } = await signedIn(browser, role, PHONE);
    await page.goto(page.url() + path);
    await settled(page);
    const width = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(width, path).toBeLessThanOrEqual(PHONE.viewport.width);
    await context.close();
  }
});

test('the ledger is checked, and the queue and desk are played from the keyboard', async ({ browser }) => {
  const { context, page } = await signedIn(browser, 'judge');
  await page.getByRole('link', { name: 'Records' }).first().click();
  await page.getByRole('button', { name: 'Check the whole record' }).click();
  await expect(page.getByText(/entries fit/)).toBeVisible();
  await page.getByRole('link', { name: 'Judge' }).first().click();
  await expect(page.getByText('oldest first')).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Keys of this page' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('d');
  await expect(page.getByText('decided, newest first')).toBeVisible();
  await page
    .locator('main')
    .getByRole('link', { name: /accepted/ })
    .first()
    .focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('What was decided')).toBeVisible();
  await page.keyboard.press('r');
  await expect(page.getByLabel('Reason for the refusal')).toBeFocused();
  await page.keyboard.press('Escape');
  await context.close();
});

test('a path that leads nowhere, a catch that is not there and a page for others say so', async ({
  browser,
  page,
}) => {
  await page.goto('/no/such/page');
  await expect(page.getByText('There is no such page.')).toBeVisible();
  const { context, page: angler } = await signedIn(browser, 'angler');
  const event = angler.url();
  await angler.goto(`${event}/catches/0190c1d2-0000-7000-8000-000000000001`);
  await expect(angler.getByText('There is nothing here')).toBeVisible();
  await angler.goto(`${event}/judge`);
  await expect(angler.getByText('Your role in this event does not cover that')).toBeVisible();
  await context.close();
});

test('a finding is confirmed by its key, which shows its place, and taken back by it', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'judge');
  const queue = `${page.url()}/judge`;
  const confirm = page.getByRole('checkbox', { name: /^confirm:/ }).first();
  // The demo leaves faulty photographs among those that wait.
  for (let i = 0; i < 6; i++) {
    await page.goto(queue);
    await page.locator('main ul').getByRole('link').nth(i).click();
    await expect(page.getByRole('region', { name: 'Findings' })).toBeVisible({ timeout: READ_MS });
    if (await confirm.isVisible()) break;
  }
  await expect(confirm).not.toBeChecked();
  const answer = page.getByRole('button', { name: /^Accept/ });
  await expect(answer).toHaveText(/^Accept\s*A$/);
  await page.keyboard.press('q');
  await expect(confirm).toBeChecked();
  await expect(answer).toHaveText(/with penalties/);
  await expect(answer).toBeInViewport();
  await page.keyboard.press('q');
  await expect(confirm).not.toBeChecked();
  await context.close();
});

test('two catches that are not alike say so, with a way back; an angler may not compare at all', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'judge');
  await page.goto(`${page.url()}/judge`);
  await page.locator('main ul').getByRole('link').first().click();
  await expect(page).toHaveURL(/judge\/[0-9a-f-]{36}$/);
  const desk = page.url();
  const pair = `${desk}/alike/0190c1d2-0000-7000-8000-000000000001`;
  await page.goto(pair);
  await expect(page.getByText('These two are not flagged as alike')).toBeVisible({ timeout: READ_MS });
  await axe(page);
  await page.getByRole('link', { name: 'Back to the desk' }).click();
  await expect(page).toHaveURL(desk);
  await page.goBack();
  await expect(page.getByText('These two are not flagged as alike')).toBeVisible();
  await context.close();
  const angler = await signedIn(browser, 'angler', PHONE);
  await angler.page.goto(pair);
  await expect(angler.page.locator('main')).toContainText(/role|nothing here/i);
  await expect(angler.page.getByRole('img')).toHaveCount(0);
  await angler.context.close();
});
