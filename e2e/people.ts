import { expect, type Browser, type BrowserContext, type Page } from '@playwright/test';
import type { Role } from '@lauta/core/people';

export const PHONE = { viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true };

/** A browser of its own in which someone of the demo is signed in. */
export async function signedIn(
  browser: Browser,
  role: Role,
  options: Parameters<Browser['newContext']>[0] = {},
): Promise<{ context: BrowserContext; page: Page }> {
  // A service worker would answer from its store what a test wants to see asked.
  const context = await browser.newContext({ serviceWorkers: 'block', ...options });
  const page = await context.newPage();
  await page.goto('/sign-in');
  await page.getByRole('button', { name: new RegExp(`^${role.replace('-', ' ')}`, 'i') }).click();
  // A founder has the list of events first; everyone else is led into the only one.
  const places = page.getByRole('navigation', { name: 'Places' }).first();
  const event = page.getByRole('link', { name: /Kestrel Mere Board Open/ });
  await expect(event.or(page.getByRole('heading', { level: 1, name: /Kestrel Mere/ })).first()).toBeVisible();
  if (new URL(page.url()).pathname === '/') await event.first().click();
  await expect(places).toBeAttached();
  return { context, page };
}
