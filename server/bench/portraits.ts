import { PORTRAIT_HINTS, lookPortrait, type PortraitHint } from '@lauta/vision/portrait';
import { PORTRAIT_FAULTS, drawPortrait } from '@lauta/sim/portrait';

/** Bounds and limits were set on seeds 100 to 5039. */
const FIRST_SEED = 20_001;

/** How often each hint is given where it should be, and where it should not. Prints one table. */
export function reportPortraits(count: number): void {
  const print = (text: string): void => void process.stdout.write(`${text}\n`);
  print(`\n## ${count} portraits of each kind, seeds ${FIRST_SEED} to ${FIRST_SEED + count - 1}\n`);
  print(`| portrait | fault | hint given | another hint | ms |`);
  print('| --- | --- | --- | --- | --- |');
  const others = new Map<PortraitHint, number>();
  for (const kind of ['held', 'water'] as const) {
    for (const fault of [null, ...PORTRAIT_FAULTS[kind]]) {
      let [given, another] = [0, 0];
      const ms: number[] = [];
      for (let seed = FIRST_SEED; seed < FIRST_SEED + count; seed++) {
        const { raster } = drawPortrait(seed, { kind, fault });
        const begun = performance.now();
        const { findings } = lookPortrait(raster);
        ms.push(performance.now() - begun);
        if (findings.some(({ hint }) => hint === fault)) given++;
        const more = findings.filter(({ hint }) => hint !== fault);
        if (more.length > 0) another++;
        for (const { hint } of more) others.set(hint, (others.get(hint) ?? 0) + 1);
      }
      const percent = (part: number): string => `${((100 * part) / count).toFixed(0)} %`;
      const median = ms.sort((a, b) => a - b)[ms.length >> 1] ?? NaN;
      print(
        `| ${kind === 'held' ? 'with a person' : 'in the water'} | ${fault ?? 'none'} | ${fault ? percent(given) : '-'} | ${percent(another)} | ${median.toFixed(0)} |`,
      );
    }
  }
  print(`\nOther hints: ${PORTRAIT_HINTS.map((hint) => `${hint} ${others.get(hint) ?? 0}`).join(', ')}.`);
}
