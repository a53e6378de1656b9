import { writeFile } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { drawPhotos } from './drawPhotos.ts';

const USAGE = 'usage: npm run sim-photos -- --count N --seed S --out DIR [--bare] [--max-tilt DEG]';

/** Draws N photographs from the seeds S, S + 1, … and writes them with their truth into a folder. */
async function main(): Promise<void> {
  const { values } = parseArgs({
    options: {
      count: { type: 'string', default: '10' },
      seed: { type: 'string', default: '1' },
      out: { type: 'string' },
      bare: { type: 'boolean', default: false },
      'max-tilt': { type: 'string', default: '40' },
    },
  });
  const count = Number(values.count);
  const first = Number(values.seed);
  const maxTiltDeg = Number(values['max-tilt']);
  if (!values.out || !Number.isInteger(count) || count < 1 || !Number.isInteger(first) || !(maxTiltDeg >= 0))
    throw new RangeError(USAGE);
  const photos = await drawPhotos({
    dir: values.out,
    seeds: Array.from({ length: count }, (_, i) => first + i),
    threads: Math.max(1, Math.min(availableParallelism(), count)),
    fish: !values.bare,
    maxTiltDeg,
    onDrawn: (done, all) => process.stdout.write(`${done} of ${all}\n`),
  });
  await writeFile(join(values.out, 'truth.json'), JSON.stringify({ photos }, null, 1));
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 2;
});
