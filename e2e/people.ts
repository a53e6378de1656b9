import { expect, type Browser, type BrowserContext, type Page } from '@playwright/test';
import type { EventView } from '@lauta/contract';
import type { Role } from '@lauta/core/people';

export const PHONE = { viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true };

let made = 0;

/** The demo's events, as links of their list. */
export const BOARD_OPEN = /Kestrel Mere Board Open/;
export const BOAT_CUP = /Kestrel Mere Boat Cup/;

/** As a page of the application would send it. */
async function post(context: BrowserContext, path: string, data: object, headers = {}): Promise<unknown> {
  const { origin } = new URL((await context.request.get('/api/time')).url());
  const response = await context.request.post(path, { data, headers: { origin, ...headers } });
  expect(response.ok(), await response.text()).toBe(true);
  return response.json();
}

/** Signs someone of the demo in without a page, and tells which event bears the name. */
async function enter(context: BrowserContext, role: Role, name: RegExp): Promise<string> {
  await post(context, '/api/sign-in/demo', { role });
  const events = (await (await context.request.get('/api/events')).json()) as EventView[];
  const found = events.find((event) => name.test(event.name));
  if (!found) throw new Error(`No event ${name} for ${role}.`);
  return found.eventId;
}

/** A browser of its own with a new angler of the demo's event: nobody else's test meets its catches. */
export async function newAngler(
  browser: Browser,
  options: Parameters<Browser['newContext']>[0] = {},
  name = BOARD_OPEN,
): Promise<{ context: BrowserContext; page: Page; event: string }> {
  const director = await browser.newContext();
  const eventId = await enter(director, 'director', name);
  const [accountId, commandId] = [crypto.randomUUID(), crypto.randomUUID()];
  const email = `angler-${Date.now()}-${made++}@test.example`;
  const body = { accountId, name: 'Tova Brackmere', email, roles: ['angler'] };
  await post(
    director,
    '/api/commands',
    { v: 1, commandId, eventId, madeAt: new Date().toISOString(), deviceId: crypto.randomUUID(), kind: 'people.add', body }, // prettier-ignore
    { 'idempotency-key': commandId },
  );
  const invited = (await post(director, `/api/events/${eventId}/people/${accountId}/invitation`, {})) as { path: string }; // prettier-ignore
  await director.close();
  const context = await browser.newContext({ serviceWorkers: 'block', ...options });
  await post(context, '/api/invitations/accept', { token: invited.path.replace('/invitation/', ''), password: 'a long one for tests' }); // prettier-ignore
  return { context, page: await context.newPage(), event: `/events/${eventId}` };
}

/** A browser of its own in which someone of the demo is signed in and has opened the event. */
export async function signedIn(
  browser: Browser,
  role: Role,
  options: Parameters<Browser['newContext']>[0] = {},
  name = BOARD_OPEN,
): Promise<{ context: BrowserContext; page: Page }> {
  // A service worker would answer from its store what a test wants to see asked.
  const context = await browser.newContext({ serviceWorkers: 'block', ...options });
  const eventId = await enter(context, role, name);
  const page = await context.newPage();
  await page.goto(`/events/${eventId}`);
  await expect(page.getByRole('navigation', { name: 'Places' }).first()).toBeAttached();
  return { context, page };
}

/** The same by taps alone, from the page of signing in to the event. */
export async function signInByHand(page: Page, role: Role, name = BOARD_OPEN): Promise<void> {
  await page.goto('/sign-in');
  await page.getByRole('button', { name: new RegExp(`^${role.replace('-', ' ')}`, 'i') }).click();
  const places = page.getByRole('navigation', { name: 'Places' }).first();
  const event = page.getByRole('link', { name });
  // The list of events comes first; whoever sees only one is led into it.
  await expect(event.or(page.getByRole('heading', { level: 1, name: /Kestrel Mere/ })).first()).toBeVisible();
  if (new URL(page.url()).pathname === '/') await event.first().click();
  await expect(places).toBeAttached();
}
