import { readFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { flankPattern, likenessOf, type KnownFlank, type Likeness } from '@lauta/vision/same-fish';
import type { MeasuringBoard } from '@lauta/vision';
import { likenessReason } from '@lauta/words/likeness';
import { analysePhotograph } from '../bench/analysePhotograph.ts';
import { readBoardFile } from './boardFile.ts';

const USAGE = 'usage: npm run -s compare-fish -- PHOTO_A PHOTO_B --board-a BOARD.json --board-b BOARD.json';

/** Tells on the command line whether two photographs show the same fish, by the code that the application runs. */
async function main(): Promise<void> {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { 'board-a': { type: 'string' }, 'board-b': { type: 'string' } },
  });
  const [photoA, photoB] = positionals;
  if (!photoA || !photoB || positionals.length > 2 || !values['board-a'] || !values['board-b'])
    throw new RangeError(USAGE);
  const a = await flankIn(photoA, await readBoardFile(values['board-a']));
  const b = await flankIn(photoB, await readBoardFile(values['board-b']));
  const likeness =
    typeof a === 'string' || typeof b === 'string'
      ? { score: 0.2, verdict: 'look', why: typeof a === 'string' ? a : (b as string) }
      : saidOf(likenessOf(a, b));
  const { score, verdict, why } = likeness;
  process.stdout.write(`${JSON.stringify({ score: Math.round(score * 1000) / 1000, verdict, why })}\n`);
}

function saidOf(likeness: Likeness): { score: number; verdict: string; why: string } {
  return { score: likeness.score, verdict: likeness.answer, why: likenessReason(likeness) };
}

/** The fish of a photograph as it is compared, or why there is none. */
async function flankIn(photo: string, board: MeasuringBoard): Promise<KnownFlank | string> {
  const { analysis } = await analysePhotograph(await readFile(photo), board);
  const { lengthMm, sigmaMm, flank, trouble } = analysis;
  if (lengthMm === null || sigmaMm === null || !flank)
    return `${photo}: ${trouble ? `no length (${trouble})` : 'too little of the flank is free'}`;
  return { lengthMm, sigmaMm, flank: flankPattern(flank.pattern) };
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message.split('\n')[0] : String(error)}\n`);
  process.exitCode = 2;
});
