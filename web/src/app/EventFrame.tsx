import { useLayoutEffect, useRef, useState } from 'react';
import { NavLink, Outlet, useLocation, useNavigationType, useParams } from 'react-router';
import type { EventView } from '@lauta/contract';
import { isWeightSheet } from '@lauta/core/rules';
import { useNow } from '../clock/appClock.ts';
import { AskedFrames } from './AskedFrames.tsx';
import { useSentBack } from '../queries/catches.ts';
import { useEvent, useRules } from '../queries/event.ts';
import { WellWatch } from '../features/well/WellWatch.tsx';
import type { LiveState } from '../live/liveChannel.ts';
import { useLive } from '../live/useLive.ts';
import { placeIn, useWho } from '../session/who.ts';
import { InEventContext, type InEvent } from '../event/inEvent.ts';
import { AccountCorner } from '../session/AccountCorner.tsx';
import { BrokenRecord } from './BrokenRecord.tsx';
import { SentBackNote } from './SentBackNote.tsx';
import { RuledEdge } from '../ui/RuledEdge.tsx';
import { dayClock } from './dayClock.ts';
import { placesFor, type ShownPlace } from './places.ts';
import { Failed, Loading } from '../ui/states.tsx';
import { hasFailed } from '../ui/hasFailed.ts';

/** Another page begins at its top, whichever of the two scrolls; the way back is left to the browser. */
function useTopOfPage() {
  const page = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  const isBack = useNavigationType() === 'POP';
  useLayoutEffect(() => {
    if (isBack) return;
    page.current?.scrollTo({ top: 0 });
    window.scrollTo({ top: 0 });
  }, [pathname, isBack]);
  return page;
}

export function EventFrame() {
  const { eventId = '' } = useParams();
  const page = useTopOfPage();
  const event = useEvent(eventId);
  const who = useWho();
  const live = useLive(eventId);
  const rules = useRules(eventId);
  const sentBack = useSentBack(eventId, placeIn(who.data, eventId).entrantId !== null);
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
  const places = placesFor({
    place,
    measure,
    sentBack: sentBack.data?.total ?? 0,
    undecided: event.data.undecided,
  });
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
      <Rail places={places} />
      <main
        ref={page}
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
      <Tabs places={places} />
    </div>
  );
}

function Rail({ places }: { places: readonly ShownPlace[] }) {
  const linksOf = (group: ShownPlace['group']) =>
    places.filter((one) => one.group === group).map((one) => <RailLink key={one.to} place={one} />);
  return (
    <nav
      aria-label="Places"
      className="border-base-300 hidden flex-col overflow-y-auto border-r py-5 lg:flex"
    >
      {linksOf('day')}
      <hr className="border-base-300 mx-6 my-3" />
      {linksOf('under')}
      <div className="mt-auto px-5">
        <AccountCorner />
      </div>
    </nav>
  );
}

/** On a phone: three places at the bottom, and all others behind "More", so that none is out of reach. */
function Tabs({ places }: { places: readonly ShownPlace[] }) {
  const [isMoreOpen, setMoreOpen] = useState(false);
  const atHand = places.filter(({ isAtHand }) => isAtHand);
  const behindMore = places.filter(({ isAtHand }) => !isAtHand);
  return (
    <>
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
    </>
  );
}

function RailLink({ place }: { place: ShownPlace }) {
  return (
    <NavLink
      to={place.to}
      end={place.to === '.'}
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
