import { readFile } from 'node:fs/promises';
import { boardSchema } from '@lauta/contract';
import type { MeasuringBoard } from '@lauta/vision';

/**
 * A board's profile from a file.
 * @throws RangeError for a file that is no profile
 */
export async function readBoardFile(file: string): Promise<MeasuringBoard> {
  const parsed = boardSchema.safeParse(JSON.parse(await readFile(file, 'utf8')));
  if (!parsed.success)
    throw new RangeError(`${file}: not a board profile: ${parsed.error.issues[0]?.message ?? ''}`);
  return parsed.data;
}
