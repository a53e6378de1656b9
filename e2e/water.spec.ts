import { expect, test, type Page } from '@playwright/test';
import { axe, axeInEachLook } from './axe.ts';
import { PHONE, signedIn } from './people.ts';
import { READ_MS, choose, shoot } from './photo.ts';

/** A tap of a person: two within less than half a second are taken for one. */
async function tap(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name, exact: true }).tap();
  await page.waitForTimeout(450);
}
const clock = (page: Page) => page.getByRole('region', { name: 'The clock of this fish' });

test('a fish from hook-up to release: the clock, the hazards, the signs, and all of it in its record', async ({
  browser,
}) => {
  const shot = await shoot(78, 402, new Date('2026-06-14T10:41:00Z'));
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await page.goto(`${page.url()}/water`);
  await tap(page, 'Fish on');
  await expect(clock(page).getByRole('heading', { name: 'Fight' })).toBeVisible();
  await tap(page, '2');
  await expect(clock(page).getByText('of 2:00')).toBeVisible();
  await tap(page, 'treble swings free');
  await expect(page.getByText('Secure or cut off the lure before a hand goes near.')).toBeVisible();
  await tap(page, 'In the net');
  await expect(page.getByText('Ready? Next: board wet')).toBeVisible();
  await tap(page, 'deep');
  await expect(page.getByText('let it rest 60 s')).toBeVisible();
  // The page is left in mid-catch, and nothing is lost.
  await page.reload();
  await expect(clock(page).getByRole('heading', { name: 'Resting in the net' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'deep', pressed: true })).toBeVisible();
  await axeInEachLook(page);
  // Every tap on the water is wide enough for a wet thumb.
  for (const button of await clock(page).getByRole('button').all())
    expect((await button.boundingBox())?.height ?? 0).toBeGreaterThanOrEqual(64);
  // From lift to water: two taps.
  await page.getByRole('button', { name: 'Lift', exact: true }).dblclick();
  await expect(clock(page).getByRole('heading', { name: 'Out of the water' })).toBeVisible();
  await expect(clock(page).getByText(/1 lift,/)).toBeVisible();
  await page.waitForTimeout(450);
  await tap(page, 'Back in the water');
  await tap(page, 'Undo “Back in the water”');
  await expect(clock(page).getByRole('heading', { name: 'Out of the water' })).toBeVisible();
  await tap(page, 'Back in the water');
  await tap(page, 'Released');
  for (const sign of ['It keeps itself upright.', 'Its gill covers beat evenly.', 'Its pectoral fins beat.'])
    await page.getByRole('button', { name: sign }).tap();
  await page.getByRole('button', { name: 'Its pectoral fins beat.' }).tap();
  await expect(page.getByText('lively: 2 of 3 signs seen')).toBeVisible();

  await choose(page, 'fish.jpg', shot.jpeg);
  const claimButton = page.getByRole('button', { name: /^Claim / });
  await expect(claimButton).toBeEnabled({ timeout: READ_MS });
  await claimButton.tap();
  await expect(page.getByText('is with the judges')).toBeVisible({ timeout: 30_000 });
  // The next fish begins with a clock of its own.
  await expect(page.getByRole('button', { name: 'Fish on' })).toBeVisible();
  await page.getByRole('link', { name: 'See it' }).tap();
  const record = page.getByRole('region', { name: 'From hook-up to release' });
  await expect(record.getByText('deep')).toBeVisible();
  await expect(record.getByText('no lift over 6 s')).toBeVisible();
  await context.close();
});

test('a forgotten tap is asked for and mended, frost forbids the lift, and a lost fish leaves no claim', async ({
  browser,
}) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await page.clock.install();
  await page.goto(`${page.url()}/water`);
  await tap(page, 'Lift');
  await page.clock.fastForward('00:07');
  await expect(clock(page).getByText('over 6 s: water now')).toBeVisible();
  await page.clock.fastForward('02:00');
  await expect(page.getByRole('alert').getByText('Is it back in the water?')).toBeVisible();
  await tap(page, 'Yes, in time: I forgot to tap');
  await expect(page.getByText('is marked as mended')).toBeVisible();
  await expect(clock(page).getByText('1 lift, 0:06 in air')).toBeVisible();

  await page.getByText(/^Water – °F/).tap();
  await page.getByLabel('air, °F').fill('27');
  await expect(page.getByText('Air below freezing: no lift.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Lift again' })).toBeDisabled();
  await tap(page, 'It got away');
  await tap(page, 'Discard, no claim');
  await expect(page.getByRole('button', { name: 'Fish on' })).toBeVisible();
  await context.close();
});

test('each person’s school changes the limit, and each kind of hint can be silenced', async ({ browser }) => {
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  const event = page.url();
  await page.goto(`${event}/settings`);
  await page.getByText('Up to thirty seconds between rests in the net.').tap();
  await page.getByText('Lines of advice under the clock').tap();
  await page.reload();
  await expect(page.getByLabel('Up to thirty seconds between rests in the net.')).toBeChecked();
  await page.goto(`${event}/water`);
  await tap(page, 'In the net');
  await expect(page.getByText('Ready? Next')).toHaveCount(0);
  await tap(page, 'Lift');
  await expect(clock(page).getByText('of 30 s')).toBeVisible();
  await context.close();
});

test('a fish too large for the board: two readings of a tape that agree, the grip’s inch off, each with its photograph', async ({
  browser,
}) => {
  const shot = await shoot(80, 402, new Date('2026-06-14T10:43:00Z'));
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await page.goto(`${page.url()}/water`);
  await tap(page, 'With a tape');
  const tape = page.getByRole('region', { name: 'With a tape' });
  await tape.getByLabel(/From the grip to the nose/).fill('1');
  const reading = async (number: number, typed: string): Promise<void> => {
    await tape.getByLabel('Photograph of a reading').setInputFiles({
      name: 'tape.jpg',
      mimeType: 'image/jpeg',
      buffer: Buffer.concat([shot.jpeg, Buffer.from([number])]),
    });
    await tape.getByLabel(`reading ${number}, in`).fill(typed);
  };
  await reading(1, '41 1/8');
  await expect(tape.getByText('two readings must agree')).toBeVisible();
  await reading(2, '43');
  await expect(tape.getByText(/\bMeasure once more\./)).toBeVisible();
  // Nothing is lost with the page.
  await page.reload();
  await expect(tape.getByLabel('reading 2, in')).toHaveValue('43');
  await reading(3, 'forty-one');
  await expect(tape.getByText('Type what the tape reads.')).toBeVisible();
  await tape.getByLabel('reading 3, in').fill('41⅛');
  await expect(tape.getByText('two readings agree')).toBeVisible();
  await axe(page);
  if (process.env['SHOTS']) await page.screenshot({ path: `${process.env['SHOTS']}/tape.png` });
  await tape.getByRole('button', { name: 'Claim 40 in' }).tap();
  await expect(page.getByText('is with the judges')).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText('Marked for the judge: measured with a tape in the water.')).toBeVisible();
  await page.getByRole('link', { name: 'See it' }).tap();
  await expect(page.getByRole('region', { name: 'Measured with a tape' }).getByRole('listitem')).toHaveCount(
    3,
  );
  await expect(page.getByText('a tape in the water', { exact: true })).toBeVisible();
  await context.close();
});

test('a second fish hooked while one waits, a lift without a photograph, and a claim before the release', async ({
  browser,
}) => {
  const shot = await shoot(81, 402, new Date('2026-06-14T10:44:00Z'));
  const { page, context } = await signedIn(browser, 'angler', PHONE);
  await page.goto(`${page.url()}/water`);
  await tap(page, 'In the net');
  await tap(page, 'deep');
  await tap(page, 'Another fish on');
  await expect(clock(page).getByRole('heading', { name: 'Fight' })).toBeVisible();
  await page.reload();
  await expect(page.getByText('Another waits in the net:')).toBeVisible();
  await tap(page, 'Released');
  await tap(page, 'Discard, no claim');
  await tap(page, 'Continue with this fish');
  await expect(page.getByRole('button', { name: 'deep', pressed: true })).toBeVisible();
  await tap(page, 'Lift');
  await tap(page, 'Back in the water');
  await expect(page.getByText('no photograph of the lift')).toBeVisible();

  await choose(page, 'fish.jpg', shot.jpeg);
  const claimButton = page.getByRole('button', { name: /^Claim / });
  await expect(claimButton).toBeEnabled({ timeout: READ_MS });
  await claimButton.tap();
  await expect(page.getByText('This fish is claimed. Its clock runs until you let it go.')).toBeVisible({
    timeout: 30_000,
  });
  const record = page.getByRole('link', { name: 'See it' });
  const href = (await record.getAttribute('href')) ?? '';
  await tap(page, 'Released');
  await page.getByRole('button', { name: /^It keeps itself upright/ }).tap();
  // A time that does not fit is refused with a word.
  await page.getByText('Correct a time or add a missed step').tap();
  await page.getByLabel('Its time').fill('00:00:01');
  await page.getByRole('button', { name: 'Fill it in' }).tap();
  await expect(page.getByText('That time does not fit between the others.')).toBeVisible();
  await tap(page, 'Send how it left');
  await expect(page.getByRole('button', { name: 'Fish on' })).toBeVisible();
  await page.goto(href);
  await expect(
    page.getByRole('region', { name: 'From hook-up to release' }).getByText('It keeps itself upright.'),
  ).toBeVisible();

  // A voice does what a tap does.
  await page.getByRole('link', { name: 'Water', exact: true }).tap();
  await tap(page, 'Recorded voice');
  await expect(clock(page).getByRole('heading', { name: 'Fight' })).toBeVisible();
  await expect(clock(page).getByRole('heading', { name: 'Resting in the net' })).toBeVisible();
  await context.close();
});
