import { createServer, request, type IncomingHttpHeaders } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect, test, type BrowserContext, type Page } from '@playwright/test';
import { axe } from './axe.ts';
import { PHONE, signedIn } from './people.ts';
import { READ_MS } from './photo.ts';

const waiting = (page: Page) => page.getByRole('region', { name: 'Waiting to be sent' });
const own = (page: Page) => page.getByRole('region', { name: 'Your catches' }).getByRole('listitem');
const WRITES = [/\/api\/photographs\//, /\/api\/commands$/];

/** The catches that wait on this device: other tests claim for the same angler meanwhile. */
function kept(page: Page): Promise<string[]> {
  return page.evaluate(
    () =>
      new Promise<string[]>((resolve, reject) => {
        const opening = indexedDB.open('lauta');
        opening.onerror = () => reject(new Error('outbox: expected to open'));
        opening.onsuccess = () => {
          const asked = opening.result.transaction('entries').objectStore('entries').getAll();
          asked.onsuccess = () => {
            opening.result.close();
            resolve((asked.result as { command: { kind: string; body: { catchId: string } } }[]).filter(({ command }) => command.kind === 'catch.claim').map(({ command }) => command.body.catchId)); // prettier-ignore
          };
        };
      }),
  );
}

/** What the server answers about a catch. */
const statusOf = (page: Page, catchId: string): Promise<number> =>
  page.evaluate(async (id) => (await fetch(`/api/catches/${id}`)).status, catchId);

/** Nobody answers what is written; what is read is answered as ever. */
async function cutWrites(context: BrowserContext): Promise<() => Promise<void>> {
  for (const path of WRITES) await context.route(path, (route) => (route.request().method() === 'GET' ? route.continue() : route.abort())); // prettier-ignore
  return async () => {
    for (const path of WRITES) await context.unroute(path);
  };
}

async function claimOne(page: Page): Promise<string> {
  await page.getByRole('button', { name: 'Simulated camera', exact: true }).tap();
  const claim = page.getByRole('button', { name: /^Claim / });
  await expect(claim).toBeEnabled({ timeout: READ_MS });
  const length = ((await claim.textContent()) ?? '').replace(/^Claim | in$/g, '');
  await claim.tap();
  return length;
}

test('a claim without an answer is safe on the device, survives a reload and two tabs, and arrives once', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  const water = `${page.url()}/water`;
  await page.goto(water);
  await expect(own(page).first()).toBeVisible();
  const mend = await cutWrites(context);
  const length = await claimOne(page);
  await expect(page.getByText('is safe here and on its way to the judges.')).toBeVisible();
  await expect(page.getByText('kept on this device')).toBeVisible();
  const [catchId = ''] = await kept(page);
  expect(await statusOf(page, catchId)).toBe(404);
  await axe(page);

  await page.reload();
  await expect(waiting(page)).toContainText('a claim', { timeout: 20_000 });
  await expect(waiting(page)).toContainText('No answer from the server', { timeout: 20_000 });
  if (process.env['SHOTS']) await page.screenshot({ path: `${process.env['SHOTS']}/outbox.png` });
  const other = await context.newPage();
  await other.goto(water);
  await expect(waiting(other)).toContainText('a claim');

  // It is held back until it is wanted again.
  await page.getByRole('button', { name: 'Pause' }).tap();
  await mend();
  await expect(waiting(page)).toContainText('Sending is paused.');
  let claims = 0;
  context.on('request', (request) => {
    if (request.url().endsWith('/api/commands') && request.postData()?.includes('catch.claim')) claims++;
  });
  await page.getByRole('button', { name: 'Send again' }).tap();
  await other.close();
  await expect(waiting(page)).toHaveCount(0, { timeout: 30_000 });
  expect(await statusOf(page, catchId)).toBe(200);
  await expect(page.locator(`a[href$="${catchId}"]`)).toContainText(length);
  expect(claims).toBe(1);
  expect(await kept(page)).toEqual([]);
  await context.close();
});

test('after one visit the water works cold without a network, and what was claimed there arrives later', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'angler', { ...PHONE, serviceWorkers: 'allow' });
  const water = `${page.url()}/water`;
  await page.goto(water);
  await expect(own(page).first()).toBeVisible();
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
    while (!navigator.serviceWorker.controller) await new Promise((resolve) => setTimeout(resolve, 50));
  });
  // What was fetched is written down a moment later.
  await page.waitForTimeout(2000);
  await page.close();
  await context.setOffline(true);

  const cold = await context.newPage();
  const begun = Date.now();
  await cold.goto(water);
  await expect(cold.getByRole('button', { name: 'Fish on', exact: true })).toBeVisible({ timeout: 20_000 });
  const usable = Date.now() - begun;
  test.info().annotations.push({ type: 'cold start without a network to usable, ms', description: `${usable}` }); // prettier-ignore
  if (process.env['SHOTS']) console.log('cold start', usable);
  await expect(own(cold).first()).toBeVisible();
  await claimOne(cold);
  await expect(cold.getByText('is safe here and on its way to the judges.')).toBeVisible();
  if (process.env['SHOTS']) await cold.screenshot({ path: `${process.env['SHOTS']}/offline.png` });
  const [catchId = ''] = await kept(cold);
  await cold.reload();
  await expect(waiting(cold)).toContainText('a claim', { timeout: 20_000 });

  await context.setOffline(false);
  await expect(waiting(cold)).toHaveCount(0, { timeout: READ_MS });
  expect(await statusOf(cold, catchId)).toBe(200);
  expect(await kept(cold)).toEqual([]);
  await context.close();
});

/** Passes everything on to the server under test, and can serve a newer service worker than its own. */
async function openProxy(target: string) {
  let version = 1;
  const { hostname, port } = new URL(target);
  const server = createServer((asked, answer) => {
    const isNewer = asked.url === '/sw.js' && version > 1;
    const without = (headers: IncomingHttpHeaders, ...names: string[]): IncomingHttpHeaders =>
      isNewer
        ? Object.fromEntries(Object.entries(headers).filter(([name]) => !names.includes(name)))
        : headers;
    const headers = without(asked.headers, 'if-none-match', 'if-modified-since');
    const passed = request({ hostname, port, path: asked.url, method: asked.method, headers }, (back) => {
      // Its length changes with the line that is added.
      answer.writeHead(
        back.statusCode ?? 502,
        without(back.headers, 'content-length', 'etag', 'last-modified'),
      );
      back.pipe(answer, { end: !isNewer });
      if (isNewer) back.on('end', () => answer.end(`\n// version ${version}`));
    });
    passed.on('error', () => answer.destroy());
    asked.pipe(passed);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    setVersion: (next: number) => (version = next),
    close: () => {
      server.closeAllConnections();
      server.close();
    },
  };
}

test('a new version that comes in mid-capture waits until the fish is gone', async ({ browser, baseURL }) => {
  const proxy = await openProxy(baseURL ?? '');
  const { page, context } = await signedIn(browser, 'angler', { ...PHONE, baseURL: proxy.url, serviceWorkers: 'allow' }); // prettier-ignore
  await page.goto(`${page.url()}/water`);
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
    while (!navigator.serviceWorker.controller) await new Promise((resolve) => setTimeout(resolve, 50));
  });
  await page.getByRole('button', { name: 'Fish on', exact: true }).tap();
  proxy.setVersion(2);
  await page.evaluate(async () => {
    const registration = await navigator.serviceWorker.ready;
    await registration.update();
    while (!registration.waiting) await new Promise((resolve) => setTimeout(resolve, 100));
  });
  const note = page.getByText('A new version of Lauta is ready.');
  // It looks again every five seconds: twice it must not be offered.
  await page.waitForTimeout(11_000);
  await expect(note).toHaveCount(0);
  const clockOf = page.getByRole('region', { name: 'The clock of this fish' });
  await expect(clockOf.getByRole('heading', { name: 'Fight' })).toBeVisible();
  await page.getByRole('button', { name: 'In the net', exact: true }).tap();
  await page.waitForTimeout(600);
  await page.getByRole('button', { name: 'Released', exact: true }).tap();
  await expect(note).toBeVisible({ timeout: 15_000 });
  // The next start has the new one, and the fish is still there.
  await page.getByRole('button', { name: 'Start it now' }).tap();
  await expect(clockOf.getByRole('heading', { name: 'Over' })).toBeVisible({ timeout: 20_000 });
  await expect(note).toHaveCount(0);
  await context.close();
  proxy.close();
});
