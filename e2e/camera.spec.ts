import { chromium, expect, test, type Browser, type Page } from '@playwright/test';
import type { CustodyView } from '@lauta/contract';
import { CHROMIUM } from './browser.ts';
import { axeInEachLook } from './axe.ts';
import { PHONE, signedIn } from './people.ts';
import { READ_MS } from './photo.ts';

const clock = (page: Page) => page.getByRole('region', { name: 'The clock of this fish' });
const camera = (page: Page) => page.getByRole('region', { name: 'Camera' });
const frames = (page: Page) => page.getByRole('region', { name: 'Frames' });

/** Counts the taps of a thumb; two within less than half a second are taken for one. */
function thumb(page: Page) {
  let count = 0;
  return {
    count: () => count,
    tap: async (name: string | RegExp): Promise<void> => {
      await page.getByRole('button', { name, exact: true }).tap();
      count++;
      await page.waitForTimeout(420);
    },
  };
}

/** How many answers a second the live view's worker gives, over some seconds. */
async function looksPerSecond(page: Page, seconds: number): Promise<number> {
  const worker = page.workers().find((one) => one.url().includes('live.worker'));
  if (!worker) throw new Error('expected the live worker, found none');
  await worker.evaluate(() => {
    const scope = self as unknown as { postMessage: (message: unknown) => void; answers: number };
    const tell = scope.postMessage.bind(self);
    scope.answers = 0;
    scope.postMessage = (message) => {
      scope.answers++;
      tell(message);
    };
  });
  await page.waitForTimeout(1000 * seconds);
  return (await worker.evaluate(() => (self as unknown as { answers: number }).answers)) / seconds;
}

async function onWater(page: Page): Promise<void> {
  // The simulated camera films the same fish in every run.
  await page.evaluate(() => localStorage.setItem('lauta-film-seed', '7'));
  await page.goto(`${page.url()}/water`);
  await expect(page.getByRole('heading', { name: 'Water', level: 1 })).toBeVisible();
}

test('a burst by the thumb: from fish on to sent, the best of twelve frames is proposed', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await onWater(page);
  const hand = thumb(page);
  // Ready before launch: the simulated camera draws its film only once.
  await page.getByRole('button', { name: 'Simulated live view' }).tap();
  await expect(camera(page)).toBeVisible({ timeout: READ_MS });
  await page.getByRole('button', { name: 'thumb', exact: true }).tap();
  await expect(camera(page).getByText('Ready for the fish')).toBeVisible({ timeout: 30_000 });
  if (process.env['SHOTS']) await page.screenshot({ path: `${process.env['SHOTS']}/live-net.png` });

  const begun = Date.now();
  await hand.tap('Fish on');
  await hand.tap('In the net');
  const lifted = hand.count();
  await hand.tap('Lift');
  await hand.tap('Photograph');
  if (process.env['SHOTS']) await page.screenshot({ path: `${process.env['SHOTS']}/live-air.png` });
  await expect(camera(page).getByText('12 taken: back into the water')).toBeVisible({ timeout: 20_000 });
  await hand.tap('Back in the water');
  expect(hand.count() - lifted).toBe(3);
  await expect(frames(page).getByRole('listitem')).toHaveCount(12, { timeout: 30_000 });
  const claim = page.getByRole('button', { name: /^Claim / });
  await expect(claim).toBeEnabled({ timeout: READ_MS });
  await expect(frames(page).getByRole('listitem').first()).toContainText('the best');
  await expect(frames(page).getByRole('button', { pressed: true })).toContainText('nothing wrong');
  if (process.env['SHOTS']) await page.screenshot({ path: `${process.env['SHOTS']}/live-bench.png` });
  await hand.tap('Released');
  await claim.tap();
  await expect(page.getByText('is with the judges')).toBeVisible({ timeout: 30_000 });
  const taken = (Date.now() - begun) / 1000;
  test.info().annotations.push({ type: 'seconds from fish on to sent', description: taken.toFixed(1) });
  if (process.env['SHOTS']) console.log('seconds', taken);
  expect(hand.count() + 1).toBeLessThanOrEqual(9);
  await judgeAsksForTheOthers(browser, page);
  await context.close();
});

/** All twelve frames were signed, one came; a judge asks for the others, and the phone sends them by itself. */
async function judgeAsksForTheOthers(browser: Browser, angler: Page): Promise<void> {
  const href = (await angler.getByRole('link', { name: 'See it' }).getAttribute('href')) ?? '';
  const catchId = href.split('/').at(-1) ?? '';
  const judge = await signedIn(browser, 'judge');
  const custody = async (): Promise<CustodyView> =>
    (await (await judge.context.request.get(`/api/catches/${catchId}/custody`)).json()) as CustodyView;
  await expect.poll(async () => (await custody()).captures.length, { timeout: 30_000 }).toBe(12);
  const { findings, captures } = await custody();
  const clear = new Set(findings.filter(({ tone }) => tone === 'clear').map(({ check }) => check));
  for (const check of [
    'photograph-altered',
    'chain-broken',
    'device-place-outside',
    'identifier-otherwise',
  ] as const)
    expect(clear, check).toContain(check);
  // A busy camera may show one picture for a while: no frame is the former one again.
  expect(new Set(captures.map(({ photographSha256 }) => photographSha256)).size).toBe(12);
  expect(captures.filter(({ isClaimed }) => isClaimed)).toHaveLength(1);
  await judge.page.goto(href.replace('catches', 'judge'));
  const way = judge.page.getByRole('region', { name: 'From capture to server' });
  await way.getByText(/^from phone to server: clear/).click();
  await way.getByText('11 more signed of this catch').click();
  await way.getByRole('button', { name: 'Ask for these 11' }).click();
  await expect
    .poll(async () => (await custody()).captures.filter(({ frame }) => frame === 'sent').length, {
      timeout: READ_MS,
    })
    .toBe(11);
  await judge.page.reload();
  await expect(
    judge.page.getByRole('region', { name: 'Other photographs' }).getByRole('listitem'),
  ).toHaveCount(11);
  await judge.context.close();
}

test('hands-free: a fish laid on the board starts the air clock, the shutter fires by itself, two taps', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await onWater(page);
  const hand = thumb(page);
  await hand.tap('In the net');
  await page.getByRole('button', { name: 'Simulated live view' }).tap();
  await expect(camera(page)).toBeVisible({ timeout: READ_MS });
  await page.getByRole('button', { name: 'by itself', exact: true }).tap();
  await axeInEachLook(page);
  for (const button of await camera(page).getByRole('button').all())
    expect((await button.boundingBox())?.height ?? 0).toBeGreaterThanOrEqual(64);
  const rate = await looksPerSecond(page, 4);
  test.info().annotations.push({ type: 'live looks a second, board followed', description: rate.toFixed(2) });
  if (process.env['SHOTS']) console.log('looks a second', rate);
  expect(rate).toBeGreaterThan(0);
  const before = hand.count();
  await hand.tap('Lift');
  // The fish is slid up to the stop; nobody touches the phone until twelve frames are there.
  await expect(camera(page).getByText('12 taken: back into the water')).toBeVisible({ timeout: 20_000 });
  if (process.env['SHOTS']) await page.screenshot({ path: `${process.env['SHOTS']}/hands-free.png` });
  await hand.tap('Back in the water');
  expect(hand.count() - before).toBe(2);
  await expect(frames(page).getByRole('listitem')).toHaveCount(12, { timeout: 30_000 });

  // The page is left in mid-catch: clock and frames are there again.
  await page.reload();
  await expect(clock(page).getByRole('heading', { name: 'Resting in the net' })).toBeVisible();
  await expect(frames(page).getByRole('listitem')).toHaveCount(12);
  await expect(page.getByRole('button', { name: /^Claim / })).toBeEnabled({ timeout: READ_MS });
  // Another frame is one tap away.
  await frames(page).getByRole('listitem').nth(2).getByRole('button').tap();
  await expect(frames(page).getByText('another is better')).toBeVisible();

  // Shot again: the camera opens by itself, and the fish on the board starts the clock without a tap.
  await hand.tap('Shoot again');
  await expect(camera(page)).toBeVisible({ timeout: READ_MS });
  await page.getByRole('button', { name: 'Simulated hands: lay the fish on' }).tap();
  // The frames of the first lift may still be read: on a busy machine the live view's looks come further apart.
  await expect(clock(page).getByRole('heading', { name: 'Out of the water' })).toBeVisible({
    timeout: READ_MS,
  });
  await expect(clock(page).getByText(/2 lifts,/)).toBeVisible();
  await hand.tap('Back in the water');
  await frames(page).getByRole('button', { name: 'Throw all away' }).tap();
  await page.getByRole('button', { name: 'Undo', exact: true }).first().tap();
  await expect(frames(page)).toBeVisible();

  // A picture with the person: two frames, and then water; one of them goes with the claim.
  await hand.tap('Shoot again');
  await page.getByRole('button', { name: 'With you', exact: true }).tap({ timeout: READ_MS });
  await page.getByRole('button', { name: '3 s', exact: true }).tap();
  await hand.tap('Lift again');
  await hand.tap('Photograph in 3 s');
  await expect(camera(page).getByText('2 taken: back into the water', { exact: true })).toBeVisible({
    timeout: 10_000,
  });
  await hand.tap('Back in the water');
  const withYou = page.getByRole('region', { name: 'With you' });
  await expect(withYou.getByRole('listitem')).toHaveCount(2, { timeout: 20_000 });
  await hand.tap('Released');
  await page.getByRole('button', { name: /^Claim / }).tap({ timeout: READ_MS });
  await expect(page.getByText('is with the judges')).toBeVisible({ timeout: 30_000 });
  await page.getByRole('link', { name: 'See it' }).tap();
  await expect(page.getByRole('img', { name: 'with the angler' })).toBeVisible();
  await context.close();
});

test('the device’s own camera: refused, absent and there', async () => {
  for (const [args, permissions] of [
    [[], []],
    [
      ['--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
      ['camera', 'geolocation'],
    ],
  ] as const) {
    const browser = await chromium.launch({ executablePath: CHROMIUM, args: [...args] });
    const { page, context } = await signedIn(browser, 'angler', {
      ...PHONE,
      baseURL: test.info().project.use.baseURL ?? '',
      permissions: [...permissions],
      geolocation: { latitude: 47.25, longitude: 8.5 },
    });
    await onWater(page);
    await page.getByRole('button', { name: 'In the net' }).tap();
    await page.getByRole('button', { name: 'Open the camera' }).tap();
    if (permissions.length === 0) {
      const trouble = page.getByRole('alert').filter({ hasText: 'no live view' });
      await expect(trouble).toContainText('choose', { timeout: 20_000 });
      await page.getByRole('button', { name: 'Without the live view' }).tap();
      await expect(page.getByRole('button', { name: 'Choose a JPEG' })).toBeVisible();
    } else {
      // What a fake device shows is no board: it is said, and the thumb may shoot all the same.
      await expect(camera(page).getByText('Lay the board into the outline')).toBeVisible({ timeout: 20_000 });
      await page.getByRole('button', { name: '3 s', exact: true }).tap();
      await page.waitForTimeout(450);
      await page.getByRole('button', { name: 'Lift', exact: true }).tap();
      await page.getByRole('button', { name: 'Photograph in 3 s' }).tap();
      await expect(page.getByRole('button', { name: 'Stop the timer' })).toBeVisible();
      await expect(camera(page).getByText('Taking 12 …')).toBeVisible({ timeout: 8_000 });
      // The fish flips off the board in mid-burst: what was taken until then is kept.
      await page.getByRole('button', { name: 'It got away' }).tap();
      await expect(frames(page).getByRole('listitem').first()).toBeVisible({ timeout: 30_000 });
      await expect(page.getByText('by the photograph’s own time')).toBeVisible({ timeout: READ_MS });
    }
    await context.close();
    await browser.close();
  }
});
