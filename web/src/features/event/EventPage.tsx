import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { isWeightSheet } from '@lauta/core/rules';
import { clockTime, dayWords } from '@lauta/words/clock';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { Signal } from '../../ui/Signal.tsx';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { CodesTime } from './CodesTime.tsx';
import { ReadyLine } from '../../event/ReadyLine.tsx';
import { RuleSentences } from '../../event/RuleSentences.tsx';
import { Results } from './Results.tsx';
import { OutboxPanel } from '../../outbox/OutboxPanel.tsx';
import { useBags } from '../../outbox/useWeighIn.ts';
import { useRules } from '../../queries/event.ts';
import { hasFailed } from '../../ui/hasFailed.ts';
import type { EventId } from '@lauta/core/ids';

/** For the director: the server runs out of room, and takes no photographs until there is some. */
function RoomLine() {
  const ready = useQuery({
    queryKey: ['readyz'],
    refetchInterval: 60_000,
    queryFn: async ({ signal }) => {
      const response = await fetch('/readyz', { signal });
      return (await response.json()) as { takesPhotographs?: boolean };
    },
  });
  if (ready.data?.takesPhotographs !== false) return null;
  return (
    <p role="alert">
      <Signal tone="fault">The server is running out of room: it takes no photographs</Signal> Phones keep
      theirs and send them when there is room again. Whoever runs the server must make some.
    </p>
  );
}

/** The event at a glance: its days, its rules in sentences, its people. */
export function EventPage() {
  const { event, place } = useInEvent();
  const rules = useRules(event.eventId);
  const current = rules.data?.at(-1);
  const isDirector = place.may('edit-event');
  return (
    <div className="grid max-w-4xl gap-6">
      <div>
        <h1>{event.name}</h1>
        <p className="text-quiet">
          {event.isPublic ? 'open for anyone to watch' : 'seen by its own people only'}; times in {event.zone}
        </p>
      </div>
      <dl className="border-base-300 grid grid-cols-3 border-y py-3">
        <Figure term="entrants" value={event.entrants} />
        {current && isWeightSheet(current.sheet) ? (
          <BagFigures eventId={event.eventId} />
        ) : (
          <>
            <Figure term="catches" value={event.catches} />
            <Figure term="await a judge" value={event.undecided} />
          </>
        )}
      </dl>
      {isDirector && <RoomLine />}
      <OutboxPanel />
      {place.entrantId && <ReadyLine />}
      <section aria-labelledby="days">
        <h2 id="days">Days and sessions</h2>
        <ul className="ruled border-base-300 mt-1 border-y">
          {event.sessions.map((session) => {
            const day = event.days.find((one) => one.dayId === session.dayId);
            return (
              <li key={session.sessionId} className="flex flex-wrap items-baseline gap-x-6 py-2">
                <b className="w-36">
                  Day {day?.seq}, {dayWords(day?.date ?? '')}
                </b>
                <span>
                  lines in <b className="num">{clockTime(session.linesInAt, event.zone)}</b>, lines out{' '}
                  <b className="num">{clockTime(session.linesOutAt, event.zone)}</b>
                </span>
              </li>
            );
          })}
        </ul>
      </section>
      {isDirector && (
        <section aria-labelledby="codes">
          <h2 id="codes">Codes of the days</h2>
          <ul className="ruled border-base-300 mt-1 border-y">
            {event.days.map((day) => (
              <CodesTime key={day.dayId} day={day} />
            ))}
          </ul>
        </section>
      )}
      <section aria-labelledby="rules">
        <div className="flex flex-wrap items-baseline justify-between gap-x-6">
          <h2 id="rules">Rule sheet{current ? `, version ${current.version}` : ''}</h2>
          {isDirector && (
            <Link
              className="linklike inline-flex min-h-11 items-center"
              to={eventPath(event.eventId, 'rules')}
            >
              {current ? 'Publish another version' : 'Publish the first version'}
            </Link>
          )}
        </div>
        {hasFailed(rules) && <Failed error={rules.error} retry={() => void rules.refetch()} />}
        {rules.isPending && <Loading what="Fetching the rules" />}
        {rules.data && !current && (
          <Empty title="None is published yet">Fish can be claimed when there is one.</Empty>
        )}
        {current && <RuleSentences sheet={current.sheet} eventId={event.eventId} />}
        {current && (
          <p className="text-quiet mt-2 text-xs break-all">
            SHA-256 <code>{current.sha256}</code>
          </p>
        )}
      </section>
      <Results />
      <p className="flex flex-wrap gap-2">
        {place.entrantId && (
          <Link className="btn h-12" to={eventPath(event.eventId, 'pair')}>
            Partner’s phone
          </Link>
        )}
        <Link className="btn h-12" to={eventPath(event.eventId, 'waters')}>
          Where to fish
        </Link>
        <Link className="btn h-12" to={eventPath(event.eventId, 'boards')}>
          Kinds of board
        </Link>
        {place.may('see-people') && (
          <Link className="btn h-12" to={eventPath(event.eventId, 'people')}>
            People of this event
          </Link>
        )}
      </p>
    </div>
  );
}

function Figure({ term, value }: { term: string; value: number }) {
  return (
    <div>
      <dt className="text-quiet">{term}</dt>
      <dd className="num text-3xl">{value}</dd>
    </div>
  );
}

function BagFigures({ eventId }: { eventId: EventId }) {
  const { data } = useBags(eventId, true);
  const bags = data?.bags ?? [];
  return (
    <>
      <Figure term="bags" value={bags.length} />
      <Figure term="not yet signed" value={bags.filter(({ state }) => state !== 'signed').length} />
    </>
  );
}
