import { expect, test, type BrowserContext, type Page } from '@playwright/test';
import { axeInEachLook } from './axe.ts';
import { signedIn } from './people.ts';

// One event's sheets: one test after the other.
test.describe.configure({ mode: 'default' });

const waiting = (page: Page) => page.getByRole('region', { name: 'Waiting to be sent' });

/** What is written gets no answer; what is read is answered as ever. */
async function cut(context: BrowserContext): Promise<() => Promise<void>> {
  await context.route(/\/api\/commands$/, (route) => route.abort());
  return () => context.unroute(/\/api\/commands$/);
}

/** Of the form; the event's page names the sheet that stands in a smaller one. */
const sheetHeading = (page: Page) => page.getByRole('heading', { name: /Rule sheet, version \d+/, level: 1 });

async function toRules(page: Page): Promise<number> {
  await page.getByRole('link', { name: 'Event', exact: true }).first().click();
  await page.getByRole('link', { name: 'Publish another version' }).click();
  const heading = sheetHeading(page);
  await expect(heading).toBeVisible();
  return Number(/\d+/.exec(await heading.innerText())?.[0]);
}

test('a sheet that is not right is told at its fields, and the first has the keyboard', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'director');
  await toRules(page);
  await page.getByLabel('Title').fill('');
  await page.getByLabel('Fish in the bag').fill('0');
  await page.getByRole('button', { name: 'Publish' }).click();
  const title = page.getByLabel('Title');
  await expect(title).toBeFocused();
  await expect(title).toHaveAccessibleDescription('A title of 1 to 120 letters.');
  await expect(page.getByLabel('Fish in the bag')).toHaveAccessibleDescription('From 1 to 50 fish.');
  await expect(page.getByRole('alert').filter({ hasText: '2 fields are not right yet' })).toBeVisible();
  await axeInEachLook(page);
  // Put right, a field says so at once, and nothing was sent.
  await title.fill('Board Open rules');
  await expect(title).toHaveAttribute('aria-invalid', 'false');
  await expect(page.getByRole('alert').filter({ hasText: '1 field is not right yet' })).toBeVisible();
  await context.close();
});

test('a sheet published over a bad network waits on this device and arrives once', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'director');
  const version = await toRules(page);
  const mend = await cut(context);
  await page.getByLabel('Title').fill(`Board Open rules, version ${version}`);
  await page.getByRole('button', { name: 'Publish' }).click();
  // The page goes on as it would after an answer, and says that none came.
  await expect(waiting(page)).toContainText('a rule sheet', { timeout: 20_000 });
  await expect(page.getByRole('heading', { name: 'Days and sessions' })).toBeVisible({ timeout: 20_000 });
  await expect(waiting(page)).toBeInViewport({ ratio: 1 });
  await page.reload();
  await expect(waiting(page)).toContainText('a rule sheet');
  await mend();
  await expect(waiting(page)).toHaveCount(0, { timeout: 60_000 });
  await toRules(page);
  await expect(sheetHeading(page)).toHaveText(`Rule sheet, version ${version + 1}`);
  await expect(page.getByLabel('Title')).toHaveValue(`Board Open rules, version ${version}`);
  await context.close();
});

test('a sheet that waits while another director publishes is refused once it arrives, and is not lost', async ({
  browser,
}) => {
  const slow = await signedIn(browser, 'director');
  const version = await toRules(slow.page);
  const mend = await cut(slow.context);
  await slow.page.getByLabel('Title').fill('Written on a bad line');
  await slow.page.getByRole('button', { name: 'Publish' }).click();
  // The form waits for an answer for a while; then the page goes on without one.
  await expect(slow.page.getByRole('heading', { name: 'Days and sessions' })).toBeVisible({
    timeout: 20_000,
  });
  await expect(waiting(slow.page)).toContainText('a rule sheet');

  const quick = await signedIn(browser, 'director');
  await toRules(quick.page);
  await quick.page.getByRole('button', { name: 'Publish' }).click();
  await expect(quick.page.getByRole('heading', { name: `Rule sheet, version ${version}` })).toBeVisible();
  await quick.context.close();

  await mend();
  await expect(waiting(slow.page)).toContainText('Another director published meanwhile', { timeout: 60_000 });
  // What was typed is in the form again, over the version that stands now.
  await toRules(slow.page);
  await expect(sheetHeading(slow.page)).toHaveText(`Rule sheet, version ${version + 1}`);
  await expect(slow.page.getByText('begun with the sheet that was refused')).toBeVisible();
  await expect(slow.page.getByLabel('Title')).toHaveValue('Written on a bad line');
  await waiting(slow.page).getByRole('button', { name: 'Discard it' }).click();
  await expect(waiting(slow.page)).toHaveCount(0);
  await expect(slow.page.getByLabel('Title')).not.toHaveValue('Written on a bad line');
  await slow.context.close();
});

test('an untouched form follows what another director publishes; what was typed is not published over it unseen', async ({
  browser,
}) => {
  const first = await signedIn(browser, 'director');
  const other = await signedIn(browser, 'director');
  const version = await toRules(first.page);
  const publish = async (title: string): Promise<void> => {
    await toRules(other.page);
    await other.page.getByLabel('Title').fill(title);
    await other.page.getByRole('button', { name: 'Publish' }).click();
    await expect(other.page.getByRole('heading', { name: 'Days and sessions' })).toBeVisible();
  };
  await publish('Published by the other');
  await expect(sheetHeading(first.page)).toHaveText(`Rule sheet, version ${version + 1}`);
  await expect(first.page.getByLabel('Title')).toHaveValue('Published by the other');

  await first.page.getByLabel('Title').fill('Being typed');
  await publish('Published while one typed');
  const meanwhile = first.page.getByRole('region', { name: 'Published meanwhile' });
  await expect(meanwhile).toContainText(`Version ${version + 1}, published meanwhile`);
  await expect(first.page.getByRole('button', { name: 'Publish', exact: true })).toBeDisabled();
  await expect(first.page.getByLabel('Title')).toHaveValue('Being typed');
  await meanwhile.getByRole('button', { name: 'I have seen it: publish mine after it' }).click();
  await expect(meanwhile).toHaveCount(0);
  await first.page.getByRole('button', { name: 'Publish', exact: true }).click();
  await expect(first.page.getByRole('heading', { name: 'Days and sessions' })).toBeVisible();
  await toRules(first.page);
  await expect(first.page.getByLabel('Title')).toHaveValue('Being typed');
  await first.context.close();
  await other.context.close();
});
