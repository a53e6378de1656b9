import { Link } from 'react-router';
import type { BenchReadingView, CatchView } from '@lauta/contract';
import { dayAndTime } from '@lauta/words/clock';
import { likenessReason } from '@lauta/words/likeness';
import { Signal } from '../../ui/Signal.tsx';
import { eventPath, useInEvent } from '../../event/inEvent.ts';

/** Other catches that may show the same fish; each opens both photographs side by side. */
export function AlikeList({ caught, found }: { caught: CatchView; found: BenchReadingView | undefined }) {
  const { event } = useInEvent();
  if (!found || (found.alike.length === 0 && found.alikeUnread === 0)) return null;
  return (
    <section aria-label="The same fish" className="grid gap-1 text-sm">
      {found.alike.map((one) => (
        <div key={one.catchId}>
          <Link
            className="inline-flex min-h-6.5 items-center hover:underline"
            to={eventPath(event.eventId, 'judge', caught.catchId, 'alike', one.catchId)}
          >
            <Signal tone={one.answer === 'same' ? 'fault' : 'look'}>
              {one.isSamePhoto
                ? 'the same photograph as'
                : one.answer === 'same'
                  ? 'the same fish as'
                  : 'perhaps the fish of'}{' '}
              no. {one.entrant.number}, {dayAndTime(one.capturedAt, event.zone)}
            </Signal>
          </Link>
          <p className="text-quiet pl-5">{likenessReason(one)}</p>
        </div>
      ))}
      {found.alikeUnread > 0 && (
        <p className="text-quiet" role="status">
          comparing {found.alikeUnread} earlier fish of its kind and length …
        </p>
      )}
    </section>
  );
}
