import { useState } from 'react';
import { isLengthSheet } from '@lauta/core/rules';
import { CatchLines } from '../../catch/CatchLines.tsx';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { useOwnCatches } from '../../queries/catches.ts';
import { useRules } from '../../queries/event.ts';
import { hasFailed } from '../../ui/hasFailed.ts';
import { Pager } from '../../ui/Pager.tsx';
import { Empty, Failed, Loading } from '../../ui/states.tsx';

export function OwnCatches() {
  const { event } = useInEvent();
  const [page, setPage] = useState(1);
  const rules = useRules(event.eventId);
  const catches = useOwnCatches(event.eventId, page);
  const current = rules.data?.at(-1)?.sheet;
  const sheet = current && isLengthSheet(current) ? current : null;
  return (
    <section aria-labelledby="own-catches">
      <div className="mb-2 flex items-baseline justify-between">
        <h2 id="own-catches">Your catches</h2>
        <a
          className="linklike inline-flex min-h-16 min-w-16 items-center justify-end lg:min-h-11"
          href={`/api/events/${event.eventId}/own-catches.csv`}
          download
        >
          CSV
        </a>
      </div>
      {hasFailed(catches) && <Failed error={catches.error} retry={() => void catches.refetch()} />}
      {catches.isPending && <Loading what="Fetching your catches" />}
      {catches.data && sheet && catches.data.items.length === 0 && (
        <Empty title="None yet">Photograph your first fish on the board, nose on the stop.</Empty>
      )}
      {catches.data && sheet && catches.data.items.length > 0 && (
        <>
          <CatchLines
            event={event}
            sheet={sheet}
            items={catches.data.items}
            to={(catchId) => eventPath(event.eventId, 'catches', catchId)}
          />
          <Pager {...catches.data} onPage={setPage} />
        </>
      )}
    </section>
  );
}
