import { Link } from 'react-router';
import { Signal } from '../ui/Signal.tsx';
import { useSentBack } from '../queries/catches.ts';
import type { EventId } from '@lauta/core/ids';

/** On every page, until it is answered: a judge asks something about an own catch. */
export function SentBackNote({ eventId }: { eventId: EventId }) {
  const { data } = useSentBack(eventId, true);
  const [first] = data?.items ?? [];
  if (!data || !first) return null;
  return (
    <div
      role="status"
      className="border-warning mb-4 flex min-h-16 flex-wrap items-center gap-x-4 border-l-4 pl-3"
    >
      <Signal tone="look">
        {data.total === 1
          ? 'A judge has sent a catch back to you'
          : `A judge has sent ${data.total} catches back to you`}
      </Signal>
      <Link className="linklike content-center" to={`/events/${eventId}/catches/${first.catchId}`}>
        Answer
      </Link>
    </div>
  );
}
