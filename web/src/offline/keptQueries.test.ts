import 'fake-indexeddb/auto';
import { QueryClient } from '@tanstack/react-query';
import { describe, expect, it } from 'vitest';
import { KEPT_MS, isKept, keptQueries } from './keptQueries.ts';

const keyed = (queryKey: readonly unknown[], data: unknown) =>
  ({ queryKey, state: { data } }) as unknown as Parameters<typeof isKept>[0];

describe('what is kept for where there is no network', () => {
  it.each([[['who']], [['events']], [['event', 'e']], [['event', 'e', 'rules']], [['event', 'e', 'boards']], [['event', 'e', 'identifiers', 'x']], [['event', 'e', 'own-catches', 1]]])(
    '%j is',
    (key) => expect(isKept(keyed(key, 1))).toBe(true),
  ); // prettier-ignore

  it.each([[['event', 'e', 'catch', 'c', 'bench-reading']], [['event', 'e', 'queue', false, 1, '']], [['event', 'e', 'people']], [['photograph', 'p']], [['clock-offset']]])(
    '%j is not',
    (key) => expect(isKept(keyed(key, 1))).toBe(false),
  ); // prettier-ignore

  it('is only what was fetched once', () => {
    expect(isKept(keyed(['who'], undefined))).toBe(false);
  });

  it('comes back as it was to a page that comes later, without what is not kept', async () => {
    const first = new QueryClient();
    first.setQueryData(['event', 'e', 'rules'], [{ version: 1 }]);
    first.setQueryData(['event', 'e', 'queue'], ['not for here']);
    await keptQueries(first, () => 5, 'back').write();
    const later = new QueryClient();
    await keptQueries(later, () => 6, 'back').restore();
    expect(later.getQueryData(['event', 'e', 'rules'])).toEqual([{ version: 1 }]);
    expect(later.getQueryData(['event', 'e', 'queue'])).toBeUndefined();
    // It is shown, and asked for again by whoever shows it.
    expect(later.getQueryState(['event', 'e', 'rules'])?.isInvalidated).toBe(true);
  });

  it('is let go of after a fortnight', async () => {
    const first = new QueryClient();
    first.setQueryData(['who'], 'somebody');
    await keptQueries(first, () => 0, 'old').write();
    const later = new QueryClient();
    await keptQueries(later, () => KEPT_MS, 'old').restore();
    expect(later.getQueryData(['who'])).toBeUndefined();
  });

  it('is written by itself when something was fetched', async () => {
    const first = new QueryClient();
    const stop = keptQueries(first, () => 0, 'followed').follow(new EventTarget());
    first.setQueryData(['who'], 'somebody');
    const later = new QueryClient();
    await expect
      .poll(
        async () => {
          await keptQueries(later, () => 1, 'followed').restore();
          return later.getQueryData(['who']);
        },
        { timeout: 5000 },
      )
      .toBe('somebody');
    stop();
  });

  it('is written while changes keep coming, and as the page is left', async () => {
    const client = new QueryClient();
    const page = new EventTarget();
    const stop = keptQueries(client, () => 0, 'busy').follow(page);
    const kept = async (part: string): Promise<unknown> => {
      const later = new QueryClient();
      await keptQueries(later, () => 1, 'busy').restore();
      return later.getQueryData(['event', 'e', part]);
    };
    let told = 0;
    const busy = setInterval(() => client.setQueryData(['event', 'e', 'well'], (told += 1)), 100);
    await expect.poll(() => kept('well'), { timeout: 5000 }).toBeGreaterThan(0);
    clearInterval(busy);
    client.setQueryData(['event', 'e', 'rules'], 'the last');
    page.dispatchEvent(new Event('pagehide'));
    await expect.poll(() => kept('rules'), { timeout: 300 }).toBe('the last');
    stop();
  });
});
