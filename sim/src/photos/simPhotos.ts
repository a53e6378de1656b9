import { writeFile } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { PHOTO_FAULTS } from '../camera/index.ts';
import { drawPhotos } from './drawPhotos.ts';
import { mixedFault } from './mix.ts';

const USAGE =
  'usage: npm run sim-photos -- --count N --seed S --out DIR [--bare] [--max-tilt DEG] [--fault ID | --mix] [--pairs]';

/** Draws N photographs from the seeds S, S + 1, … and writes them with their truth into a folder. */
async function main(): Promise<void> {
  const { values } = parseArgs({
    options: {
      count: { type: 'string', default: '10' },
      seed: { type: 'string', default: '1' },
      out: { type: 'string' },
      bare: { type: 'boolean', default: false },
      'max-tilt': { type: 'string', default: '40' },
      fault: { type: 'string' },
      mix: { type: 'boolean', default: false },
      pairs: { type: 'boolean', default: false },
    },
  });
  const count = Number(values.count);
  const first = Number(values.seed);
  const maxTiltDeg = Number(values['max-tilt']);
  if (!values.out || !Number.isInteger(count) || count < 1 || !Number.isInteger(first) || !(maxTiltDeg >= 0))
    throw new RangeError(USAGE);
  const fault = PHOTO_FAULTS.find((id) => id === values.fault) ?? null;
  if (values.fault && !fault) throw new RangeError(`--fault: expected one of ${PHOTO_FAULTS.join(', ')}`);
  const photos = await drawPhotos({
    dir: values.out,
    seeds: Array.from({ length: count }, (_, i) => first + i),
    threads: Math.max(1, Math.min(availableParallelism(), count)),
    fish: !values.bare,
    maxTiltDeg,
    faultOf: (seed) => (values.mix ? mixedFault(seed) : fault),
    // Each odd one shows the fish of the one before it again.
    fishOf: (seed) => (values.pairs ? seed - ((seed - first) % 2) : null),
    onDrawn: (done, all) => process.stdout.write(`${done} of ${all}\n`),
  });
  await writeFile(join(values.out, 'truth.json'), JSON.stringify({ photos }, null, 1));
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 2;
});
