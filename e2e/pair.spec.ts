import { expect, test } from '@playwright/test';
import type { CatchView } from '@lauta/contract';
import { axe } from './axe.ts';
import { PHONE, newAngler } from './people.ts';
import { READ_MS } from './photo.ts';

const WRITES = [/\/api\/photographs\/[^/]+($|\/(chunks|complete))/, /\/api\/commands$/];

test('a partner’s phone times what the other one claims: without a network, one catch', async ({
  browser,
}) => {
  const { page, context, event } = await newAngler(browser, PHONE);
  await page.goto(`${event}/pair`);
  await page.getByRole('button', { name: /^Timer/ }).tap();
  const link = page.getByText(/\/pair\/[\w-]{40,}$/);
  await expect(page.getByAltText('Code that the partner’s phone reads with its camera')).toBeVisible();
  await axe(page);
  if (process.env['SHOTS']) await page.screenshot({ path: `${process.env['SHOTS']}/pair.png` });
  const url = (await link.textContent()) ?? '';

  const other = await browser.newContext({ ...PHONE, serviceWorkers: 'block' });
  const partner = await other.newPage();
  await partner.goto(url);
  await partner.getByRole('button', { name: 'Pair this phone' }).tap();
  const two = (one: typeof page) => one.getByRole('region', { name: 'Two phones' });
  await expect(two(partner)).toContainText('fish 1');
  await expect(two(partner)).toContainText('this phone times');
  await expect(partner.getByRole('button', { name: 'Simulated camera', exact: true })).toHaveCount(0);
  // What it may not do is not offered either.
  await expect(partner.getByRole('navigation').getByRole('link', { name: /^Judge/ })).toHaveCount(0);

  await page.goto(`${event}/water`);
  await expect(two(page)).toContainText('fish 1');
  await expect(two(page)).toContainText('this phone photographs');
  await expect(page.getByRole('button', { name: 'Simulated camera', exact: true })).toBeVisible();
  await axe(page);
  // Nothing that either phone writes arrives.
  for (const one of [context, other])
    for (const path of WRITES) await one.route(path, (route) => route.abort());

  for (const name of ['Fish on', 'In the net', 'Lift', 'Back in the water', 'Released']) {
    await partner.getByRole('button', { name, exact: true }).tap();
    await partner.waitForTimeout(600);
  }
  if (process.env['SHOTS']) await partner.screenshot({ path: `${process.env['SHOTS']}/pair-timer.png` });
  await partner.getByRole('button', { name: 'Keep the time of fish 1' }).tap();
  await expect(two(partner)).toContainText('fish 2');
  await expect(partner.getByRole('region', { name: 'Waiting to be sent' })).toContainText(
    'the time of a fish',
  );

  // The camera's phone taps the lift too: it stays one lift.
  for (const name of ['Lift', 'Back in the water']) {
    if (name === 'Lift') await page.getByRole('button', { name: 'Fish on', exact: true }).tap();
    await page.waitForTimeout(600);
    await page.getByRole('button', { name, exact: true }).tap();
  }
  await page.getByRole('button', { name: 'Simulated camera', exact: true }).tap();
  const claim = page.getByRole('button', { name: /^Claim / });
  await expect(claim).toBeEnabled({ timeout: READ_MS });
  await page.getByRole('button', { name: 'Released', exact: true }).tap();
  await claim.tap();
  await expect(page.getByText('is safe here and on its way to the judges.')).toBeVisible();
  await expect(two(page)).toContainText('fish 2');
  await expect(two(page).getByRole('button', { name: 'Previous fish' })).toBeDisabled();

  const sent = page.waitForResponse(
    (response) => response.request().postData()?.includes('"catch.claim"') === true && response.ok(),
    { timeout: READ_MS },
  );
  for (const one of [context, other]) for (const path of WRITES) await one.unroute(path);
  const { result } = (await (await sent).json()) as { result: { catchId: string } };
  await expect(partner.getByRole('region', { name: 'Waiting to be sent' })).toHaveCount(0, {
    timeout: READ_MS,
  });
  const caught = (await (await context.request.get(`/api/catches/${result.catchId}`)).json()) as CatchView;
  const steps = (caught.handling?.events ?? []).map(({ step }) => step);
  // Both phones' taps are there: the partner lifted first, and the other one later.
  expect(steps[0]).toBe('hooked');
  expect(steps).toContain('netted');
  expect(steps.at(-1)).toBe('released');
  expect(caught.claimedSteps).toBeGreaterThan(0);

  await page.goto(`${event}/pair`);
  await page.getByRole('button', { name: 'End it' }).last().tap();
  await expect
    .poll(async () => (await other.request.get('/api/who')).json())
    .toMatchObject({ account: null });
  await context.close();
  await other.close();
});
