import { afterAll, beforeEach, expect, it, vi } from 'vitest';

const EVENT = '0190c1d2-0000-7000-8000-0000000000e1';
const hash = (digit: string): string => digit.repeat(64);
let kept: Map<string, string>;

beforeEach(() => {
  kept = new Map();
  vi.stubGlobal('localStorage', { getItem: (key: string) => kept.get(key) ?? null, setItem: (key: string, text: string) => kept.set(key, text) }); // prettier-ignore
  vi.stubGlobal('window', new EventTarget());
  vi.resetModules();
});
afterAll(() => vi.unstubAllGlobals());

it('a head that a stream tells before the server’s time is known is kept under that time, like those after it', async () => {
  const [{ rememberHead }, { setAppClock }] = await Promise.all([
    import('./toldHeads.ts'),
    import('../clock/appClock.ts'),
  ]);
  rememberHead(EVENT, { seq: 7, hash: hash('a') });
  expect([...kept]).toEqual([]);
  setAppClock(-3_600_000, null);
  rememberHead(EVENT, { seq: 9, hash: hash('b') });
  expect([...kept.keys()]).toEqual([`lauta-heads ${EVENT} -3600000`]);
  expect(JSON.parse([...kept.values()][0] ?? '')).toMatchObject({
    told: [
      { seq: 7, hash: hash('a') },
      { seq: 9, hash: hash('b') },
    ],
  });
});
