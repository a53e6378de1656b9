import { expect, test, type Page } from '@playwright/test';
import { axeInEachLook } from './axe.ts';
import { PHONE, signedIn } from './people.ts';
import { READ_MS } from './photo.ts';

const camera = (page: Page) => page.getByRole('region', { name: 'Camera' });
const press = async (page: Page, name: string | RegExp): Promise<void> => {
  await page.getByRole('button', { name, exact: true }).tap();
  await page.waitForTimeout(420);
};

test('a portrait: hints while it is held, two frames by the timer, and what is better in each', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await page.evaluate(() => localStorage.setItem('lauta-film-seed', '31'));
  await page.goto(`${page.url()}/water`);
  await press(page, 'In the net');
  await page.getByRole('button', { name: 'Simulated live view' }).tap();
  await expect(camera(page)).toBeVisible({ timeout: READ_MS });
  await press(page, 'With you');
  await press(page, '3 s');
  await press(page, 'Lift');
  await expect(camera(page).getByText('A hand hides the flank: hold it from beneath')).toBeVisible({ timeout: 20_000 }); // prettier-ignore
  if (process.env['SHOTS']) await page.screenshot({ path: `${process.env['SHOTS']}/portrait-hint.png` });
  // The hand is taken away: nothing is wanting any more.
  await expect(camera(page).getByText('Hold still')).toBeVisible({ timeout: 20_000 });
  await press(page, 'Photograph in 3 s');
  await expect(camera(page).getByText('2 taken: back into the water')).toBeVisible({ timeout: 15_000 });
  await press(page, 'Back in the water');
  const pictures = page.getByRole('region', { name: 'With you' });
  await expect(pictures.getByRole('listitem')).toHaveCount(2, { timeout: 20_000 });
  await expect(pictures.getByText('one goes with the claim')).toBeVisible();
  await axeInEachLook(page);
  if (process.env['SHOTS']) await page.screenshot({ path: `${process.env['SHOTS']}/portrait-strip.png` });
  await context.close();
});
