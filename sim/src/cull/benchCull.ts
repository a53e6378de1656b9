/**
 * npm run -s bench-cull -- [--days N] [--seed S] [--json]: what three ways of culling lose and how often they hang a
 * fish, on simulated days. A measurement; it asserts nothing.
 */
import { availableParallelism } from 'node:os';
import { parseArgs } from 'node:util';
import { Tinypool } from 'tinypool';
import { G_PER_OUNCE } from '@lauta/core/units';
import { SCALE_KINDS, type ScaleQuality } from '@lauta/core/scale';
import { seedFor } from '../camera/dice.ts';
import type { CullOrder } from './cullDays.ts';
import { CULL_METHODS, type DayOutcome } from './simulateDay.ts';
import { figuresOf, type QualityFigures } from './figures.ts';
import { keysOf } from '@lauta/core/keys';

const { values } = parseArgs({
  options: {
    days: { type: 'string', default: '5000' },
    seed: { type: 'string', default: '4310' },
    json: { type: 'boolean', default: false },
  },
});
const days = Number(values.days);
const seed = Number(values.seed);
if (!Number.isInteger(days) || days < 1) throw new RangeError(`days: expected 1 or more, got ${values.days}`);
if (!Number.isInteger(seed)) throw new RangeError(`seed: expected a whole number, got ${values.seed}`);

const pool = new Tinypool({
  filename: new URL('./cullThread.mjs', import.meta.url).href,
  minThreads: 0,
  maxThreads: availableParallelism(),
});
const run = (order: CullOrder): Promise<DayOutcome[]> => pool.run(order);

async function measure(quality: ScaleQuality): Promise<QualityFigures> {
  const threads = Math.min(days, availableParallelism());
  const seeds = Array.from({ length: days }, (_, i) => seedFor(seed, `cull ${i}`));
  const parts = await Promise.all(
    Array.from({ length: threads }, (_, t) =>
      run({ quality, seeds: seeds.filter((_, i) => i % threads === t) }),
    ),
  );
  return figuresOf(parts.flat());
}

const result: Partial<Record<ScaleQuality, QualityFigures>> = {};
for (const quality of keysOf(SCALE_KINDS)) {
  result[quality] = await measure(quality);
  if (!values.json) print(quality, result[quality]);
}
await pool.destroy();
if (values.json) console.log(JSON.stringify({ days, seed, ...result }));

function print(quality: ScaleQuality, figures: QualityFigures): void {
  console.log(`\n${quality} scale, ${days} days, seed ${seed}`);
  console.log('            wrong culls   lost oz a day   liftings a day   fish hung a day   hanging s a day');
  for (const method of CULL_METHODS) {
    const { wrongCulls, lostG, liftings, hangings, hangingSeconds } = figures[method];
    console.log(
      `  ${method.padEnd(9)} ${(100 * wrongCulls).toFixed(1).padStart(9)} % ${(lostG / G_PER_OUNCE).toFixed(3).padStart(15)} ${liftings.toFixed(2).padStart(16)} ${hangings.toFixed(2).padStart(17)} ${hangingSeconds.toFixed(1).padStart(17)}`,
    );
  }
  const { brier, brierOfMean, table } = figures.calibration;
  console.log(`  Brier score ${brier.toFixed(4)} (always the mean: ${brierOfMean.toFixed(4)})`);
  for (const { from, to, count, said, came } of table) {
    console.log(
      `    said ${from.toFixed(2)} to ${to.toFixed(2)}: ${String(count).padStart(6)} releases, said ${said.toFixed(3)}, came ${came.toFixed(3)}`,
    );
  }
}
