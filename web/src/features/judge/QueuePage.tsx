import { useDeferredValue, useState } from 'react';
import { isLengthSheet } from '@lauta/core/rules';
import { useNavigate, useSearchParams } from 'react-router';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { Keys, useKeys } from '../../ui/Keys.tsx';
import { Pager } from '../../ui/Pager.tsx';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { CatchLines } from '../../catch/CatchLines.tsx';
import { AnnouncedList } from './AnnouncedList.tsx';
import { useRules } from '../../queries/event.ts';
import { OutboxPanel } from '../../outbox/OutboxPanel.tsx';
import { useQueue } from '../../queries/queue.ts';
import { useDecidedHere } from './useDecide.ts';
import { hasFailed } from '../../ui/hasFailed.ts';

/** The catches that wait for a judge, oldest first; beside them those already decided. */
export function QueuePage() {
  const { event } = useInEvent();
  const [search, setSearch] = useSearchParams();
  const isDecided = search.get('show') === 'decided';
  const page = Math.max(1, Number(search.get('page')) || 1);
  const setPage = (next: number): void =>
    setSearch({ ...(isDecided ? { show: 'decided' } : {}), page: String(next) });
  const [wanted, setWanted] = useState('');
  const queue = useQueue(event.eventId, isDecided, page, useDeferredValue(wanted));
  const rules = useRules(event.eventId);
  const navigate = useNavigate();
  const decidedHere = useDecidedHere();
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
  const current = rules.data?.at(-1)?.sheet;
  const sheet = current && isLengthSheet(current) ? current : null;
  return (
    <div>
      <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
        <div>
          <h1>Judge</h1>
          <p className="text-quiet">
            {isDecided ? 'decided, newest first' : `${queue.data?.total ?? '…'} waiting, oldest first`}
          </p>
        </div>
        <div className="flex flex-wrap gap-1" role="group" aria-label="Which catches">
          <input
            type="search"
            aria-label="Find an entrant by name or number"
            placeholder="name or number"
            className="input h-10 w-40"
            value={wanted}
            onChange={(e) => setWanted(e.target.value)}
          />
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
          <a className="btn" href={`/api/events/${event.eventId}/catches.csv`} download>
            CSV
          </a>
        </div>
      </div>
      <OutboxPanel />
      {hasFailed(queue) && <Failed error={queue.error} retry={() => void queue.refetch()} />}
      {queue.isPending && <Loading what="Fetching the queue" />}
      {queue.data && sheet && queue.data.items.length === 0 && (
        <Empty
          title={wanted ? 'Nothing of that name' : isDecided ? 'Nothing is decided yet' : 'Nothing waits'}
        >
          {isDecided ? 'Decisions appear here.' : 'New catches appear here by themselves.'}
        </Empty>
      )}
      {queue.data && sheet && queue.data.items.length > 0 && (
        <>
          <CatchLines
            event={event}
            sheet={sheet}
            items={queue.data.items.filter(({ catchId }) => isDecided || !decidedHere.has(catchId))}
            to={(catchId) => eventPath(event.eventId, 'judge', catchId)}
            withEntrant
          />
          <Pager {...queue.data} onPage={setPage} />
        </>
      )}
      {sheet && !isDecided && <AnnouncedList sheet={sheet} />}
      <Keys keys={keys} />
    </div>
  );
}
