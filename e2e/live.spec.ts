import { expect, test } from '@playwright/test';
import { signedIn, BOARD_OPEN } from './people.ts';

test('eight tabs of one browser keep working over one stream', async ({ browser }) => {
  const context = await browser.newContext();
  const streams: string[] = [];
  context.on('request', (request) => {
    if (/\/stream(\?|$)/.test(request.url())) streams.push(request.url());
  });
  const first = await context.newPage();
  await first.goto('/');
  await first.getByRole('link', { name: BOARD_OPEN }).click();
  await expect(first.getByRole('link', { name: 'Standings' }).first()).toBeVisible();
  const standings = `${new URL(first.url()).pathname}/standings`;
  await expect.poll(() => streams.length).toBe(1);
  const others = await Promise.all(Array.from({ length: 7 }, () => context.newPage()));
  for (const page of others) {
    await page.goto(standings);
    await expect(page.getByRole('button', { name: /Stig Holmbrook/ })).toBeVisible();
  }
  expect(streams.length).toBe(1);
  // When the tab that holds the stream closes, one of the others takes over.
  await first.close();
  await expect.poll(() => streams.length).toBe(2);
  for (const page of others) await expect(page.getByText('no connection')).toBeHidden();
  await context.close();
});

test('without a network the page says so, keeps what it shows, and catches up', async ({ browser }) => {
  const { context, page } = await signedIn(browser, 'judge');
  await page.getByRole('link', { name: 'Standings' }).first().click();
  const row = page.getByRole('button', { name: /Stig Holmbrook/ });
  await expect(row).toBeVisible();
  await context.setOffline(true);
  await page.getByLabel('Which fish').selectOption('official');
  await expect(row).toBeVisible();
  await page.getByLabel('Which fish').selectOption('all');
  await page.getByRole('link', { name: 'Records' }).first().click();
  await expect(page.getByText('Nothing answers')).toBeVisible({ timeout: 30_000 });
  await context.setOffline(false);
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByText('catch claimed').first()).toBeVisible();
  await context.close();
});
