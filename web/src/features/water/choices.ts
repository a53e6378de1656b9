import type { LengthSheet } from '@lauta/core/rules';
import type { CatchDraft } from './draft.ts';

type Choices = Pick<CatchDraft, 'boardId' | 'speciesId'>;

const KEY = 'lauta-last-choices';

function stored(): Partial<Choices> {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Choices>;
  } catch {
    return {};
  }
}

/** Board and species as last time, where the sheet has them: one choice fewer with a wet thumb. */
export function recallChoices(sheet: LengthSheet): Choices {
  const { boardId, speciesId } = stored();
  return {
    boardId: sheet.boards.find((board) => board === boardId) ?? sheet.boards[0] ?? '',
    speciesId: (sheet.species.find((one) => one.id === speciesId) ?? sheet.species[0])?.id ?? '',
  };
}

export function rememberChoices({ boardId, speciesId }: Partial<Choices>): void {
  if (boardId === undefined && speciesId === undefined) return;
  const next = { ...stored(), ...(boardId ? { boardId } : {}), ...(speciesId ? { speciesId } : {}) };
  localStorage.setItem(KEY, JSON.stringify(next));
}
