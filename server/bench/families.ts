import { join } from 'node:path';
import sharp from 'sharp';
import type { Tone } from '@lauta/core/evidence';
import { BENCH_CHECKS } from '@lauta/vision';
import { FAMILIES, type Family } from '@lauta/sim/families';
import { drawPhotos } from '@lauta/sim/photos';
import { analyseAll, type Read } from './analyseAll.ts';
import { faultsOf } from './faultsOf.ts';
import { FIGURES_HEAD, cornersOffPx, figuresRow, isConfidentlyWrong, lengthError } from './figures.ts';

/** Nothing is tuned on these; seeds 1000 to 1999 are for that. */
const FIRST_SEED = 20_001;
const WORST = 20;

interface Widened {
  name: string;
  families: readonly Family[];
}

const SETS: readonly Widened[] = [
  { name: 'none', families: [] },
  ...FAMILIES.map((family) => ({ name: family, families: [family] })),
  { name: 'all of them', families: FAMILIES },
];

/**
 * How photographs are read that one family widens, and all of them: the same scenes each time.
 * @param firstSeed another one to tune on
 */
export async function reportFamilies(dir: string, count: number, firstSeed = FIRST_SEED): Promise<void> {
  const print = (text: string): void => void process.stdout.write(`${text}\n`);
  print(`\n## ${count} photographs of each family, seeds ${firstSeed} to ${firstSeed + count - 1}\n`);
  print(FIGURES_HEAD);
  const all: { set: string; read: Read }[] = [];
  for (const { name, families } of SETS) {
    const records = await drawPhotos({
      dir,
      seeds: Array.from({ length: count }, (_, i) => firstSeed + i),
      threads: 2,
      families,
    });
    const reads = await analyseAll(dir, records);
    print(figuresRow(name, reads));
    all.push(...reads.map((read) => ({ set: name, read })));
  }
  print('\n| confidently wrong | family | error mm | sigma mm |\n| --- | --- | --- | --- |');
  for (const { set, read } of all) {
    const error = lengthError(read);
    if (!error || !isConfidentlyWrong(error)) continue;
    print(`| ${read.record.file} | ${set} | ${error.errorMm.toFixed(1)} | ${error.sigmaMm.toFixed(2)} |`);
  }
  print('\n| not read | family | trouble | corners off, px |\n| --- | --- | --- | --- |');
  for (const { set, read } of all) {
    if (lengthError(read)) continue;
    print(
      `| ${read.record.file} | ${set} | ${read.found?.analysis.trouble ?? 'failed'} | ${cornersOffPx(read).toFixed(0)} |`,
    );
  }
  print('\n| on photographs with nothing wrong | as fault | as look |\n| --- | --- | --- |');
  const valid = all.filter(({ read }) => faultsOf(read.record).size === 0);
  for (const check of BENCH_CHECKS) {
    const counted = (tone: Tone): number =>
      valid.filter(({ read }) =>
        read.found?.analysis.findings.some((one) => one.check === check && one.tone === tone),
      ).length;
    if (counted('fault') + counted('look') > 0)
      print(`| \`${check}\` | ${counted('fault')} | ${counted('look')} |`);
  }
  print(`\nOf ${valid.length} with nothing wrong.`);
  const sheet = join(dir, 'worst.png');
  await drawWorst(
    dir,
    all.map(({ read }) => read),
    sheet,
  );
  print(`\nThe ${WORST} worst: ${sheet}`);
}

const TILE = { width: 480, height: 300 };
const COLUMNS = 4;

/** The photographs with the largest errors about their tails: green is the truth, red what was read. */
async function drawWorst(dir: string, reads: readonly Read[], file: string): Promise<void> {
  const sizeOf = (read: Read): number => Math.abs(lengthError(read)?.errorMm ?? 0);
  const worst = reads.toSorted((a, b) => sizeOf(b) - sizeOf(a)).slice(0, WORST);
  const tiles = await Promise.all(
    worst.map(async (read, i) => ({
      input: await drawTail(join(dir, read.record.file), read),
      left: (i % COLUMNS) * (TILE.width + 4),
      top: Math.floor(i / COLUMNS) * (TILE.height + 4),
    })),
  );
  await sharp({
    create: {
      width: COLUMNS * (TILE.width + 4),
      height: Math.ceil(worst.length / COLUMNS) * (TILE.height + 4),
      channels: 3,
      background: '#444',
    },
  })
    .composite(tiles)
    .png()
    .toFile(file);
}

async function drawTail(file: string, read: Read): Promise<Buffer> {
  const { width, height } = await sharp(file).metadata();
  const [x, y] = read.record.tailPx ?? [width / 2, height / 2];
  const hold = (value: number, size: number, room: number): number =>
    Math.round(Math.min(room - size, Math.max(0, value - size / 2)));
  const [left, top] = [hold(x, TILE.width, width), hold(y, TILE.height, height)];
  const marks = [
    { at: [x, y], colour: '#0c0' },
    ...(read.found?.analysis.marks ? [{ at: read.found.analysis.marks.tail, colour: '#f22' }] : []),
  ];
  const error = lengthError(read);
  const words = error ? `${error.errorMm.toFixed(1)} ± ${error.sigmaMm.toFixed(1)}` : 'not read';
  const drawn = `<svg width="${TILE.width}" height="${TILE.height}">${marks
    .map(
      ({ at: [u = 0, v = 0], colour }) =>
        `<circle cx="${u - left}" cy="${v - top}" r="9" fill="none" stroke="${colour}" stroke-width="2"/>`,
    )
    .join('')}<text x="6" y="18" font-size="16" fill="#fff">${words}</text></svg>`;
  return sharp(file)
    .extract({ left, top, ...TILE })
    .composite([{ input: Buffer.from(drawn) }])
    .png()
    .toBuffer();
}
