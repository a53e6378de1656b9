import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect, test, type BrowserContext, type Page } from '@playwright/test';
import { CHROMIUM } from './browser.ts';
import { PHONE, BOARD_OPEN } from './people.ts';
import { READ_MS } from './photo.ts';

const clock = (page: Page) => page.getByRole('region', { name: 'The clock of this fish' });
const inPhase = (words: string) => async (page: Page) =>
  expect(clock(page).getByRole('heading', { name: words })).toBeVisible({ timeout: 20_000 });
const tap = (name: string) => async (page: Page) => {
  await page.getByRole('button', { name, exact: true }).tap();
};
const claim = (page: Page) => page.getByRole('button', { name: /^Claim / });

/** The steps of a catch, and what must be there after each of them, whatever happens to page and browser. */
const STEPS: { name: string; act: (page: Page) => Promise<void>; isThere: (page: Page) => Promise<void> }[] = [
  { name: 'fish on', act: tap('Fish on'), isThere: inPhase('Fight') },
  { name: 'its size', act: tap('4'), isThere: (page) => expect(page.getByRole('button', { name: '4', exact: true, pressed: true })).toBeVisible() },
  { name: 'in the net', act: tap('In the net'), isThere: inPhase('Resting in the net') },
  { name: 'hook', act: tap('tongue'), isThere: (page) => expect(page.getByRole('button', { name: 'tongue', pressed: true })).toBeVisible() },
  { name: 'lift', act: tap('Lift'), isThere: inPhase('Out of the water') },
  { name: 'back in the water', act: tap('Back in the water'), isThere: inPhase('Resting in the net') },
  {
    name: 'a photograph',
    act: async (page) => {
      await tap('Simulated camera')(page);
      await expect(claim(page)).toBeEnabled({ timeout: READ_MS });
    },
    isThere: (page) => expect(claim(page)).toBeEnabled({ timeout: READ_MS }),
  },
  { name: 'released', act: tap('Released'), isThere: (page) => expect(claim(page)).toBeEnabled({ timeout: READ_MS }) },
  {
    name: 'claimed',
    act: async (page) => {
      await claim(page).tap();
      await expect(page.getByText('is safe here and on its way to the judges.')).toBeVisible();
    },
    isThere: (page) => expect(page.getByText('kept on this device').or(page.getByText('a claim, 1 file')).first()).toBeVisible({ timeout: 20_000 }),
  },
]; // prettier-ignore

test('page and browser are killed after every step of a catch: nothing that was tapped is lost', async () => {
  const profile = mkdtempSync(join(tmpdir(), 'lauta-killed-'));
  const open = async (): Promise<{ context: BrowserContext; page: Page }> => {
    const context = await chromium.launchPersistentContext(profile, {
      ...PHONE,
      executablePath: CHROMIUM,
      baseURL: test.info().project.use.baseURL ?? '',
      serviceWorkers: 'block',
    });
    // Nothing that is written arrives: all of it is on this device alone.
    for (const path of [/\/api\/photographs\//, /\/api\/commands$/]) await context.route(path, (route) => route.abort()); // prettier-ignore
    return { context, page: context.pages()[0] ?? (await context.newPage()) };
  };
  let { context, page } = await open();
  await page.goto('/sign-in');
  await page.getByRole('button', { name: /^angler/i }).tap();
  await page.getByRole('link', { name: BOARD_OPEN }).tap();
  await expect(page.getByRole('heading', { level: 1, name: /Kestrel Mere/ })).toBeVisible();
  const water = `${page.url()}/water`;
  // Chromium writes cookies down half a minute later, or when it is closed: that is its own matter.
  await context.close();
  ({ context, page } = await open());
  await page.goto(water);
  await page.evaluate(() => localStorage.setItem('lauta-camera', '{"opens":null}'));
  for (const [i, { name, act, isThere }] of STEPS.entries()) {
    await test.step(name, async () => {
      await act(page);
      await isThere(page);
      if (i % 2 === 0) {
        // The page alone.
        const next = await context.newPage();
        await page.close({ runBeforeUnload: false });
        page = next;
      } else {
        // The whole browser, at once: it writes nothing any more.
        const killer = await context.newCDPSession(page);
        await Promise.race([killer.send('Browser.crash').catch(() => undefined), page.waitForTimeout(500)]).catch(() => undefined); // prettier-ignore
        await context.close().catch(() => undefined);
        ({ context, page } = await open());
      }
      await page.goto(water);
      await isThere(page);
    });
  }
  await context.close();
  rmSync(profile, { recursive: true, force: true });
});
