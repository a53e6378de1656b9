import { Link, Navigate } from 'react-router';
import { PlainFrame } from '../../ui/PlainFrame.tsx';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { AccountCorner } from '../../session/AccountCorner.tsx';
import { useWho } from '../../session/who.ts';
import { dayWords } from '@lauta/words/clock';
import { useEvents } from '../../queries/event.ts';
import { hasFailed } from '../../ui/hasFailed.ts';

/** All events that one may see; where there is only one it is opened. */
export function EventsPage() {
  const who = useWho();
  const events = useEvents();
  if (hasFailed(who))
    return (
      <PlainFrame title="Lauta">
        <Failed error={who.error} retry={() => void who.refetch()} />
      </PlainFrame>
    );
  if (hasFailed(events))
    return (
      <PlainFrame title="Lauta">
        <Failed error={events.error} retry={() => void events.refetch()} />
      </PlainFrame>
    );
  if (who.isPending || events.isPending)
    return (
      <PlainFrame title="Events">
        <Loading what="Fetching the events" />
      </PlainFrame>
    );
  if (!who.data.isSetUp) return <Navigate to="/set-up" replace />;
  const [only] = events.data;
  if (events.data.length === 1 && only && !who.data.account?.founder)
    return <Navigate to={`/events/${only.eventId}`} replace />;
  return (
    <PlainFrame title="Events" wide>
      {events.data.length === 0 ? (
        <Empty title="No event yet">
          {who.data.account?.founder ? 'Create the first one.' : 'Sign in to see those that you belong to.'}
        </Empty>
      ) : (
        <ul className="ruled border-base-300 border-y">
          {events.data.map((event) => (
            <li key={event.eventId}>
              <Link
                to={`/events/${event.eventId}`}
                className="hover:bg-base-200 flex min-h-16 flex-wrap items-center justify-between gap-x-6 py-2"
              >
                <b className="text-lg">{event.name}</b>
                <span className="text-quiet">
                  {event.days.map((day) => dayWords(day.date)).join(', ')}; {event.entrants} entrants,{' '}
                  {event.catches} catches
                </span>
              </Link>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-6 flex flex-wrap items-start justify-between gap-6">
        {who.data.account?.founder && (
          <Link to="/events/new" className="btn btn-primary h-14">
            New event
          </Link>
        )}
        <AccountCorner />
      </div>
    </PlainFrame>
  );
}
