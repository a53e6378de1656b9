import { boardSchema } from '@lauta/contract';
import { SHIPPED_BOARDS, type MeasuringBoard } from '@lauta/vision';
import type { Stores } from '../storage/storage.ts';
import type { StoredBoard } from './boardStore.ts';
import type { BoardId, EventId } from '@lauta/core/ids';

export function readBoardProfile({ bytes }: StoredBoard): MeasuringBoard {
  return boardSchema.parse(JSON.parse(Buffer.from(bytes).toString('utf8')));
}

/** Every kind of board that can be measured on in an event: the shipped ones and its own. */
export async function boardsOf(stores: Stores, eventId: EventId): Promise<readonly MeasuringBoard[]> {
  return [...SHIPPED_BOARDS, ...(await stores.boards.inEvent(eventId)).map(readBoardProfile)];
}

export async function boardIn(
  stores: Stores,
  eventId: EventId,
  boardId: BoardId,
): Promise<MeasuringBoard | null> {
  return (await boardsOf(stores, eventId)).find(({ id }) => id === boardId) ?? null;
}
