import { expect, test, type Page } from '@playwright/test';
import { axe } from './axe.ts';
import { PHONE, signedIn } from './people.ts';
import { READ_MS } from './photo.ts';

const clip = (page: Page) => page.getByRole('region', { name: 'Clip of the release' });
const press = async (page: Page, name: string | RegExp): Promise<void> => {
  await page.getByRole('button', { name, exact: true }).tap();
  await page.waitForTimeout(420);
};

test('a release is filmed while the clock runs on, and goes to the judges after the claim', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await page.evaluate(() => localStorage.setItem('lauta-film-seed', '7'));
  await page.goto(`${page.url()}/water`);
  await page.getByRole('button', { name: 'Simulated camera', exact: true }).tap();
  const claim = page.getByRole('button', { name: /^Claim / });
  await expect(claim).toBeEnabled({ timeout: READ_MS });
  await claim.tap();
  await expect(page.getByText('is with the judges')).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText('Marked for the judge: photographed with another camera')).toBeVisible();

  // Another fish, filmed as it goes; the taps are where they were.
  await press(page, 'In the net');
  await page.getByRole('button', { name: 'Simulated live view' }).tap();
  await expect(page.getByRole('region', { name: 'Camera' })).toBeVisible({ timeout: READ_MS });
  await press(page, 'thumb');
  await press(page, 'Lift');
  await press(page, 'Photograph');
  await expect(page.getByText('12 taken: back into the water')).toBeVisible({ timeout: 20_000 });
  await press(page, 'Back in the water');
  await expect(claim).toBeEnabled({ timeout: READ_MS });
  await press(page, 'Film the release, 10 s');
  await expect(clip(page).getByText(/filming, [1-9]/)).toBeVisible({ timeout: 30_000 });
  await press(page, 'Released');
  await expect(clip(page).getByText(/filming, [3-9]/)).toBeVisible({ timeout: 10_000 });
  await press(page, 'Stop filming');
  await expect(clip(page).getByLabel('Clip of the release')).toBeVisible();
  if (process.env['SHOTS']) await page.screenshot({ path: `${process.env['SHOTS']}/clip-bench.png` });

  // A page that is left keeps it.
  await page.reload();
  await expect(clip(page)).toContainText('MB');
  await expect(claim).toBeEnabled({ timeout: READ_MS });
  await claim.tap();
  await expect(page.getByText('is with the judges')).toBeVisible({ timeout: 30_000 });
  if (process.env['SHOTS']) await page.screenshot({ path: `${process.env['SHOTS']}/clip-claimed.png` });
  await axe(page);
  await press(page, 'Send the clip');
  await expect(page.getByText('the clip of the release is with the judges')).toBeVisible({ timeout: 30_000 });
  await page.getByRole('link', { name: 'See it' }).tap();
  const shown = page.getByLabel('Clip of the release').last();
  await expect(shown).toBeVisible();
  // It plays: the browser knows its picture.
  await expect.poll(() => shown.evaluate((video: HTMLVideoElement) => video.videoWidth), { timeout: 15_000 }).toBeGreaterThan(0); // prettier-ignore
  await context.close();
});

test('a film that is no clip is refused in words, and can be chosen again', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await page.goto(`${page.url()}/water`);
  await page
    .getByRole('region', { name: 'Your catches' })
    .getByRole('listitem')
    .last()
    .getByRole('link')
    .tap();
  const input = page.getByLabel('File with the clip');
  await input.setInputFiles({ name: 'film.mov', mimeType: 'video/quicktime', buffer: Buffer.from('moov') });
  await expect(page.getByText('This file is no film that can be shown')).toBeVisible();
  await input.setInputFiles({ name: 'film.webm', mimeType: 'video/webm', buffer: Buffer.alloc(13 * 1024 * 1024) }); // prettier-ignore
  await expect(page.getByText('A clip has at most 12 MB.')).toBeVisible();
  // Its name promises what its content does not hold: the server says so.
  await input.setInputFiles({ name: 'film.webm', mimeType: 'video/webm', buffer: Buffer.from('no film') });
  await page.getByRole('button', { name: 'Send the clip' }).tap();
  await expect(page.getByRole('alert')).toContainText('no clip that can be shown');
  await page.getByRole('button', { name: 'Throw it away' }).tap();
  await expect(page.getByRole('button', { name: 'Add a clip of the release' })).toBeVisible();
  await context.close();
});
