import { expect, test, type Locator, type Page } from '@playwright/test';
import sharp from 'sharp';
import { axe } from './axe.ts';
import { PHONE, newAngler, signedIn } from './people.ts';

/** Whether all of something is on the screen, between the header and the places at the bottom. */
async function inView(page: Page, what: Locator): Promise<boolean> {
  const box = await what.boundingBox();
  const header = await page.locator('header').first().boundingBox();
  const places = await page.getByRole('navigation', { name: 'Places' }).last().boundingBox();
  if (!box || !header || !places) return false;
  return box.y >= header.y + header.height - 1 && box.y + box.height <= places.y + 1;
}

test('after every tap on the water the clock and the main action are on the screen', async ({ browser }) => {
  const { page, context, event } = await newAngler(browser, PHONE);
  await page.goto(event);
  await page.getByRole('navigation', { name: 'Places' }).last().getByRole('link', { name: 'Water' }).tap();
  const clock = page.getByRole('region', { name: 'The clock of this fish' });
  for (const [button, heading, next] of [
    ['Fish on', 'Fight', 'In the net'],
    ['In the net', 'Resting in the net', 'Lift'],
    ['Lift', 'Out of the water', 'Back in the water'],
    ['Back in the water', 'Resting in the net', 'Lift again'],
  ] as const) {
    await page.getByRole('button', { name: button, exact: true }).tap();
    const shown = clock.getByRole('heading', { name: heading });
    await expect(shown).toBeVisible();
    await expect.poll(() => inView(page, shown), { message: `the clock after “${button}”` }).toBe(true);
    const main = page.getByRole('button', { name: next, exact: true });
    await expect.poll(() => inView(page, main), { message: `“${next}” after “${button}”` }).toBe(true);
    // A thumb that bounces is not taken for a second tap.
    await page.waitForTimeout(450);
  }
  await context.close();
});

test('a role is taken away at once, a link takes it up again, and its owner sees where the account is signed in', async ({
  browser,
}) => {
  const angler = await newAngler(browser);
  await angler.page.goto(angler.event);
  const places = angler.page.getByRole('navigation', { name: 'Places' }).first();
  await expect(places.getByRole('link', { name: 'Water' })).toBeVisible();

  const director = await signedIn(browser, 'director');
  await director.page.getByRole('link', { name: 'Event', exact: true }).first().click();
  await director.page.getByRole('link', { name: 'People of this event' }).click();
  const email = await emailOf(director.page, angler);
  await director.page.getByLabel('Find a person').fill(email);
  const line = director.page.getByRole('listitem').filter({ hasText: email });
  await line.getByRole('button', { name: 'Change' }).click();
  await line.getByLabel('Why').fill('Left before noon.');
  await axe(director.page);
  await line.getByRole('button', { name: 'No longer Angler' }).click();
  await expect(line).toBeHidden();
  // Nobody reloads anything: what is asked for next is refused.
  const { eventId, entrantId } = await ownEntrant(angler);
  const claimed = await angler.context.request.post('/api/commands', {
    headers: { origin: new URL(angler.page.url()).origin, 'idempotency-key': crypto.randomUUID() },
    data: { v: 1, commandId: crypto.randomUUID(), eventId, madeAt: new Date().toISOString(), deviceId: crypto.randomUUID(), kind: 'catch.time', body: { catchId: crypto.randomUUID(), entrantId, clockOffsetMs: null, handling: { events: [{ step: 'hooked', atMs: 1 }], airLimitSeconds: 6, guessedMassG: null, waterCelsius: null, airCelsius: null, hookPlace: null, bleeds: false, signs: {} } } }, // prettier-ignore
  });
  expect(claimed.status(), await claimed.text()).toBe(403);

  await angler.page.getByRole('link', { name: 'Tova Brackmere' }).first().click();
  await expect(angler.page.getByRole('heading', { name: 'Where you are signed in' })).toBeVisible();
  await expect(angler.page.getByText('this one')).toBeVisible();
  await axe(angler.page);
  await angler.page.getByLabel('The password until now').fill('a long one for tests');
  await angler.page.getByLabel('The new one').fill('1234567890');
  await angler.page.getByRole('button', { name: 'Change it' }).click();
  await expect(angler.page.getByText('one of the first that are tried')).toBeVisible();
  await angler.page.getByLabel('The new one').fill('otter lantern gravel seven');
  await angler.page.getByRole('button', { name: 'Change it' }).click();
  await expect(angler.page.getByText('Every other browser is signed out.')).toBeVisible();
  await angler.context.close();
  await director.context.close();
});

interface Own {
  context: Awaited<ReturnType<typeof newAngler>>['context'];
  page: Page;
}

async function ownEntrant({
  context,
}: Own): Promise<{ eventId: string; entrantId: string; accountId: string }> {
  const who = (await (await context.request.get('/api/who')).json()) as {
    account: { accountId: string; entrants: { eventId: string; entrantId: string }[] };
  };
  const [first] = who.account.entrants;
  if (!first) throw new Error('angler: expected an entrant, got none');
  return { ...first, accountId: who.account.accountId };
}

async function emailOf(page: Page, angler: Own): Promise<string> {
  const { eventId, accountId } = await ownEntrant(angler);
  const people = (await (await page.request.get(`/api/events/${eventId}/people`)).json()) as { accountId: string; email: string }[]; // prettier-ignore
  return people.find((one) => one.accountId === accountId)?.email ?? '';
}

test('a record that is not the one this device was told is said on every page', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'judge');
  await page.getByRole('link', { name: 'Records' }).first().click();
  await page.getByText('Where it ends, and who vouches for it').click();
  await expect(page.getByText('signed by key')).toBeVisible();
  await expect(page.getByText(/last at entry \d+/)).toBeVisible();
  await axe(page);
  const warning = page.getByText('The record is not the one that this device was told');
  await expect(warning).toBeHidden();
  // As if the record had been written anew since: what this device was told of its beginning is another hash.
  await page.evaluate(() => {
    const key = Object.keys(localStorage).find((name) => name.startsWith('lauta-heads ')) ?? '';
    const kept = JSON.parse(localStorage.getItem(key) ?? '') as { told: { seq: number; hash: string }[] };
    kept.told[0] = { seq: 1, hash: '0'.repeat(64) };
    localStorage.setItem(key, JSON.stringify(kept));
  });
  await page.reload();
  await expect(warning).toBeVisible();
  await page.getByRole('link', { name: 'Standings' }).first().click();
  await expect(warning).toBeVisible();
  await context.close();
});

test('a photograph that is not the one in the record is shown to no judge', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'judge');
  const other = await sharp({ create: { width: 640, height: 480, channels: 3, background: '#a33' } })
    .jpeg()
    .toBuffer();
  // As if the server, or somebody on the way, gave out another file under the same name.
  await page.route('**/original', (route) => route.fulfill({ body: other, contentType: 'image/jpeg' }));
  await page.getByRole('link', { name: 'Judge' }).first().click();
  await page
    .locator('main')
    .getByRole('link', { name: /awaits a judge/ })
    .first()
    .click();
  await expect(page.getByText('What is stored is not the photograph that was sent')).toBeVisible();
  await expect(page.getByAltText('The original photograph')).toHaveCount(0);
  await context.close();
});

test('stand-ins of the demo come after what a person came for', async ({ browser }) => {
  const { page, context, event } = await newAngler(browser, PHONE);
  await page.goto(event);
  await page.getByRole('navigation', { name: 'Places' }).last().getByRole('link', { name: 'Water' }).tap();
  await expect(page.getByRole('button', { name: 'Fish on', exact: true })).toBeVisible();
  const names = (await page.locator('main').getByRole('button').allInnerTexts()).map((one) => one.trim());
  const fishOn = names.indexOf('Fish on');
  for (const standIn of ['Simulated camera', 'Simulated live view', 'Recorded voice'])
    expect(names.indexOf(standIn), standIn).toBeGreaterThan(fishOn);
  await context.close();
});
