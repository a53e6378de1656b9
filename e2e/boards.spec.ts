import { expect, test } from '@playwright/test';
import { drawBoardKind, drawEmptyBoard, drawScene } from '@lauta/sim/camera';
import { PHONE, signedIn } from './people.ts';
import { READ_MS, choose, markLines, shootScene } from './photo.ts';

const SIZE = { widthPx: 1600, heightPx: 1200 };
const KIND = drawBoardKind(3);
const NAME = 'Alder 30, dark';
const empty = drawEmptyBoard(503, KIND, SIZE).scene;

test.describe.serial('a kind of board that nobody has described', () => {
  test('is photographed empty by the director, marked, and added', async ({ browser }) => {
    const { page, context } = await signedIn(browser, 'director');
    await page.getByRole('link', { name: 'Event' }).first().click();
    await page.getByRole('link', { name: 'Kinds of board' }).click();
    await page.getByRole('link', { name: 'Add one from a photograph' }).click();
    await choose(page, 'board.jpg', await shootScene(empty));
    // The wrong number is told from the lines between.
    await markLines(page, empty, [2, 28]);
    await page.getByLabel('Higher number').fill('26.4');
    await page.getByRole('button', { name: 'Read the board' }).click();
    await expect(page.getByRole('alert')).toContainText('no profile came of it', { timeout: READ_MS });
    await page.getByLabel('Higher number').fill('28');
    await page.getByRole('checkbox', { name: 'a wall stands' }).check();
    await page.getByRole('button', { name: 'Read the board' }).click();
    await expect(page.getByRole('heading', { name: 'What was read' })).toBeVisible({ timeout: READ_MS });
    await expect(page.getByText('30 in long')).toBeVisible();
    await expect(page.getByText('the bench finds the board in the photograph by itself')).toBeVisible();
    await page.getByRole('button', { name: 'Add it to this event' }).click();
    const name = page.getByLabel('What it is called');
    await expect(name).toBeFocused();
    await expect(name).toHaveAccessibleDescription('Give it a name with letters or figures.');
    const stop = page.getByLabel('Height of the stop, mm');
    const guessed = await stop.inputValue();
    await stop.fill('tall');
    await expect(stop).toHaveAccessibleDescription('A height from 0 to 300 mm.');
    await stop.fill(guessed);
    await page.getByLabel('What it is called').fill('Birch 30in');
    await page.getByRole('button', { name: 'Add it to this event' }).click();
    await expect(page.getByRole('alert')).toContainText('Choose another name');
    await page.getByLabel('What it is called').fill(NAME);
    await page.getByRole('button', { name: 'Add it to this event' }).dblclick();
    await expect(page.getByRole('heading', { name: 'Kinds of board' })).toBeVisible();
    await expect(page.getByRole('heading', { name: NAME })).toHaveCount(1);
    await expect(page.getByRole('img', { name: NAME })).toBeVisible();
    await context.close();
  });

  test('is read by the angler’s bench like the shipped ones', async ({ browser }) => {
    const { page, context } = await signedIn(browser, 'angler', PHONE);
    await page.getByRole('link', { name: 'Water' }).first().click();
    const scene = drawScene(44, {
      board: KIND,
      look: 'largemouth-bass',
      lengthMm: 330,
      identifier: null,
      hand: false,
      ...SIZE,
    });
    await choose(page, 'fish.jpg', await shootScene(scene));
    await page.getByLabel('Board', { exact: true }).selectOption({ label: `${NAME} (not approved)` });
    await expect(page.getByRole('button', { name: 'Correct by hand' })).toBeVisible({ timeout: READ_MS });
    await expect(page.getByText('kind of board').first()).toBeAttached();
    const read = page.locator('[role=status] .num').first();
    await expect
      .poll(async () => Math.abs(Number((await read.innerText()).trim()) - 330 / 25.4))
      .toBeLessThan(0.15);
    await page.getByRole('button', { name: 'Discard' }).click();
    await context.close();
  });

  test('is not for others to add', async ({ browser }) => {
    const { page, context } = await signedIn(browser, 'judge');
    await page.goto(`${page.url().replace(/\/(judge|water|standings).*$/, '')}/boards/new`);
    await expect(page.getByText('Only the director adds kinds of board')).toBeVisible();
    await context.close();
  });
});
