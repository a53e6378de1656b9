import { expect, test } from '@playwright/test';
import type { BenchReadingView } from '@lauta/contract';
import { BOARD_OPEN, PHONE, signInByHand, signedIn } from './people.ts';
import { findBoard } from '@lauta/vision';
import { drawScene } from '@lauta/sim/camera';
import { READ_MS, choose, shoot, shootScene, type Shot } from './photo.ts';

const NOW_ON_THE_MERE = new Date('2026-06-14T10:40:00Z');
let shot: Shot;
test.beforeAll(async () => {
  // 20.06 in: over 20, more than the demo's angler has caught so far.
  shot = await shoot(77, 509.6, NOW_ON_THE_MERE);
});

test('one fish from the board to the standings: angler, judge and a spectator, none of whom reloads', async ({
  browser,
}) => {
  const spectator = await browser.newContext();
  const standings = await spectator.newPage();
  await standings.goto('/');
  await standings.getByRole('link', { name: BOARD_OPEN }).click();
  await standings.getByRole('link', { name: 'Standings' }).first().click();
  const row = standings.getByRole('button', { name: /Stig Holmbrook/ });
  await expect(row).toBeVisible();
  const before = await row.innerText();

  const angler = await browser.newContext({ serviceWorkers: 'block', ...PHONE });
  const water = await angler.newPage();
  await signInByHand(water, 'angler');
  await water.getByRole('link', { name: 'Water' }).first().click();
  await choose(water, 'fish.jpg', shot.jpeg);
  await expect(water.getByRole('button', { name: 'Reading …' })).toBeDisabled();
  await expect(water.getByText('reads, from the stop')).toBeVisible({ timeout: READ_MS });
  // Enabled only when the reading is that of the marks as they lie.
  const claimButton = water.getByRole('button', { name: /^Claim / });
  await expect(claimButton).toBeEnabled();
  // The truth is 20.06 in (25.4 mm an inch); an eighth is what a judge's eye would be off by at most.
  const readInches = async () =>
    Number((await water.locator('[role=status] .num').first().innerText()).trim());
  const trueInches = (shot.truth.apparentMm ?? 0) / 25.4;
  await expect.poll(async () => Math.abs((await readInches()) - trueInches)).toBeLessThan(0.125);
  await expect(water.getByText('by the photograph’s own time')).toBeVisible();
  const claimed = (await claimButton.innerText()).replace('Claim ', '').replace(' in', '').trim();
  // A double click must not make two catches.
  await claimButton.dblclick();
  await expect(water.getByText('is with the judges')).toBeVisible({ timeout: 30_000 });
  await expect(row).not.toHaveText(before);
  await expect(row.getByText('undecided')).toBeVisible();

  const seeIt = water.getByRole('link', { name: 'See it' });
  const catchId = (await seeIt.getAttribute('href'))?.split('/').at(-1) ?? '';
  const judge = await signedIn(browser, 'judge');
  const desk = judge.page;
  await desk.getByRole('link', { name: 'Judge' }).first().click();
  // By its id: other tests claim for the same angler meanwhile.
  await desk.locator(`main ul a[href$="${catchId}"]`).click();
  await expect(desk.getByText(claimed, { exact: true }).first()).toBeVisible();
  await expect(desk.getByAltText('The original photograph')).toBeVisible();
  await expect(desk.getByRole('img', { name: 'The board, seen straight from above' })).toBeVisible();
  // Browser and server decode by different libraries and still read the same (the judge is shown if not).
  await expect(desk.getByText('the server reads the same')).toBeVisible({ timeout: READ_MS });
  const answer = await desk.request.get(`/api/catches/${catchId}/bench-reading`);
  const { differenceMm, analysis } = (await answer.json()) as BenchReadingView;
  expect(Math.abs(differenceMm ?? NaN)).toBeLessThan(0.1);
  expect(analysis.trouble).toBeNull();
  await expect(desk.getByText('found by the bench')).toBeVisible();
  const penalty = desk.getByRole('checkbox', { name: /mouth open/ });
  await desk.keyboard.press('1');
  await expect(penalty).toBeChecked();
  const preview = desk.locator('p', { hasText: 'would score' }).locator('b');
  const score = await preview.innerText();
  await desk.keyboard.press('a');
  await expect(desk.getByText(/accepted at/).first()).toBeVisible();

  await expect(row.getByText('mouth open')).toBeVisible();
  await row.click();
  const why = standings.getByRole('table');
  await expect(why.getByText('mouth open (−¼)')).toBeVisible();
  await expect(why.getByRole('row', { name: /mouth open/ }).getByText(score, { exact: true })).toBeVisible();

  await seeIt.click();
  await expect(water.getByRole('link', { name: 'Back to the water' })).toBeVisible();
  await expect(water.getByText('accepted', { exact: true })).toBeVisible();
  await expect(water.getByText('mouth open').first()).toBeVisible();

  // The judge takes it back: the angler's page and the standings follow by themselves.
  await desk.keyboard.press('z');
  await expect(water.getByText('awaits a judge')).toBeVisible();
  await expect(row.getByText('mouth open')).toBeHidden();
  for (const context of [angler, judge.context, spectator]) await context.close();
});

test('a request goes back to the angler and its answer to the judge', async ({ browser }) => {
  const judge = await signedIn(browser, 'judge');
  const angler = await signedIn(browser, 'angler');
  const water = angler.page;
  await water.getByRole('link', { name: 'Water' }).first().click();
  const board = findBoard('birch-30in');
  if (!board) throw new Error('birch-30in: expected a shipped board');
  const identifier = { eventCode: 'KMB', entrantNumber: 1, code: 'K4TR' };
  const scene = drawScene(78, { board, look: 'largemouth-bass', lengthMm: 400, identifier, widthPx: 1200, heightPx: 900 }); // prettier-ignore
  const byHand = await shootScene({ ...scene, card: scene.card && { ...scene.card, isHandwritten: true } });
  await choose(water, 'fish.jpg', byHand);
  await water.getByRole('button', { name: /^Claim / }).click({ timeout: READ_MS });
  await water.getByRole('link', { name: 'See it' }).click({ timeout: 30_000 });
  const path = new URL(water.url()).pathname.replace('catches', 'judge');

  await judge.page.goto(path);
  await expect(judge.page.getByRole('button', { name: /^Accept/ })).toBeVisible();
  // A card by hand is nothing that the bench reads: the judge does, on the card itself.
  const card = judge.page.getByRole('button', { name: 'The card, enlarged: show it in the photograph' });
  await expect(card).toBeInViewport({ timeout: READ_MS });
  await expect(judge.page.getByText(/read the card yourself: expected/)).toBeVisible();
  await expect(judge.page.getByText(/as issued/)).toHaveCount(0);
  await card.click();
  await judge.page.keyboard.press('s');
  await judge.page.getByLabel('What the angler should send').fill('Another frame, nearer.');
  await judge.page.getByRole('button', { name: 'Send back' }).last().click();

  await expect(water.getByText('“Another frame, nearer.”')).toBeVisible();
  // Wherever the angler is, it is said until it is answered.
  const banner = water.getByText(/^A judge has sent /);
  await expect(banner).toBeVisible();
  await water.getByRole('link', { name: 'Standings' }).first().click();
  await expect(banner).toBeVisible();
  await expect(water.getByRole('link', { name: 'Answer', exact: true })).toBeVisible();
  await water.goBack();
  await water.getByLabel('Words').fill('There was no other. Sorry.');
  await water.getByRole('button', { name: 'Send the answer' }).click();
  await expect(water.getByText('answered, awaits a judge')).toBeVisible();
  await judge.page.goto(path);
  await expect(judge.page.getByText('“There was no other. Sorry.”')).toBeVisible();
  await water.getByRole('button', { name: 'Withdraw this catch' }).click();
  await expect(water.getByText('withdrawn', { exact: true })).toBeVisible();
  await water.getByRole('button', { name: 'Undo the withdrawal' }).click();
  await expect(water.getByText('answered, awaits a judge')).toBeVisible();
  await judge.context.close();
  await angler.context.close();
});

test('the simulated camera gives a photograph that the bench reads', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler');
  await page.getByRole('link', { name: 'Water' }).first().click();
  await page.getByRole('button', { name: 'Simulated camera' }).click();
  await expect(page.getByText('reads, from the stop')).toBeVisible({ timeout: READ_MS });
  await page.getByRole('button', { name: 'Discard' }).click();
  await expect(page.getByRole('heading', { name: 'Your catches' })).toBeVisible();
  await context.close();
});

test('a judge who is writing learns that another has decided, and loses no word', async ({ browser }) => {
  const first = await signedIn(browser, 'judge');
  await first.page.goto(`${first.page.url()}/judge?show=decided`);
  await first.page
    .locator('main ul')
    .getByRole('link', { name: /accepted/ })
    .last()
    .click();
  await first.page.getByRole('button', { name: /^Refuse/ }).click();
  await first.page.getByLabel('Reason for the refusal').fill('Half a sentence');

  const second = await signedIn(browser, 'judge');
  await second.page.goto(first.page.url());
  await second.page.getByRole('button', { name: /^Accept/ }).click();
  await expect(second.page.getByText(/accepted at/).first()).toBeVisible();

  await expect(first.page.getByText('decided meanwhile')).toBeVisible();
  await expect(first.page.getByLabel('Reason for the refusal')).toHaveValue('Half a sentence');
  await expect(first.page.getByRole('button', { name: 'Refuse', exact: true })).toBeDisabled();
  await first.page.getByRole('button', { name: 'Seen; I decide all the same' }).click();
  await expect(first.page.getByRole('button', { name: 'Refuse', exact: true })).toBeEnabled();
  await first.context.close();
  await second.context.close();
});
