import { expect, test, type Page } from '@playwright/test';
import type { CustodyView } from '@lauta/contract';
import { PHONE, signedIn } from './people.ts';
import { READ_MS } from './photo.ts';

/** A device clock that a test can set; the time since the page began runs on as ever. */
function settableClock(): void {
  const Real = Date;
  const now = Real.now.bind(Real);
  const scope = window as unknown as { setMs: number };
  scope.setMs = 0;
  Real.now = () => now() + scope.setMs;
  window.Date = new Proxy(Real, {
    construct: (target, args: []) => (args.length === 0 ? new target(target.now()) : new target(...args)),
  });
}

/** Claims a simulated photograph, waits until it has arrived, and tells the catch. */
async function claimOne(page: Page): Promise<string> {
  const sent = page.waitForResponse(
    (response) => response.url().endsWith('/api/commands') && response.request().postData()?.includes('"catch.claim"') === true,
    { timeout: 120_000 },
  ); // prettier-ignore
  await page.getByRole('button', { name: 'Simulated camera', exact: true }).tap();
  const claim = page.getByRole('button', { name: /^Claim / });
  await expect(claim).toBeEnabled({ timeout: READ_MS });
  await claim.tap();
  const receipt = (await (await sent).json()) as { result: { catchId: string } };
  return receipt.result.catchId;
}

test('a clock that is set back between two catches is found, and the judge sees where they were taken', async ({
  browser,
}) => {
  const judge = await signedIn(browser, 'judge');
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await page.addInitScript(settableClock);
  await page.goto(`${page.url()}/water`);
  const first = await claimOne(page);
  await expect(page.getByText('is with the judges')).toBeVisible({ timeout: 30_000 });
  await page.evaluate(() => ((window as unknown as { setMs: number }).setMs = -40 * 60_000));
  const second = await claimOne(page);
  const custodyOf = async (catchId: string): Promise<CustodyView> =>
    (await (await judge.context.request.get(`/api/catches/${catchId}/custody`)).json()) as CustodyView;
  const toneOf = async (catchId: string, check: string) =>
    (await custodyOf(catchId)).findings.find((one) => one.check === check)?.tone;
  await expect.poll(() => toneOf(second, 'clock-set-back'), { timeout: 20_000 }).toBe('fault');
  expect(await toneOf(first, 'clock-set-back')).not.toBe('fault');
  for (const id of [first, second]) {
    expect(await toneOf(id, 'chosen-file')).toBe('look');
    expect(await toneOf(id, 'chain-broken')).toBe('clear');
    expect(await toneOf(id, 'signature-broken')).toBeUndefined();
    // The simulated boat drifts on the event's waters.
    expect(await toneOf(id, 'device-place-outside')).toBe('clear');
  }
  await judge.page.goto(`${judge.page.url().replace(/\/judge.*|\/$/, '')}/judge/${second}`);
  const way = judge.page.getByRole('region', { name: 'From capture to server' });
  await expect(way).toContainText('the device’s clock was set');
  await expect(way).toContainText('set back by 40 min');
  await way.getByText(/^from phone to server: clear/).click();
  await way.getByText('Where it was taken').click();
  await expect(way.getByText('taken here')).toBeVisible();
  await context.close();
  await judge.context.close();
});

test('without a position catches are taken all the same, and it is said', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler', { ...PHONE, permissions: [] });
  const event = page.url();
  await page.goto(`${event}/settings`);
  await page.getByLabel('by this device’s receiver').check();
  await page.goto(`${event}/water`);
  await expect(page.getByText('no position: the browser was told not to give it')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Fish on', exact: true })).toBeEnabled();
  await context.close();
});

test('waters are published from a file, and one that cannot be used is refused in words', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'director');
  await page.getByRole('link', { name: 'Where to fish' }).click();
  await expect(page.getByRole('heading', { name: /^Where to fish, version/ })).toBeVisible();
  const open = (text: string) =>
    page
      .getByLabel('GeoJSON file of the waters')
      .setInputFiles({ name: 'waters.geojson', mimeType: 'application/geo+json', buffer: Buffer.from(text) });
  const crossing = { type: 'FeatureCollection', features: [{ type: 'Feature', properties: { name: 'knot' }, geometry: { type: 'Polygon', coordinates: [[[19, 51], [19.1, 51.1], [19.1, 51], [19, 51.1], [19, 51]]] } }] }; // prettier-ignore
  await open(JSON.stringify(crossing));
  await expect(page.getByRole('alert')).toContainText('An outline crosses itself. (knot)');
  await open('not json');
  await expect(page.getByRole('alert')).toContainText('The file is not JSON.');
  const now = (await (await context.request.get(`/api/events/${page.url().split('/')[4]}/waters`)).json()) as { waters: object }; // prettier-ignore
  await open(JSON.stringify(now.waters));
  await expect(page.getByText('not published yet')).toBeVisible();
  await page.getByRole('button', { name: 'Publish these waters' }).click();
  await expect(page.getByText('not published yet')).toHaveCount(0);
  await context.close();
});
