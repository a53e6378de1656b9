import { writeFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import { findBoard } from '@lauta/vision';
import { drawRangedScene, drawScene } from '@lauta/sim/camera';
import { widened } from '@lauta/sim/families';
import { PHONE, signedIn } from './people.ts';
import { READ_MS, choose, setHandles, shoot, shootScene, takeByHand, type Shot } from './photo.ts';

let shot: Shot;
test.beforeAll(async () => {
  shot = await shoot(91, 402, new Date('2026-06-14T10:40:00Z'));
});

async function water(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Water' }).first().click();
  await expect(page.getByRole('heading', { name: 'Water' })).toBeVisible();
}

/** Notes every task of the page's main thread that takes over 50 ms from now on. */
async function watchLongTasks(page: Page): Promise<() => Promise<number[]>> {
  await page.evaluate(() => {
    const seen = window as unknown as { longTasks: number[] };
    seen.longTasks = [];
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) seen.longTasks.push(entry.duration);
    }).observe({ type: 'longtask' });
  });
  return () => page.evaluate(() => (window as unknown as { longTasks: number[] }).longTasks);
}

test('the buttons open the file chooser, by mouse and by keyboard', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler');
  await water(page);
  for (const name of ['Photograph a fish', 'Choose a JPEG']) {
    const button = page.getByRole('button', { name });
    for (const press of [() => button.click(), () => button.press('Enter')]) {
      const chooser = page.waitForEvent('filechooser');
      await press();
      expect((await chooser).isMultiple()).toBe(false);
    }
  }
  await context.close();
});

test('handles are dragged, with a loupe, and moved by keys; a step back undoes each', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler');
  await water(page);
  await choose(page, 'fish.jpg', shot.jpeg);
  await takeByHand(page);
  const tail = page.locator('[data-handle=tail]');
  const placeOf = async () => (await tail.getAttribute('aria-label'))?.replace(/.*at /, '');
  const first = await placeOf();
  const box = await tail.boundingBox();
  if (!box) throw new Error('the tail’s handle is not shown');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 40, y + 10, { steps: 4 });
  await expect(page.locator('.rounded-full img')).toBeVisible();
  await page.mouse.up();
  await expect(page.locator('.rounded-full img')).toBeHidden();
  const dragged = await placeOf();
  expect(dragged).not.toBe(first);
  await tail.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  const [x0 = 0, y0 = 0] = (dragged ?? '').split(', ').map(Number);
  expect(await placeOf()).toBe(`${x0 + 1}, ${y0 + 10}`);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  expect(await placeOf()).toBe(dragged);
  await page.getByRole('button', { name: 'Discard' }).click();
  await context.close();
});

test('two fingers and the wheel enlarge the photograph and move no handle; one finger moves it', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await water(page);
  await choose(page, 'fish.jpg', shot.jpeg);
  await takeByHand(page);
  const tail = page.locator('[data-handle=tail]');
  const place = async () => (await tail.getAttribute('aria-label'))?.replace(/.*at /, '');
  const before = await place();
  const picture = page.getByAltText('The photograph on the bench');
  await picture.scrollIntoViewIfNeeded();
  const box = async () => (await picture.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  const whole = await box();
  const [x, y] = [whole.x + whole.width / 2, whole.y + whole.height / 2];
  const hand = await context.newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', ...touchPoints: { x: number; y: number }[]) =>
    hand.send('Input.dispatchTouchEvent', { type, touchPoints });
  const apart = (by: number) => [
    { x: x - by, y },
    { x: x + by, y },
  ];
  await touch('touchStart', ...apart(20));
  for (const by of [25, 30, 35, 40]) await touch('touchMove', ...apart(by));
  await touch('touchEnd');
  await expect.poll(async () => (await box()).width / whole.width).toBeGreaterThan(1.7);
  expect((await box()).width / whole.width).toBeLessThan(2.3);
  const near = await box();
  // On the grass: in the middle the tail's handle would be taken along.
  const grass = whole.y + 20;
  await touch('touchStart', { x, y: grass });
  for (const by of [10, 20, 30, 40]) await touch('touchMove', { x: x - by, y: grass });
  await touch('touchEnd');
  await expect.poll(async () => (await box()).x - near.x).toBeLessThan(-20);
  expect((await box()).width).toBeCloseTo(near.width, 0);
  const moved = await box();
  await page.mouse.move(x, y);
  await page.mouse.wheel(0, -120);
  await expect.poll(async () => (await box()).width / moved.width).toBeGreaterThan(1.2);
  expect(await place()).toBe(before);
  await page.getByRole('button', { name: 'Whole picture' }).click();
  await expect.poll(async () => (await box()).width).toBeCloseTo(whole.width, 0);
  await context.close();
});

test('the reading, the strip and what the sheet makes of it follow the handles', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler');
  await water(page);
  await choose(page, 'fish.jpg', shot.jpeg);
  await setHandles(page, shot);
  // 402 mm is 15.83 in, seen a little farther out for the tail's height.
  const read = page.locator('[role=status] .num').first();
  await expect
    .poll(async () => Math.abs(Number((await read.innerText()).trim()) - (shot.truth.apparentMm ?? 0) / 25.4))
    .toBeLessThan(0.15);
  await expect(page.getByRole('img', { name: 'The board, seen straight from above' })).toBeVisible();
  await expect(
    page.getByRole('img', { name: 'The tail, close by, over the steps that score' }),
  ).toBeVisible();
  await page.getByText('Where the doubt comes from').click();
  await expect(page.getByRole('row', { name: /together/ })).toBeVisible();
  await page.getByRole('button', { name: 'One step more' }).click();
  await expect(page.getByText('More than is read')).toBeVisible();
  await page.getByRole('button', { name: 'as read' }).click();
  await page.getByRole('button', { name: 'Another kind' }).click();
  await expect(page.getByText('not in the rule sheet: the claim is kept and marked')).toBeVisible();
  await page.getByRole('button', { name: 'Discard' }).click();
  await context.close();
});

test('the bench reads by itself; what a person moves is marked so, snaps back and is looked for anew', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'angler');
  await water(page);
  await choose(page, 'fish.jpg', shot.jpeg);
  await expect(page.getByRole('progressbar', { name: 'Reading the photograph' })).toBeVisible();
  const read = page.locator('[role=status] .num').first();
  await expect(read).toBeVisible({ timeout: READ_MS });
  // 402 mm; a sixteenth of an inch is 1.6 mm.
  const trueInches = (shot.truth.apparentMm ?? 0) / 25.4;
  expect(Math.abs(Number((await read.innerText()).trim()) - trueInches)).toBeLessThan(0.08);
  await expect(page.getByText(/checks are clear/)).toBeVisible();
  await page.getByText('Where the doubt comes from').click();
  await expect(page.getByText('found by the bench;')).toBeVisible();
  await expect(page.getByRole('row', { name: /tail’s height/ })).toBeVisible();

  await takeByHand(page);
  await page.getByRole('button', { name: 'End, far', exact: true }).click();
  for (let i = 0; i < 12; i++) await page.getByRole('button', { name: 'One pixel left' }).click();
  await expect(page.getByText('corners moved by hand')).toBeVisible();
  await page.getByRole('button', { name: 'Snap corners to the lines' }).click();
  await expect(page.getByText('corners moved by hand')).toBeHidden({ timeout: READ_MS });
  await expect
    .poll(async () => Math.abs(Number((await read.innerText()).trim()) - trueInches))
    .toBeLessThan(0.08);
  await page.getByRole('button', { name: 'Tail', exact: true }).click();
  await page.getByRole('button', { name: 'One pixel right' }).click();
  await expect(page.getByText('tail moved by hand')).toBeVisible();
  await page.getByRole('button', { name: 'Let the bench look again' }).click();
  await expect(page.getByText('tail moved by hand')).toBeHidden();
  await expect(page.getByRole('button', { name: /^Claim / })).toBeEnabled({ timeout: READ_MS });
  await page.getByRole('button', { name: 'Discard' }).click();
  await context.close();
});

test('a tail that hardly stands out from the board is asked for by hand, and believed then', async ({
  browser,
}) => {
  const birch = findBoard('birch-30in');
  if (!birch) throw new Error('birch-30in: expected a shipped board');
  const plain = drawRangedScene(1236, { boards: [birch], widthPx: 1200, heightPx: 900, maxTiltDeg: 12 });
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await water(page);
  await choose(page, 'clear-tail.jpg', await shootScene(widened(plain, ['tail']).scene));
  const asked = page.getByText('put the tail’s mark on it yourself');
  await expect(asked).toBeVisible({ timeout: READ_MS });
  await takeByHand(page);
  const doubt = page.getByText(/in ± \d/);
  expect(Number((await doubt.innerText()).replace(/.*± /, ''))).toBeGreaterThan(0.3);
  await page.locator('[data-handle=tail]').focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(asked).toBeHidden();
  await expect.poll(async () => Number((await doubt.innerText()).replace(/.*± /, ''))).toBeLessThan(0.2);
  await page.getByRole('button', { name: 'Discard' }).click();
  await context.close();
});

test('a photograph without a board gets a plain word, and the handles', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler');
  await water(page);
  const plain = await sharp({ create: { width: 1200, height: 900, channels: 3, background: '#6a7a58' } })
    .jpeg()
    .toBuffer();
  await choose(page, 'meadow.jpg', plain);
  await expect(page.getByText('No board of a known kind was found')).toBeVisible({ timeout: READ_MS });
  await expect(page.getByRole('group', { name: 'Handles' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Set the handles first' })).toBeDisabled();
  await page.getByRole('button', { name: 'Discard' }).click();
  await context.close();
});

test('corners in an impossible order get a clear word, and nothing can be claimed of them', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'angler');
  await water(page);
  await choose(page, 'fish.jpg', shot.jpeg);
  // The two far corners swapped, a little aside so that no tap falls on another handle's middle.
  const [zeroFar, endFar, ...near] = shot.truth.corners;
  const aside = ([x, y]: readonly [number, number]): [number, number] => [x, y - 40];
  const crossed: Shot = {
    ...shot,
    truth: { ...shot.truth, corners: [aside(endFar), aside(zeroFar), ...near] },
  };
  await setHandles(page, crossed);
  await expect(page.getByText('The corners are crossed')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Not readable yet' })).toBeDisabled();
  const swapped: Shot = {
    ...shot,
    truth: {
      ...shot.truth,
      nosePx: aside(shot.truth.tailPx ?? [0, 0]),
      tailPx: aside(shot.truth.nosePx ?? [0, 0]),
    },
  };
  await setHandles(page, swapped);
  await expect(page.getByText('The tail lies before the nose')).toBeVisible();
  await page.getByRole('button', { name: 'Discard' }).click();
  await context.close();
});

test('files that are no photograph get a clear word', async ({ browser }, info) => {
  const { page, context } = await signedIn(browser, 'angler');
  await water(page);
  const png = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#fff' } })
    .png()
    .toBuffer();
  const files: [string, Buffer, RegExp][] = [
    ['really.jpg', png, /not a JPEG, whatever its name says/],
    ['empty.jpg', Buffer.alloc(0), /The file is empty/],
    ['half.jpg', shot.jpeg.subarray(0, 600), /breaks off or cannot be read/],
  ];
  for (const [name, bytes, words] of files) {
    await choose(page, name, bytes);
    await expect(page.getByText(words)).toBeVisible();
    await page.getByRole('button', { name: 'Choose another' }).click();
  }
  const huge = info.outputPath('huge.jpg');
  writeFileSync(huge, Buffer.alloc(60_000_000, 0xff));
  await page.getByLabel('Choose a JPEG').last().setInputFiles(huge);
  await expect(page.getByText(/too large/)).toBeVisible();
  await page.getByRole('button', { name: 'Choose another' }).click();
  await context.close();
});

test('a file that breaks off is read as far as it goes, is said to, and is not claimed', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'angler');
  await water(page);
  await choose(page, 'cut.jpg', shot.jpeg.subarray(0, Math.round(0.97 * shot.jpeg.length)));
  await expect(page.getByText('the file breaks off')).toBeVisible({ timeout: READ_MS });
  await expect(page.getByRole('button', { name: 'Correct by hand' })).toBeVisible({ timeout: READ_MS });
  await expect(page.getByRole('button', { name: /^Claim / })).toBeDisabled();
  await page.getByRole('button', { name: 'Discard' }).click();
  await context.close();
});

test('a draft outlives going back, a reload and a session that ended', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler');
  await water(page);
  await choose(page, 'fish.jpg', shot.jpeg);
  await setHandles(page, shot);
  const claim = page.getByRole('button', { name: /^Claim / });
  await expect(claim).toBeEnabled();
  const words = await claim.innerText();
  await page.goBack();
  await page.goForward();
  await expect(claim).toHaveText(words);
  await page.reload();
  await expect(claim).toHaveText(words);
  await page.getByLabel('Code on the card').fill('TYPED');
  await context.clearCookies();
  await claim.click();
  await expect(page.getByText('Your session has ended')).toBeVisible();
  await expect(page.getByText('kept on this device')).toBeVisible();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Angler/ })
    .click();
  await expect(page.getByText('is with the judges')).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('is taken back')).toBeVisible();
  await context.close();
});

test('two tabs that claim the same draft make one catch', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler');
  await water(page);
  await choose(page, 'fish.jpg', (await shoot(95, 333, new Date('2026-06-14T10:41:00Z'))).jpeg);
  await expect(page.getByRole('button', { name: /^Claim / })).toBeEnabled({ timeout: READ_MS });
  const second = await context.newPage();
  await second.goto(page.url());
  await expect(second.getByRole('button', { name: /^Claim / })).toBeEnabled();
  await page.getByRole('button', { name: /^Claim / }).click();
  await expect(page.getByText('is with the judges')).toBeVisible({ timeout: 30_000 });
  // The other tab learns that the fish is claimed, and has nothing left to claim.
  await expect(second.getByRole('button', { name: /^Claim / })).toHaveCount(0, { timeout: 30_000 });
  await expect(second.getByRole('heading', { name: 'Water', level: 1 })).toBeVisible();
  await context.close();
});

test('the page stays free while the bench searches: it hardly notices', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler');
  await water(page);
  const longTasksOf = await watchLongTasks(page);
  const from = Date.now();
  await choose(page, 'fish.jpg', shot.jpeg);
  await expect(page.getByRole('button', { name: 'Correct by hand' })).toBeVisible({ timeout: READ_MS });
  const tookMs = Date.now() - from;
  const longTasks = await longTasksOf();
  test.info().annotations.push({ type: 'long tasks', description: longTasks.map(Math.round).join(' ') });
  // In the page itself nearly all of the search would be long tasks; a busy machine makes some short ones longer.
  expect(longTasks.reduce((sum, ms) => sum + ms, 0)).toBeLessThan(0.3 * tookMs);
  await page.getByRole('button', { name: 'Discard' }).click();
  await context.close();
});

test('the page stays free while the bench computes: it hardly notices', async ({ browser }) => {
  const MOVES = 12;
  const { page, context } = await signedIn(browser, 'angler');
  await water(page);
  await choose(page, 'fish.jpg', shot.jpeg);
  await setHandles(page, shot);
  await page.waitForTimeout(1500);
  const longTasksOf = await watchLongTasks(page);
  const from = Date.now();
  await page.locator('[data-handle=end-far]').focus();
  for (let i = 0; i < MOVES; i++) {
    await page.keyboard.press('ArrowLeft');
    await page.waitForTimeout(100);
  }
  await page.waitForTimeout(800);
  const tookMs = Date.now() - from;
  const longTasks = await longTasksOf();
  test.info().annotations.push({ type: 'long tasks', description: longTasks.map(Math.round).join(' ') });
  // In the page itself each move's strips would be one such task; a busy machine makes some short ones longer.
  expect(longTasks.reduce((sum, ms) => sum + ms, 0)).toBeLessThan(0.2 * tookMs);
  await page.getByRole('button', { name: 'Discard' }).click();
  await context.close();
});

test('what a judge would find is said beside the length, with what to do, and each finding shows its place', async ({
  browser,
}) => {
  const board = findBoard('birch-30in');
  if (!board) throw new Error('birch-30in: expected a shipped board');
  const identifier = { eventCode: 'Z9Z9Z', entrantNumber: 900, code: 'AB12' };
  const scene = drawScene(91, { board, look: 'largemouth-bass', lengthMm: 402, identifier, hand: false });
  if (!scene.fish) throw new Error('scene: expected a fish');
  const jpeg = await shootScene({ ...scene, fish: { ...scene.fish, mouthGapMm: 17 } });
  const { page, context } = await signedIn(browser, 'angler');
  await water(page);
  await choose(page, 'open-mouth.jpg', jpeg);
  const findings = page.getByRole('region', { name: 'Findings' });
  const mouth = findings.getByRole('button', { name: /^mouth open/ });
  await expect(mouth).toBeVisible({ timeout: 30_000 });
  await expect(findings.getByText('Press the jaw shut and hold it there.')).toBeVisible();
  await expect(findings.getByText('The card is another event’s.')).toBeVisible();
  // The machine refuses nothing: the fish can be claimed all the same.
  await expect(page.getByRole('button', { name: /^Claim/ })).toBeEnabled();
  const photograph = page.getByAltText('The photograph on the bench');
  const widthOf = async (): Promise<number> => (await photograph.boundingBox())?.width ?? NaN;
  const before = await widthOf();
  await mouth.press('Enter');
  await expect.poll(widthOf).toBeGreaterThan(2 * before);
  await context.close();
});
