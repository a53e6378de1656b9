import { canonicalBytes, hashHex } from '@lauta/core/ledger';
import type { Handler } from '../command/commandContext.ts';
import { requireMay } from '../access/scope.ts';
import { refuse } from '../base/refusal.ts';
import { boardsOf } from './eventBoards.ts';

/** So many kinds of its own an event may have: each is tried on a photograph of a board that is not the claimed one. */
const MOST_BOARDS = 12;

/** Adds a kind of board to an event. A profile that was measured on never changes: another one gets another id. */
export const addBoard: Handler<'board.add'> = async ({ stores, asker, now }, { board }, { eventId }) => {
  await requireMay(stores, asker, 'add-board', { eventId });
  const known = await boardsOf(stores, eventId);
  if (known.some(({ id }) => id === board.id)) refuse('board-exists', { board: board.id });
  if ((await stores.boards.inEvent(eventId)).length >= MOST_BOARDS)
    refuse('too-many-boards', { most: MOST_BOARDS });
  const bytes = canonicalBytes(board);
  const sha256 = hashHex(bytes);
  await stores.boards.add(eventId, { boardId: board.id, bytes, sha256, addedAt: now });
  return { body: { boardId: board.id, sha256 }, result: { boardId: board.id, sha256 } };
};
