import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** Nothing that axe finds against WCAG 2.2 AA and its own best practices. */
export async function axe(page: Page): Promise<void> {
  await none(
    page,
    new AxeBuilder({ page }).withTags([
      'wcag2a',
      'wcag2aa',
      'wcag21a',
      'wcag21aa',
      'wcag22aa',
      'best-practice',
    ]),
  );
}

/** The same in all three looks; only colours differ between them. */
export async function axeInEachLook(page: Page): Promise<void> {
  await axe(page);
  for (const look of ['birch', 'dusk', 'glare']) {
    await page.evaluate((name) => document.documentElement.setAttribute('data-theme', name), look);
    await none(page, new AxeBuilder({ page }).withRules(['color-contrast', 'link-in-text-block']));
  }
}

async function none(page: Page, builder: AxeBuilder): Promise<void> {
  // A colour on its way to another look is neither of the two.
  await page.evaluate(() => Promise.allSettled(document.getAnimations().filter((one) => one instanceof CSSTransition).map((one) => one.finished))); // prettier-ignore
  const { violations } = await builder.analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`)).toEqual([]); // prettier-ignore
}
