import { useState } from 'react';
import { NavLink, Outlet, useParams } from 'react-router';
import type { EventView } from '@lauta/contract';
import { isWeightSheet, type Measure } from '@lauta/core/rules';
import { useNow } from '../clock/appClock.ts';
import { AskedFrames } from './AskedFrames.tsx';
import { useSentBack } from '../queries/catches.ts';
import { useEvent, useRules } from '../queries/event.ts';
import { WellWatch } from '../features/well/WellWatch.tsx';
import type { LiveState } from '../live/liveChannel.ts';
import { useLive } from '../live/useLive.ts';
import { placeIn, useWho, type PlaceInEvent } from '../session/session.ts';
import { InEventContext, type InEvent } from '../event/inEvent.ts';
import { AccountCorner } from '../session/AccountCorner.tsx';
import { BrokenRecord } from './BrokenRecord.tsx';
import { SentBackNote } from './SentBackNote.tsx';
import { RuledEdge } from '../ui/RuledEdge.tsx';
import { dayClock } from './dayClock.ts';
import { Failed, Loading } from '../ui/states.tsx';
import { hasFailed } from '../ui/hasFailed.ts';

interface Place {
  to: string;
  name: string;
  note?: string;
  end?: boolean;
}

/** The day in its order; only places that exist and that one may enter. */
function placesOf(
  event: EventView,
  { may, entrantId }: PlaceInEvent,
  measure: Measure['kind'] | null,
  sentBack: number,
): { day: Place[]; under: Place[] } {
  const day: Place[] = [];
  if (entrantId) {
    day.push({ to: 'prepare', name: 'Prepare' });
    // Where weight counts nothing is claimed by photograph.
    if (measure !== 'weight')
      day.push({ to: 'water', name: 'Water', ...(sentBack > 0 ? { note: String(sentBack) } : {}) });
    day.push({ to: 'well', name: 'Well' });
  }
  if (measure === 'weight') day.push({ to: 'weigh-in', name: 'Weigh-in' });
  // Nothing is judged by its photograph where weight counts.
  if (may('see-queue') && measure !== 'weight') {
    day.push({
      to: 'judge',
      name: 'Judge',
      ...(event.undecided > 0 ? { note: String(event.undecided) } : {}),
    });
  }
  day.push({ to: 'standings', name: 'Standings' }, { to: 'records', name: 'Records' });
  const under: Place[] = [];
  if (entrantId || may('see-specimens')) under.push({ to: 'specimens', name: 'Specimens' });
  under.push({ to: '.', name: 'Event', end: true });
  if (entrantId) under.push({ to: 'settings', name: 'Settings' });
  return { day, under };
}

export function EventFrame() {
  const { eventId = '' } = useParams();
  const event = useEvent(eventId);
  const who = useWho();
  const live = useLive(eventId);
  const rules = useRules(eventId);
  const sentBack = useSentBack(eventId, placeIn(who.data, eventId).entrantId !== null);
  const [isMoreOpen, setMoreOpen] = useState(false);
  if (hasFailed(event)) {
    return (
      <main className="mx-auto max-w-lg px-4 py-8">
        <Failed error={event.error} retry={() => void event.refetch()} />
      </main>
    );
  }
  if (event.isPending || who.isPending) {
    return (
      <main className="mx-auto max-w-lg px-4 py-8">
        <Loading what="Opening the event" />
      </main>
    );
  }
  const place = placeIn(who.data, eventId);
  const sheet = rules.data?.at(-1)?.sheet;
  const measure = sheet?.measure.kind ?? null;
  const { day, under } = placesOf(event.data, place, measure, sentBack.data?.total ?? 0);
  const places = [...day, ...under];
  const atHand = places.filter(({ to }) => isAtHand(to, place));
  // Whatever place is not at hand is behind "More": none is out of reach on a phone.
  const behindMore = places.filter((one) => !atHand.includes(one));
  const context: InEvent = { event: event.data, place, live };
  return (
    <div className="lg:grid lg:h-dvh lg:grid-cols-[10.5rem_1fr] lg:grid-rows-[auto_1fr]">
      <a
        href="#page"
        className="btn btn-primary absolute top-1 left-1 z-50 -translate-y-20 focus:translate-y-0"
      >
        Skip to content
      </a>
      <Header event={event.data} live={live} />
      <nav
        aria-label="Places"
        className="border-base-300 hidden flex-col overflow-y-auto border-r py-5 lg:flex"
      >
        {day.map((one) => (
          <RailLink key={one.to} place={one} />
        ))}
        <hr className="border-base-300 mx-6 my-3" />
        {under.map((one) => (
          <RailLink key={one.to} place={one} />
        ))}
        <div className="mt-auto px-5">
          <AccountCorner />
        </div>
      </nav>
      <main
        id="page"
        tabIndex={-1}
        className="min-w-0 px-4 pt-5 pb-28 outline-none sm:px-7 lg:overflow-y-auto lg:pb-8"
      >
        <InEventContext value={context}>
          <BrokenRecord eventId={eventId} />
          {place.entrantId && <SentBackNote eventId={eventId} />}
          <AskedFrames
            eventId={eventId}
            entrantId={place.entrantId}
            // What was kept by a version before tells nothing of it.
            isOfficial={Boolean(event.data.officialAt)}
          />
          {place.entrantId && sheet && isWeightSheet(sheet) && (
            <WellWatch entrantId={place.entrantId} sheet={sheet} />
          )}
          <Outlet />
        </InEventContext>
      </main>
      <nav
        aria-label="Places"
        className="bg-base-100 border-base-content fixed inset-x-0 bottom-0 z-30 grid auto-cols-fr grid-flow-col border-t-2 pb-[env(safe-area-inset-bottom)] lg:hidden"
      >
        {atHand.map((one) => (
          <NavLink
            key={one.to}
            to={one.to}
            className={({ isActive }) =>
              `flex min-h-16 items-center justify-center gap-1 ${isActive ? 'bg-base-200 font-bold underline decoration-4 underline-offset-8' : ''}`
            }
          >
            {one.name}
            {one.note && <span className="num text-sm">{one.note}</span>}
          </NavLink>
        ))}
        <button
          type="button"
          aria-expanded={isMoreOpen}
          aria-controls="more"
          className="min-h-16"
          onClick={() => setMoreOpen(!isMoreOpen)}
        >
          More
        </button>
      </nav>
      {isMoreOpen && (
        <div
          id="more"
          className="bg-base-100 border-base-content fixed inset-x-0 bottom-16 z-30 border-t-2 p-4 lg:hidden"
        >
          <div className="ruled grid">
            {behindMore.map((one) => (
              <NavLink
                key={one.to}
                to={one.to}
                end
                className="flex min-h-16 items-center text-lg"
                onClick={() => setMoreOpen(false)}
              >
                {one.name}
              </NavLink>
            ))}
          </div>
          <div className="border-base-300 border-t pt-4">
            <AccountCorner />
          </div>
        </div>
      )}
    </div>
  );
}

/** On a phone three places stand at the bottom, beside what opens all others. */
function isAtHand(to: string, { entrantId }: PlaceInEvent): boolean {
  return ['water', 'well', 'judge', 'standings'].includes(to) || (to === 'weigh-in' && !entrantId);
}

function RailLink({ place }: { place: Place }) {
  return (
    <NavLink
      to={place.to}
      end={place.end ?? false}
      className={({ isActive }) =>
        `flex min-h-10 items-center justify-between border-l-4 px-5 ${isActive ? 'border-base-content bg-base-200 font-bold' : 'border-transparent'}`
      }
    >
      <span>{place.name}</span>
      {place.note && <span className="num text-quiet text-sm">{place.note}</span>}
    </NavLink>
  );
}

function Header({ event, live }: { event: EventView; live: LiveState }) {
  const now = useNow();
  const clock = dayClock(event, now.getTime());
  return (
    <header className="bg-base-100 sticky top-0 z-20 lg:col-span-2">
      <div className="flex items-end justify-between gap-4 px-4 pt-3 pb-2 sm:px-7">
        <div className="flex min-w-0 items-baseline">
          <NavLink to="/" className="-ml-2 hidden w-44 flex-none text-xl font-extrabold lg:block">
            Lauta
          </NavLink>
          <span className="min-w-0">
            <b className="text-lg">{event.name}</b>{' '}
            <span className="text-quiet ml-2 whitespace-nowrap">{clock.day}</span>
          </span>
        </div>
        <p className="text-quiet text-right text-sm whitespace-nowrap sm:text-base">
          {live === 'lost' && <b className="text-warning mr-3">no connection</b>}
          <span className="max-sm:block">{clock.label}</span>{' '}
          <b className="num text-base-content sm:text-lg">{clock.value}</b>
        </p>
      </div>
      <RuledEdge hours={clock.hours} nowShare={clock.nowShare} />
    </header>
  );
}
