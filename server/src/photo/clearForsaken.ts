import type { Lauta } from '../context/lauta.ts';

const DAY_MS = 86_400_000;
/** A phone that was out of reach for a weekend goes on where it was. */
const UNFINISHED_MS = 3 * DAY_MS;
const UNCLAIMED_MS = 14 * DAY_MS;
const AT_ONCE = 200;

/**
 * Removes photographs that were begun and not finished within three days, and whole ones that no catch and no specimen
 * took within a fortnight: their phones still have them.
 * @returns how many
 */
export async function clearForsaken({ storage, clock }: Pick<Lauta, 'storage' | 'clock'>): Promise<number> {
  const nowMs = clock.now().getTime();
  let cleared = 0;
  for (;;) {
    const some = await storage.read.photographs.forsaken(
      new Date(nowMs - UNFINISHED_MS),
      new Date(nowMs - UNCLAIMED_MS),
      AT_ONCE,
    );
    for (const photographId of some) {
      await storage.change((stores) => stores.photographs.remove(photographId));
    }
    cleared += some.length;
    if (some.length < AT_ONCE) return cleared;
  }
}
