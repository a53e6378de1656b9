import { useNavigate, useSearchParams } from 'react-router';
import { eventPath, useInEvent } from '../../frame/inEvent.ts';
import { Keys, useKeys } from '../../frame/Keys.tsx';
import { Pager } from '../../frame/Pager.tsx';
import { Empty, Failed, Loading } from '../../frame/states.tsx';
import { CatchLines } from '../catch/CatchLines.tsx';
import { useRules } from '../event/queries.ts';
import { useQueue } from './queries.ts';

/** The catches that wait for a judge, oldest first; beside them those already decided. */
export function QueuePage() {
  const { event } = useInEvent();
  const [search, setSearch] = useSearchParams();
  const isDecided = search.get('show') === 'decided';
  const page = Math.max(1, Number(search.get('page')) || 1);
  const setPage = (next: number): void =>
    setSearch({ ...(isDecided ? { show: 'decided' } : {}), page: String(next) });
  const queue = useQueue(event.eventId, isDecided, page);
  const rules = useRules(event.eventId);
  const navigate = useNavigate();
  const first = queue.data?.items[0]?.catchId;
  const keys = [
    {
      key: 'Enter',
      what: 'open the oldest',
      act: () => first && void navigate(eventPath(event.eventId, 'judge', first)),
    },
    { key: 'D', what: 'waiting or decided', act: () => setSearch(isDecided ? {} : { show: 'decided' }) },
  ];
  useKeys(keys);
  const sheet = rules.data?.at(-1)?.sheet;
  return (
    <div>
      <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
        <div>
          <h1>Judge</h1>
          <p className="text-quiet">
            {isDecided ? 'decided, newest first' : `${queue.data?.total ?? '…'} waiting, oldest first`}
          </p>
        </div>
        <div className="flex gap-1" role="group" aria-label="Which catches">
          <button
            type="button"
            aria-pressed={!isDecided}
            className={`btn ${isDecided ? '' : 'btn-primary'}`}
            onClick={() => setSearch({})}
          >
            Waiting
          </button>
          <button
            type="button"
            aria-pressed={isDecided}
            className={`btn ${isDecided ? 'btn-primary' : ''}`}
            onClick={() => setSearch({ show: 'decided' })}
          >
            Decided
          </button>
        </div>
      </div>
      {queue.isError && <Failed error={queue.error} retry={() => void queue.refetch()} />}
      {queue.isPending && <Loading what="Fetching the queue" />}
      {queue.data && sheet && queue.data.items.length === 0 && (
        <Empty title={isDecided ? 'Nothing is decided yet' : 'Nothing waits'}>
          {isDecided ? 'Decisions appear here.' : 'New catches appear here by themselves.'}
        </Empty>
      )}
      {queue.data && sheet && queue.data.items.length > 0 && (
        <>
          <CatchLines
            event={event}
            sheet={sheet}
            items={queue.data.items}
            to={(catchId) => eventPath(event.eventId, 'judge', catchId)}
            withEntrant
          />
          <Pager {...queue.data} onPage={setPage} />
        </>
      )}
      <Keys keys={keys} />
    </div>
  );
}
