import { z } from 'zod';
import type { LengthSheet } from '@lauta/core/rules';
import { jsonOf, readStored, writeStored, type Preference } from '../../device/stored.ts';
import type { CatchDraft } from './draft.ts';
import type { BoardId, SpeciesId } from '@lauta/core/ids';

type Choices = Pick<CatchDraft, 'boardId' | 'speciesId'>;

const LAST: Preference<{ boardId?: BoardId | undefined; speciesId?: SpeciesId | undefined }> = {
  key: 'lauta-last-choices',
  parse: (text) =>
    z
      .object({ boardId: z.string().optional(), speciesId: z.string().optional() })
      .catch({})
      .parse(jsonOf(text)),
};

/** Board and species as last time, where the sheet has them: one choice fewer with a wet thumb. */
export function recallChoices(sheet: LengthSheet): Choices {
  const { boardId, speciesId } = readStored(LAST);
  return {
    boardId: sheet.boards.find((board) => board === boardId) ?? sheet.boards[0] ?? '',
    speciesId: (sheet.species.find((one) => one.id === speciesId) ?? sheet.species[0])?.id ?? '',
  };
}

export function rememberChoices({ boardId, speciesId }: Partial<Choices>): void {
  if (boardId === undefined && speciesId === undefined) return;
  writeStored(LAST, {
    ...readStored(LAST),
    ...(boardId ? { boardId } : {}),
    ...(speciesId ? { speciesId } : {}),
  });
}
