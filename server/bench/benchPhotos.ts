import { existsSync, readFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { shippedBoard } from '@lauta/vision';
import { drawPhotos, type PhotoRecord } from '@lauta/sim/photos';
import { analyseAll, type Read } from './analyseAll.ts';
import { reportBoardKinds } from './boardKinds.ts';
import { reportFamilies } from './families.ts';
import { reportFaults } from './faults.ts';
import { FIGURES_HEAD, figuresRow } from './figures.ts';
import { reportPortraits } from './portraits.ts';
import { reportSameFish } from './sameFish.ts';
import { enlarged, openChromiumTimer, timeInNode, type StageTimes, type TimedPhoto } from './stages.ts';

/** Seeds that thresholds may be tuned on are 1000 to 1999; these are for reporting alone. */
const FIRST_SEED = 5001;
const QUICK = 60;
const FULL = 300;
const QUICK_FAULTS = 69;
const FULL_FAULTS = 600;
const QUICK_FAMILIES = 6;
const FULL_FAMILIES = 40;
const QUICK_PAIRS = 10;
const FULL_PAIRS = 105;
const QUICK_PORTRAITS = 6;
const FULL_PORTRAITS = 60;
const QUICK_KINDS = 3;
const FULL_KINDS = 12;
const ROOT = join(import.meta.dirname, '../..');
const SAMPLES = join(ROOT, '../shared/photos');

/** Draws (or takes from the cache) the scenes, reads them on two threads, prints what came of it. */
async function main(): Promise<void> {
  const { values } = parseArgs({
    options: {
      quick: { type: 'boolean', default: false },
      count: { type: 'string' },
      dir: { type: 'string' },
      /** One part alone: reading, families, times, faults, portraits or same-fish. */
      only: { type: 'string' },
      /** The first seed of the families' scenes, to tune on others than those that are reported. */
      from: { type: 'string' },
    },
  });
  const dir = values.dir ?? join(ROOT, '.lauta/bench-photos');
  const asked = values.count ? Number(values.count) : null;
  const only = (part: string): boolean => values.only === undefined || values.only === part;
  if (only('faults')) await reportFaults(dir, asked ?? (values.quick ? QUICK_FAULTS : FULL_FAULTS));
  if (only('same-fish')) await reportSameFish(dir, asked ?? (values.quick ? QUICK_PAIRS : FULL_PAIRS));
  if (only('portraits')) reportPortraits(asked ?? (values.quick ? QUICK_PORTRAITS : FULL_PORTRAITS));
  if (only('families'))
    await reportFamilies(
      dir,
      asked ?? (values.quick ? QUICK_FAMILIES : FULL_FAMILIES),
      values.from ? Number(values.from) : undefined,
    );
  if (only('times')) await reportStages(dir, await drawPlain(dir, TIMED));
  if (!only('reading')) return;
  const records = await drawPlain(dir, asked ?? (values.quick ? QUICK : FULL));
  const count = records.length;
  const reads = await analyseAll(dir, records);
  report(`${count} simulated photographs, seeds ${FIRST_SEED} to ${FIRST_SEED + count - 1}`, reads);
  await reportBoardKinds(dir, values.quick ? QUICK_KINDS : FULL_KINDS);
  if (existsSync(join(SAMPLES, 'truth.json'))) {
    const { photos } = JSON.parse(readFileSync(join(SAMPLES, 'truth.json'), 'utf8')) as {
      photos: PhotoRecord[];
    };
    report(
      'the shared samples (without those whose reading is hidden)',
      await analyseAll(SAMPLES, photos.filter(isReadable)),
    );
  }
}

/** Photographs of the reporting seeds without a fault. */
function drawPlain(dir: string, count: number): Promise<PhotoRecord[]> {
  return drawPhotos({
    dir,
    seeds: Array.from({ length: count }, (_, i) => FIRST_SEED + i),
    threads: 2,
    onDrawn: (done, all) => done % 20 === 0 && process.stderr.write(`drawn ${done} of ${all}\n`),
  });
}

/** A hidden reading has none; a nose off the stop moves the tail by its gap. */
function isReadable(record: PhotoRecord): boolean {
  return !record.faults.includes('identifier-over-reading');
}

function report(title: string, reads: readonly Read[]): void {
  const print = (text: string): void => void process.stdout.write(`${text}\n`);
  print(`\n## ${title}\n`);
  print(FIGURES_HEAD);
  const row = (name: string, part: readonly Read[]): void => {
    if (part.length > 0) print(figuresRow(name, part));
  };
  row('all', reads);
  for (const [from, to] of [
    [0, 15],
    [15, 25],
    [25, 41],
  ] as const)
    row(
      `tilt ${from} to ${to}°`,
      reads.filter(({ record }) => record.tiltDeg >= from && record.tiltDeg < to),
    );
  for (const id of ['birch-30in', 'sand-26in', 'slate-75cm'])
    row(
      `${id}, tilt under 15°`,
      reads.filter(({ record }) => record.board === id && record.tiltDeg < 15),
    );
  const times = reads.flatMap(({ found }) => (found ? [found.ms.analyse] : [])).sort((a, b) => a - b);
  print(
    `\nAnalysis in Node: median ${times[times.length >> 1]} ms, 95th ${times[Math.floor(0.95 * (times.length - 1))]} ms (two threads beside each other).`,
  );
  const reasons = new Map<string, number>();
  for (const { found } of reads) {
    const reason = found ? (found.analysis.trouble ?? 'read') : 'failed';
    reasons.set(reason, (reasons.get(reason) ?? 0) + 1);
  }
  print(`Outcomes: ${[...reasons].map(([reason, n]) => `${reason} ${n}`).join(', ')}.`);
}

const TIMED = 12;

/** Milliseconds by stage, one photograph after the other, for 3 and 12 megapixels in Node and in a Chromium worker. */
async function reportStages(dir: string, records: readonly PhotoRecord[]): Promise<void> {
  const photos = await Promise.all(
    records.map(async (record) => ({
      name: record.file,
      jpeg: await readFile(join(dir, record.file)),
      board: shippedBoard(record.board),
      focal35Mm: record.camera.focal35,
    })),
  );
  process.stdout.write('\n## Milliseconds by stage, medians (95th of the whole)\n\n');
  process.stdout.write(
    '| where | decode | prepare | board | fish | identifier | checks | whole | 95th |\n| --- | --- | --- | --- | --- | --- | --- | --- | --- |\n',
  );
  const chromium = await openChromiumTimer();
  try {
    for (const [megapixels, pictures] of [
      [3, photos],
      [12, await Promise.all(photos.slice(0, 6).map(enlarged))],
    ] as const) {
      for (const [where, time] of [
        ['Node', timeInNode],
        ['Chromium worker', chromium.time],
      ] as const) {
        const runs: StageTimes[] = [];
        // The first run warms up the compiler, as a bench that has been open for a while is.
        await time(pictures[0] as TimedPhoto);
        for (const picture of pictures) runs.push(await time(picture));
        const median = (of: (times: StageTimes) => number, share = 0.5): string => {
          const sorted = runs.map(of).sort((a, b) => a - b);
          return (sorted[Math.floor(share * (sorted.length - 1))] ?? NaN).toFixed(0);
        };
        const whole = (times: StageTimes): number => Object.values(times).reduce((sum, ms) => sum + ms, 0);
        process.stdout.write(
          `| ${where}, ${megapixels} Mpx | ${median((t) => t.decode)} | ${median((t) => t.prepare)} | ${median((t) => t.board)} | ${median((t) => t.fish)} | ${median((t) => t.identifier)} | ${median((t) => t.checks)} | ${median(whole)} | ${median(whole, 0.95)} |\n`,
        );
      }
    }
  } finally {
    await chromium.close();
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`);
  process.exitCode = 1;
});
