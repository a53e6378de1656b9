import { expect, test } from '@playwright/test';
import { choose, setHandles, shoot } from './photo.ts';

test.use({ baseURL: process.env['LAUTA_EMPTY_URL'] ?? 'http://127.0.0.1:4310' });

test('a new installation: first director, event, rules, people, and a fish that counts', async ({
  page,
  browser,
}) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'The first director' })).toBeVisible();
  await page.getByLabel('Name').fill('Wilda Overbrook');
  await page.getByLabel('E-mail address').fill('wilda@lake.example');
  await page.getByLabel('Password').fill('short');
  await page.getByRole('button', { name: 'Enter the first director' }).click();
  await expect(page.getByText('at least ten characters')).toBeVisible();
  await expect(page.getByLabel('Name')).toHaveValue('Wilda Overbrook');
  await page.getByLabel('Password').fill('long enough for a lake');
  await page.getByRole('button', { name: 'Enter the first director' }).click();

  await page.getByRole('link', { name: 'New event' }).click();
  const today = new Date().toISOString().slice(0, 10);
  await page.getByLabel('Name').fill('Sandpit Trial');
  await page.getByLabel('Time zone').fill('UTC');
  await page.getByLabel('Day 1').fill(today);
  await page.getByLabel('Lines in').fill('00:00');
  await page.getByLabel('Lines out').fill('23:59');
  await page.getByRole('button', { name: 'Create the event' }).click();
  await expect(page.getByRole('heading', { name: 'Rule sheet, version 1' })).toBeVisible();
  await page.getByLabel('Minimum length').fill('12,3');
  await expect(page.getByText('between two steps')).toBeVisible();
  await page.getByLabel('Minimum length').fill('12 1/4');
  await page.getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByText('counts from 12¼')).toBeVisible();

  await page.getByRole('link', { name: 'People of this event' }).click();
  for (const [name, role] of [
    ['Ned Angler', 'Angler'],
    ['Jo Judge', 'Judge'],
  ] as const) {
    await page.getByLabel('Name').fill(name);
    await page.getByLabel('E-mail address').fill(`${role.toLowerCase()}@lake.example`);
    for (const one of ['Angler', 'Judge']) {
      await page.getByRole('checkbox', { name: one }).setChecked(one === role);
    }
    await page.getByRole('button', { name: 'Add the person' }).click();
    await expect(page.getByText(`${role.toLowerCase()}@lake.example`)).toBeVisible();
  }
  const invite = async (name: string): Promise<string> => {
    const line = page.getByRole('listitem').filter({ hasText: name });
    await line.getByRole('button', { name: 'Make an invitation' }).click();
    return line.locator('code').innerText();
  };
  const enter = async (link: string) => {
    const context = await browser.newContext();
    const own = await context.newPage();
    await own.goto(link);
    await own.getByLabel('Password').fill('a password of my own');
    await own.getByRole('button', { name: 'Come in' }).click();
    await own.waitForURL('**/events/**');
    return own;
  };
  const angler = await enter(await invite('Ned Angler'));
  const judge = await enter(await invite('Jo Judge'));

  const shot = await shoot(31, 380, new Date(), 'UTC');
  await angler.getByRole('link', { name: 'Water' }).first().click();
  await expect(angler.getByRole('button', { name: 'Simulated camera' })).toBeHidden();
  await choose(angler, 'mine.jpg', shot.jpeg);
  await setHandles(angler, shot);
  await angler.getByRole('button', { name: /^Claim / }).click();
  await expect(angler.getByText('is with the judges')).toBeVisible({ timeout: 30_000 });

  await judge.getByRole('link', { name: 'Judge' }).first().click();
  await judge
    .locator('main')
    .getByRole('link', { name: /Ned Angler/ })
    .click();
  await expect(judge.getByRole('button', { name: /^Accept/ })).toBeVisible();
  await judge.keyboard.press('a');
  await expect(judge.getByText('Nothing waits')).toBeVisible();
  await page.getByRole('link', { name: 'Standings' }).first().click();
  await page.getByRole('button', { name: /Ned Angler/ }).click();
  await expect(page.getByText('official', { exact: true })).toBeVisible();
  for (const one of [angler, judge]) await one.context().close();
});

test('a connection outlasts the pause between two taps', async ({ request }) => {
  const answer = await request.get('/api/who');
  // Node's own 5 s (RFC 9112, 9.6: a client must expect a close at any time, and may not repeat every request).
  expect(Number(/timeout=(\d+)/.exec(answer.headers()['keep-alive'] ?? '')?.[1])).toBeGreaterThan(60);
});
