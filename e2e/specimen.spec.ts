import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import type { SpecimensView } from '@lauta/contract';
import { axe } from './axe.ts';
import { PHONE, newAngler, signedIn } from './people.ts';

/** A tap of a person: two within less than half a second are taken for one. */
async function tap(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name, exact: true }).first().tap();
  await page.waitForTimeout(450);
}
const jpeg = (): Promise<Buffer> =>
  sharp({ create: { width: 640, height: 480, channels: 3, background: '#4a5a3c' } })
    .jpeg()
    .toBuffer();
const photograph = (page: Page, name: string, buffer: Buffer): Promise<void> =>
  page.getByLabel('Photograph of the specimen').setInputFiles({ name, mimeType: 'image/jpeg', buffer });
const records = (page: Page) => page.getByRole('region', { name: 'Recorded' }).getByRole('article');

test('a large fish on the bank: sling, scale, photograph, wounds, return, and all of it in its record', async ({
  browser,
}) => {
  const { page, context, event } = await newAngler(browser, PHONE);
  // On a phone the place is behind "More", as every place that is not at hand.
  await page.goto(event);
  await tap(page, 'More');
  await page.locator('#more').getByRole('link', { name: 'Specimens' }).tap();
  await tap(page, 'Fish on');
  await tap(page, 'In the net');
  await tap(page, 'mat down and wet');
  await tap(page, 'sling wet, its zip shut');
  await tap(page, 'note what it weighs');
  await page.getByLabel('Wet sling', { exact: true }).fill('1-4');
  await page.getByLabel('Stand or bar').fill('4 oz');
  await axe(page);
  await tap(page, 'Lift');
  await expect(page.getByRole('button', { name: 'First back into the water' })).toBeDisabled();
  await page.getByLabel('Scale shows, fish and sling').fill('1-2');
  await tap(page, 'Back in the water');
  // Wrong input is told; what was right stays, through a reload too.
  await expect(page.getByText('no more than the empty sling weighs')).toBeVisible();
  await page.reload();
  await page.getByText('On the scale, then low over the mat').tap();
  await page.getByLabel('Scale shows, fish and sling').fill('22 lb 8');
  await expect(page.getByText('21 lb 0.0 oz').first()).toBeVisible();
  await photograph(page, 'none.jpg', Buffer.from('no picture'));
  await expect(page.getByText('This file is no JPEG photograph.')).toBeVisible();
  await photograph(page, 'low.jpg', await jpeg());
  await tap(page, 'Released');
  await page.getByLabel('Empty wet sling, once more').fill('1-10');
  await tap(page, 'hook hole');
  await tap(page, 'hook hole: not dressed');
  await page.reload();
  await expect(page.getByRole('button', { name: 'hook hole: dressed' })).toBeVisible();
  await page.getByRole('button', { name: /^Record 20 lb 15/ }).dblclick();
  await expect(page.getByText('kept on this device, sent by itself')).toBeVisible();
  await expect(records(page)).toHaveCount(1);
  await expect(records(page).getByText('hook hole, dressed')).toBeVisible();
  await expect(records(page).getByText('the empty scale moved by 2.0 oz meanwhile')).toBeVisible();
  await expect(records(page).getByRole('img')).toHaveCount(1);
  // The next fish begins with nothing.
  await expect(page.getByRole('button', { name: 'Fish on', exact: true })).toBeVisible();
  await axe(page);

  // Nothing is changed: a correction stands beside it.
  await page.getByRole('button', { name: 'Correct this record' }).tap();
  await expect(page.getByRole('button', { name: 'The reason is missing' })).toBeDisabled();
  await page.getByLabel('Why it is corrected').fill('The bar hung beside the hook.');
  await page.getByText('Before the lift', { exact: true }).tap();
  await page.getByLabel('Stand or bar').fill('0');
  await page.getByRole('button', { name: /^Record 21 lb 1/ }).tap();
  await expect(records(page)).toHaveCount(2);
  await expect(records(page).first().getByText('The bar hung beside the hook.')).toBeVisible();
  await expect(records(page).last().getByText('corrected by a later record')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Correct this record' })).toHaveCount(1);
  // It was weighed when it was weighed, however late it is put right.
  const own = await page.request.get(`/api${event}/own-specimens`);
  const [former, later] = ((await own.json()) as SpecimensView).specimens;
  expect(later?.corrects?.specimenId).toBe(former?.specimenId);
  expect(later?.weighedAt).toBe(former?.weighedAt);

  // What is being told is not swept away by a correction.
  await tap(page, 'mat down and wet');
  await expect(page.getByRole('button', { name: 'Correct this record' })).toHaveCount(0);
  await tap(page, 'Discard, no record');
  await expect(page.getByRole('button', { name: 'Correct this record' })).toHaveCount(1);

  const judge = await signedIn(browser, 'judge');
  await judge.page.getByRole('link', { name: 'Specimens' }).first().click();
  await expect(records(judge.page).filter({ hasText: 'Tova Brackmere' })).not.toHaveCount(0);
  await expect(judge.page.getByRole('button', { name: 'Fish on' })).toHaveCount(0);
  await judge.context.close();
  await context.close();
});

test('without a network a specimen waits on the device and arrives once; by keyboard, and back', async ({
  browser,
}) => {
  const { page, context, event } = await newAngler(browser);
  await page.goto(`${event}/specimens`);
  await expect(page.getByRole('heading', { name: 'On the bank' })).toBeVisible();
  await context.setOffline(true);
  const summary = page.getByText('On the scale, then low over the mat');
  await summary.focus();
  await page.keyboard.press('Enter');
  await page.getByLabel('Scale shows, fish and sling').fill('9-2');
  await photograph(page, 'low.jpg', await jpeg());
  // Leaving and coming back loses nothing.
  await page.getByRole('link', { name: 'Standings' }).first().click();
  await page.goBack();
  const record = page.getByRole('button', { name: /^Record 9 lb 2/ });
  await record.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('waits on this device')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Waiting to be sent' })).toContainText('a specimen');
  await context.setOffline(false);
  await expect(page.getByText('waits on this device')).toHaveCount(0, { timeout: 60_000 });
  await expect(records(page)).toHaveCount(1);
  await expect(records(page).getByRole('img')).toHaveCount(1);
  await expect(records(page).getByText('nobody tapped that it swam off')).toBeVisible();
  await context.close();
});
