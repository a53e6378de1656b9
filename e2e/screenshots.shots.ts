import { expect, test, type Page } from '@playwright/test';
import type { Role } from '@lauta/core/people';
import { BOAT_CUP, PHONE, signedIn } from './people.ts';
import { drawBoardKind, drawEmptyBoard } from '@lauta/sim/camera';
import { READ_MS, choose, markLines, shoot, shootScene } from './photo.ts';

const take = async (page: Page, name: string): Promise<void> => {
  await expect(page.locator('.loading')).toHaveCount(0);
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(600);
  await page.screenshot({ path: `docs/screenshots/${name}.png`, animations: 'disabled' });
};

const VIEWS: [string, Role, string, boolean][] = [
  ['event', 'director', '', false],
  ['judge-queue', 'judge', '/judge', false],
  ['records', 'judge', '/records', false],
  ['water-phone', 'angler', '/water', true],
  ['standings-phone', 'angler', '/standings', true],
  ['waters-phone', 'angler', '/waters', true],
];

for (const [name, role, path, isPhone] of VIEWS) {
  test(name, async ({ browser }) => {
    const { page, context } = await signedIn(browser, role, isPhone ? PHONE : {});
    await page.goto(page.url() + path);
    if (name === 'records') {
      await page.getByRole('button', { name: 'Check the whole record' }).click();
      await expect(page.getByText(/entries fit/)).toBeVisible();
    }
    await take(page, name);
    await context.close();
  });
}

test('standings with one score opened', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler');
  await page.goto(`${page.url()}/standings`);
  await page.locator('main ol button').nth(1).click();
  await take(page, 'standings');
  await context.close();
});

test('judge’s desk', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'judge');
  await page.goto(`${page.url()}/judge`);
  await page.locator('main ul').getByRole('link').first().click();
  await expect(page.getByRole('img', { name: 'The board, seen straight from above' })).toBeVisible();
  await page.keyboard.press('1');
  await expect(page.getByText('The server reads the original')).toHaveCount(0, { timeout: READ_MS });
  await take(page, 'judge-desk');
  await context.close();
});

test('a fish claimed twice', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'judge');
  await page.goto(`${page.url()}/judge`);
  await page.locator('main ul').getByRole('link').nth(1).click();
  // Earlier fish of its kind and length are read one after the other.
  await page.getByRole('link', { name: /fish (as|of) no/ }).click({ timeout: 200_000 });
  await expect(page.getByRole('img', { name: 'The fish of the other catch' })).toBeVisible();
  await take(page, 'same-fish');
  await context.close();
});

test('a specimen on the bank, on the phone', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await page.goto(`${page.url()}/specimens`);
  for (const name of ['Fish on', 'In the net', 'mat down and wet', 'hook out in the net']) {
    await page.getByRole('button', { name, exact: true }).tap();
    await page.waitForTimeout(450);
  }
  await page.evaluate(() => window.scrollTo(0, 0));
  await take(page, 'specimen-phone');
  await context.close();
});

test('bench', async ({ browser }) => {
  const shot = await shoot(5, 402, new Date('2026-06-14T10:40:07Z'));
  const { page, context } = await signedIn(browser, 'angler');
  await page.goto(`${page.url()}/water`);
  await choose(page, 'fish.jpg', shot.jpeg);
  await expect(page.getByRole('button', { name: 'Correct by hand' })).toBeVisible({ timeout: READ_MS });
  await expect(
    page.getByRole('img', { name: 'The tail, close by, over the steps that score' }),
  ).toBeVisible();
  await page.evaluate(() => {
    window.scrollTo(0, 0);
    document.querySelector('main')?.scrollTo(0, 0);
  });
  await take(page, 'bench');
  await context.close();
});

test('the well with one too many, on the phone', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE, BOAT_CUP);
  await page.goto(`${page.url()}/well`);
  await page.getByRole('button', { name: 'A fish comes in' }).tap();
  await page.getByLabel('Scale shows').fill('1-9');
  // Nobody reads a scale this fast: a second tap at once in the same place is held back.
  await page.waitForTimeout(700);
  await page.getByRole('button', { name: 'Aboard, one too many' }).tap();
  await expect(page.getByText('Do not cast.')).toBeVisible();
  await take(page, 'cull-phone');
  await page.getByRole('button', { name: /^Hang/ }).tap();
  await page.getByRole('button', { name: 'the new one lower' }).tap();
  await page
    .getByRole('button', { name: /^Let \d go$/ })
    .first()
    .tap();
  await expect(page.getByText('5 of 5')).toBeVisible();
  await take(page, 'well-phone');
  await context.close();
});

test('the weigh-in, in dusk', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'weigh-master', {}, BOAT_CUP);
  await page.evaluate(() => localStorage.setItem('lauta-theme', 'dusk'));
  await page.goto(`${page.url()}/weigh-in`);
  await page.getByLabel('Day').selectOption({ label: 'Day 1' });
  await page.getByRole('region', { name: 'Queue' }).getByRole('button').nth(3).click();
  await take(page, 'weigh-in-dusk');
  await context.close();
});

test('a new kind of board, as it was read', async ({ browser }) => {
  const { scene } = drawEmptyBoard(509, drawBoardKind(9), { widthPx: 2000, heightPx: 1500 });
  const { page, context } = await signedIn(browser, 'director');
  await page.goto(`${page.url()}/boards/new`);
  await choose(page, 'board.jpg', await shootScene(scene));
  await markLines(page, scene, [2, 30]);
  await page.getByRole('checkbox', { name: 'a wall stands' }).check();
  await page.getByRole('button', { name: 'Read the board' }).click();
  await expect(page.getByRole('heading', { name: 'What was read' })).toBeVisible({ timeout: READ_MS });
  await page.evaluate(() => {
    document.querySelector('main')?.scrollTo(0, 0);
    window.scrollTo(0, 0);
  });
  await take(page, 'new-board');
  await context.close();
});

test('a fish in the net, on the phone', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await page.evaluate(() => localStorage.setItem('lauta-theme', 'glare'));
  await page.goto(`${page.url()}/water`);
  await page.getByRole('button', { name: 'Fish on' }).tap();
  await page.waitForTimeout(450);
  await page.getByRole('button', { name: 'In the net' }).tap();
  await expect(page.getByRole('heading', { name: 'Resting in the net' })).toBeVisible();
  await take(page, 'fish-clock-phone');
  await context.close();
});

test('before launch, on the phone', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await page.goto(`${page.url()}/prepare`);
  await expect(page.getByText(/catches of twelve frames/)).toBeVisible();
  await take(page, 'prepare-phone');
  await context.close();
});

test('the live view and its frames, on the phone', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await page.evaluate(() => localStorage.setItem('lauta-theme', 'glare'));
  await page.goto(`${page.url()}/water`);
  await page.getByRole('button', { name: 'In the net' }).tap();
  await page.getByRole('button', { name: 'Simulated live view' }).tap();
  await page.getByRole('button', { name: 'thumb', exact: true }).tap({ timeout: READ_MS });
  await page.waitForTimeout(450);
  await page.getByRole('button', { name: 'Lift', exact: true }).tap();
  await expect(page.getByText('Hold still')).toBeVisible({ timeout: 20_000 });
  await take(page, 'camera-phone');
  await page.getByRole('button', { name: 'Photograph', exact: true }).tap();
  await page.waitForTimeout(1500);
  await page.getByRole('button', { name: 'Back in the water' }).tap();
  await expect(page.getByText(/^12 frames/)).toBeVisible({ timeout: READ_MS });
  await take(page, 'frames-phone');
  await context.close();
});
