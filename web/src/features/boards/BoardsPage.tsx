import { Link } from 'react-router';
import { SHIPPED_BOARDS, type MeasuringBoard } from '@lauta/vision';
import { Failed, Loading } from '../../ui/states.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { OutboxPanel } from '../../outbox/OutboxPanel.tsx';
import { useRules } from '../../queries/event.ts';
import { BoardDrawing } from './BoardDrawing.tsx';
import { useBoards, useStoredBoards } from '../../queries/boards.ts';
import { rulingWords } from '@lauta/words/boards';
import { hasFailed } from '../../ui/hasFailed.ts';

/** The kinds of board that can be measured on in this event, and which of them its rules approve. */
export function BoardsPage() {
  const { event, place } = useInEvent();
  const stored = useStoredBoards(event.eventId);
  const boards = useBoards(event.eventId);
  const rules = useRules(event.eventId);
  if (hasFailed(stored)) return <Failed error={stored.error} retry={() => void stored.refetch()} />;
  if (stored.isPending) return <Loading what="Fetching the boards" />;
  const approved = rules.data?.at(-1)?.sheet.boards ?? [];
  return (
    <div className="grid max-w-4xl gap-6">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1>Kinds of board</h1>
        {place.may('add-board') && (
          <Link className="btn btn-primary h-14" to={eventPath(event.eventId, 'boards', 'new')}>
            Add one from a photograph
          </Link>
        )}
      </div>
      <OutboxPanel />
      <p className="text-quiet -mt-4">
        The bench reads a fish on any of these. Which of them count is said by the rule sheet.
      </p>
      <ul className="ruled border-base-300 border-y">
        {boards.all.map((board) => (
          <BoardLine key={board.id} board={board} isApproved={approved.includes(board.id)} />
        ))}
      </ul>
    </div>
  );
}

function BoardLine({ board, isApproved }: { board: MeasuringBoard; isApproved: boolean }) {
  return (
    <li className="grid gap-2 py-4">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h2>{board.name}</h2>
        <Signal tone={isApproved ? 'clear' : 'look'}>{isApproved ? 'approved' : 'not approved'}</Signal>
      </div>
      <BoardDrawing board={board} />
      <p className="text-quiet text-sm">
        {rulingWords(board)}
        {SHIPPED_BOARDS.includes(board) ? '' : ' Added to this event from a photograph.'}
      </p>
    </li>
  );
}
