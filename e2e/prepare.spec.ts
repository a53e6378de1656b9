import { expect, test } from '@playwright/test';
import { axeInEachLook } from './axe.ts';
import { PHONE, signedIn } from './people.ts';
import { shoot } from './photo.ts';

test('before launch: what Lauta sees, what is ticked, the day’s code, and the own order before a lift', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  const event = page.url();
  const overview = page.getByText(/things ready for day 2/);
  await expect(overview).toBeVisible();
  await page.getByRole('link', { name: 'Prepare', exact: true }).first().tap();
  await expect(page.getByRole('heading', { name: 'Prepare', level: 1 })).toBeVisible();
  // The code is there to be written, and as a card to be printed.
  const code = page.getByRole('region', { name: /^Code of day 2/ });
  await expect(code.getByText(/^[0-9A-Z]{4}$/)).toBeVisible();
  const href = (await code.getByRole('link', { name: 'print the card' }).getAttribute('href')) ?? '';
  const pdf = await page.request.get(href);
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');

  const looks = page.getByRole('region', { name: 'Checked for you' });
  await expect(looks.getByText(/the server’s; it is recorded/)).toBeVisible();
  await expect(looks.getByText(/catches of twelve frames/)).toBeVisible();
  await looks
    .getByLabel('Open a test photograph')
    .setInputFiles({ name: 'no.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('nothing') });
  await expect(looks.getByText('That file cannot be read as a photograph.')).toBeVisible();
  const shot = await shoot(79, 402, new Date('2026-06-14T10:41:00Z'));
  await looks
    .getByLabel('Open a test photograph')
    .setInputFiles({ name: 'test.jpg', mimeType: 'image/jpeg', buffer: shot.jpeg });
  await expect(looks.getByText(/In the file: time, its offset, no position; a wide lens/)).toBeVisible();

  const net = page.getByRole('checkbox', { name: /Deep knotless rubber net/ });
  await net.check();
  await page.getByRole('button', { name: 'bank', exact: true }).tap();
  await expect(page.getByRole('checkbox', { name: /Unhooking mat/ })).toBeVisible();
  await expect(page.getByRole('checkbox', { name: /Life vest/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Move “hands wet” up' }).tap();
  await page.getByRole('button', { name: 'Move “hands wet” up' }).tap();
  await page.getByRole('button', { name: 'Move “hands wet” up' }).tap();
  await page.reload();
  await expect(net).toBeChecked();
  await expect(page.getByRole('heading', { name: 'How a fish loses its points here' })).toBeVisible();
  await axeInEachLook(page);
  // The own order is walked through before the lift.
  await page.goto(`${event}/water`);
  await page.getByRole('button', { name: 'In the net' }).tap();
  await expect(page.getByText('Ready? Next: hands wet')).toBeVisible();
  for (const step of ['hands wet', 'board wet', 'card down', 'camera open'])
    await page.getByRole('button', { name: step, exact: true }).tap();
  await expect(page.getByText('Ready for the lift')).toBeVisible();
  await context.close();
});

test('a director sets from when on the codes are shown, and an angler sees when', async ({ browser }) => {
  const director = await signedIn(browser, 'director');
  const angler = await signedIn(browser, 'angler', PHONE);
  const line = director.page
    .getByRole('listitem')
    .filter({ hasText: 'entrants see their codes from' })
    .last();
  await line.getByLabel(/entrants see their codes from/).fill('2026-12-24T05:30');
  await line.getByRole('button', { name: 'Keep' }).click();
  await expect(line.getByText('Kept.')).toBeVisible();
  await angler.page.goto(`${angler.page.url()}/prepare`);
  await expect(angler.page.getByText('It is shown from')).toBeVisible();
  await line.getByRole('button', { name: 'From the start' }).click();
  await expect(line.getByText('Shown from the start.')).toBeVisible();
  await expect(angler.page.getByText('It is shown from')).toHaveCount(0, { timeout: 20_000 });
  await director.context.close();
  await angler.context.close();
});
