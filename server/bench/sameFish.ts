import { FlankIndex, compareFlanks, flankPattern, type IndexedFish } from '@lauta/vision/same-fish';
import { drawPhotos, galleryFish, type PhotoRecord } from '@lauta/sim/photos';
import { analyseAll } from './analyseAll.ts';

/** Photographs that weights were fitted on are 7001 to 7120 and 7401 to 7520; these are for reporting alone. */
const FIRST_SEED = 7121;
const GALLERY_SEED = 900_001;
const GALLERY = 2000;
const MANY = 10_000;
const SEARCHES = 40;

/** How often the second photograph of a fish finds the first among 2,000 others, and how long a search takes. */
export async function reportSameFish(dir: string, pairs: number): Promise<void> {
  const records = await drawPhotos({
    dir,
    seeds: Array.from({ length: 2 * pairs }, (_, i) => FIRST_SEED + i),
    threads: 2,
    fishOf: (seed) => seed - ((seed - FIRST_SEED) % 2),
    onDrawn: (done, all) => done % 20 === 0 && process.stderr.write(`drawn ${done} of ${all}\n`),
  });
  const fish = await flanksOf(dir, records);
  const gallery = Array.from({ length: GALLERY }, (_, i) => galleryFish(GALLERY_SEED + i));
  let [compared, first, same, look, falseSame, searched] = [0, 0, 0, 0, 0, 0];
  let [skin, skinFirst] = [0, 0];
  for (let i = 0; i < pairs; i++) {
    const [a, b] = [fish[2 * i] ?? null, fish[2 * i + 1] ?? null];
    if (b) {
      // The fish's own skin, as the gallery's are made.
      const own = { ...galleryFish(FIRST_SEED + 2 * i), id: 'own skin' };
      skin++;
      if (indexOf([own, ...gallery]).search(b, 1)[0]?.id === own.id) skinFirst++;
    }
    if (!a || !b) continue;
    // Hands in different places can leave nothing that both show.
    if (!compareFlanks(a.flank, b.flank)) continue;
    compared++;
    const found = indexOf([a, ...gallery]).search(b, 12);
    const own = found.find(({ id }) => id === a.id);
    if (found[0]?.id === a.id) first++;
    if (own?.likeness.answer === 'same') same++;
    if (own?.likeness.answer === 'look') look++;
    falseSame += found.filter(({ id, likeness }) => id !== a.id && likeness.answer === 'same').length;
    searched += GALLERY;
  }
  const print = (text: string): void => void process.stdout.write(`${text}\n`);
  const percent = (part: number, all: number): string =>
    all === 0 ? '-' : `${((100 * part) / all).toFixed(2)} %`;
  print(
    `\n## The same fish: ${pairs} pairs, seeds ${FIRST_SEED} to ${FIRST_SEED + 2 * pairs - 1}, among ${GALLERY} others\n`,
  );
  print(
    '| pairs of which both show a common part | ranked first | called the same | look | false "same", of all comparisons |',
  );
  print('| --- | --- | --- | --- | --- |');
  print(
    `| ${compared} of ${pairs} | ${percent(first, compared)} | ${percent(same, compared)} | ${percent(look, compared)} | ${percent(falseSame, searched)} |`,
  );
  print(
    `\nA photograph's flank finds its own fish's skin first among the gallery: ${percent(skinFirst, skin)} of ${skin}.`,
  );
  timeSearch(gallery, print);
}

/** Milliseconds of a search among many stored fish. */
function timeSearch(gallery: readonly IndexedFish[], print: (text: string) => void): void {
  const index = new FlankIndex();
  for (let i = 0; i < MANY; i++) {
    const fish = gallery[i % gallery.length] as IndexedFish;
    index.add({
      ...fish,
      id: `${fish.id} ${i}`,
      lengthMm: fish.lengthMm * (0.8 + (0.4 * ((i * 7919) % MANY)) / MANY),
    });
  }
  const times = Array.from({ length: SEARCHES }, (_, i) => {
    const asked = gallery[(i * 37) % gallery.length] as IndexedFish;
    const begun = performance.now();
    index.search(asked, 3);
    return performance.now() - begun;
  }).sort((a, b) => a - b);
  print(
    `A search among ${MANY}: median ${(times[SEARCHES >> 1] ?? NaN).toFixed(0)} ms, 95th ${(times[Math.floor(0.95 * (SEARCHES - 1))] ?? NaN).toFixed(0)} ms.`,
  );
}

function indexOf(fish: readonly IndexedFish[]): FlankIndex {
  const index = new FlankIndex();
  for (const one of fish) index.add(one);
  return index;
}

async function flanksOf(dir: string, records: readonly PhotoRecord[]): Promise<(IndexedFish | null)[]> {
  return (await analyseAll(dir, records)).map(({ record, found }) => {
    const { lengthMm = null, sigmaMm = null, flank = null } = found?.analysis ?? {};
    if (lengthMm === null || sigmaMm === null || !flank) return null;
    return { id: record.file, lengthMm, sigmaMm, flank: flankPattern(flank.pattern) };
  });
}
