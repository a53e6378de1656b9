import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { BoardView } from '@lauta/contract';
import { SHIPPED_BOARDS, type MeasuringBoard } from '@lauta/vision';
import { getJson } from '../door/ask.ts';
import type { BoardId, EventId } from '@lauta/core/ids';

/** The kinds of board that an event has beside the shipped ones. */
export function useStoredBoards(eventId: EventId) {
  return useQuery({
    queryKey: ['event', eventId, 'boards'],
    queryFn: ({ signal }) => getJson<BoardView[]>(`/api/events/${eventId}/boards`, signal),
  });
}

export interface KnownBoards {
  all: readonly MeasuringBoard[];
  find: (boardId: BoardId) => MeasuringBoard | null;
  /** What to call a kind of board, its id where it is not known (yet). */
  nameOf: (boardId: BoardId) => string;
}

/** Every kind of board that can be measured on in an event: the shipped ones at once, its own once they are there. */
export function useBoards(eventId: EventId): KnownBoards {
  const { data } = useStoredBoards(eventId);
  return useMemo(() => {
    const all = [...SHIPPED_BOARDS, ...(data ?? []).map(({ profile }) => profile)];
    const find = (boardId: BoardId): MeasuringBoard | null => all.find(({ id }) => id === boardId) ?? null;
    return { all, find, nameOf: (boardId) => find(boardId)?.name ?? boardId };
  }, [data]);
}
