import { linesOutOfDay } from '@lauta/core/schedule';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { isWeightSheet, versionInForce, type WeightSheet } from '@lauta/core/rules';
import { formatSteps, unitOf } from '@lauta/core/units';
import {
  doubledNumbers,
  scoreTicket,
  ticketState,
  type Ticket,
  type WeighIn,
  type WeighInAct,
  type WeighInEntry,
  type WeighInRefusal,
} from '@lauta/core/weigh-in';
import type { WeighInView } from '@lauta/contract';
import { useNow } from '../../clock/appClock.ts';
import { useInEvent } from '../../event/inEvent.ts';
import { hasFailed } from '../../ui/hasFailed.ts';
import { Signal } from '../../ui/Signal.tsx';
import { z } from 'zod';
import { jsonOf, readStored, writeStored, type Preference } from '../../device/stored.ts';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { useWho } from '../../session/who.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { useRules, type Published } from '../../queries/event.ts';
import { OutboxPanel } from '../../outbox/OutboxPanel.tsx';
import { dayOfNow, sessionTimes } from '../../event/dayOfNow.ts';
import { BagStation } from './BagStation.tsx';
import { ScaleInUse } from './ScaleInUse.tsx';
import { nextNumber, useBags, useWeighIn } from '../../outbox/useWeighIn.ts';
import { REFUSAL_WORDS, STATE_WORDS, actWords } from '@lauta/words/weighIn';
import { countWords } from '@lauta/words/count';
import type { AccountId, DayId, EntrantId, TicketId } from '@lauta/core/ids';

/** The scale's station for its officials; numbers and calls for everybody else. */
export function WeighInPage() {
  const { event, place } = useInEvent();
  const rules = useRules(event.eventId);
  const who = useWho();
  if (hasFailed(rules)) return <Failed error={rules.error} retry={() => void rules.refetch()} />;
  if (rules.isPending || who.isPending) return <Loading what="Fetching the rules" />;
  const sheet = rules.data.at(-1)?.sheet;
  if (!sheet)
    return (
      <Empty title="No rule sheet yet">The director publishes it; then there is something to weigh by.</Empty>
    );
  if (!isWeightSheet(sheet))
    return <Empty title="Length counts in this event">Nothing is weighed in here.</Empty>;
  const isOfficial = place.may('weigh');
  const accountId = who.data?.account?.accountId;
  return isOfficial && accountId ? (
    <Station sheet={sheet} published={rules.data} accountId={accountId} />
  ) : (
    <Calls />
  );
}

/** Which of the event's scales stands at this device. */
const SCALE: Preference<string | null> = {
  key: 'lauta-weigh-in-scale',
  parse: (text) => z.string().nullable().catch(null).parse(jsonOf(text)),
};
const TARE_G: Preference<number> = {
  key: 'lauta-bag-tare',
  parse: (text) => z.number().min(0).lt(5000).catch(0).parse(jsonOf(text)),
};

/** The sheet by which a bag is scored: the version that was in force when it arrived. */
function sheetAt(published: readonly Published[], arrivedAtMs: number, current: WeightSheet): WeightSheet {
  const version = versionInForce(
    published.map((one) => ({ version: one.version, publishedAtMs: Date.parse(one.publishedAt) })),
    arrivedAtMs,
  );
  const sheet = published.find((one) => one.version === version)?.sheet;
  return sheet && isWeightSheet(sheet) ? sheet : current;
}

function Station({
  sheet: current,
  published,
  accountId,
}: {
  sheet: WeightSheet;
  published: readonly Published[];
  accountId: AccountId;
}) {
  const { event } = useInEvent();
  const now = useNow(10_000);
  const today = dayOfNow(event, now.getTime());
  const [dayId, setDay] = useState(today?.dayId ?? '');
  const { view, onPage } = useWeighIn(event.eventId, current, accountId);
  const station = useStation();
  // In the address, so that the browser's way back leads to the bag before and not off the page.
  const [params, setParams] = useSearchParams();
  const chosenId = params.get('bag');
  const setChosen = (ticketId: TicketId | null): void =>
    setParams(ticketId === null ? {} : { bag: ticketId });
  const [refusal, setRefusal] = useState<WeighInRefusal | null>(null);
  if (hasFailed(view)) return <Failed error={view.error} retry={() => void view.refetch()} />;
  if (view.isPending) return <Loading what="Opening the weigh-in" />;
  const { weighIn, enter, entries } = onPage;
  const tickets = weighIn.tickets.filter((ticket) => ticket.dayId === dayId);
  const doubled = doubledNumbers(tickets, dayId);
  const act = (acts: readonly WeighInAct[]): boolean => {
    const why = enter(acts);
    setRefusal(why);
    return why === null;
  };
  const scaleId = station.scaleIn(weighIn.scales);
  const chosen = tickets.find(({ ticketId }) => ticketId === chosenId) ?? firstOpen(current, tickets);
  const sheet = chosen ? sheetAt(published, chosen.arrivedAtMs, current) : current;
  const linesOutMs = linesOutOfDay(sessionTimes(event), dayId);
  const nameOf = (entrantId: EntrantId): string =>
    view.data.entrants.find((one) => one.entrantId === entrantId)?.name ?? '';
  const last = lastUndoable(entries, weighIn, chosen, accountId);
  return (
    <div className="grid gap-6">
      <StationHead
        dayId={dayId}
        onDay={(next) => {
          setDay(next);
          setChosen(null);
        }}
        sheet={current}
        tickets={tickets}
      />
      <div className="grid items-start gap-8 xl:grid-cols-[22rem_1fr]">
        <Queue
          view={view.data}
          sheetOf={({ arrivedAtMs }) => sheetAt(published, arrivedAtMs, current)}
          tickets={tickets}
          chosenId={chosen?.ticketId ?? null}
          linesOutMs={linesOutMs}
          onChoose={(ticketId) => {
            setChosen(ticketId);
            setRefusal(null);
          }}
          onQueue={(entrantId) => {
            const ticketId = uuidv7();
            act([{ kind: 'queued', ticketId, entrantId, dayId, number: nextNumber(weighIn, dayId) }]);
          }}
        />
        <div className="grid gap-3">
          <EntryNotes contradictions={weighIn.contradictions.length} doubled={doubled} />
          <ProblemNote error={onPage.error} />
          {chosen ? (
            <BagStation
              key={`${chosen.ticketId} ${ticketState(sheet, chosen)} ${chosen.weight?.entryId ?? ''}`}
              eventId={event.eventId}
              zone={event.zone}
              sheet={sheet}
              ticket={chosen}
              name={nameOf(chosen.entrantId)}
              declared={view.data.declared.find((one) => one.entrantId === chosen.entrantId && one.dayId === dayId)?.count ?? null} // prettier-ignore
              linesOutMs={linesOutMs}
              accountId={accountId}
              people={view.data.people}
              scaleId={scaleId}
              scale={scaleId === null ? undefined : weighIn.scales.get(scaleId)}
              nowMs={now.getTime()}
              bagTareG={station.tareG}
              onBagTare={station.setTare}
              onActs={act}
              onNext={() => setChosen(null)}
            />
          ) : (
            <Empty title={tickets.length === 0 ? 'No bag yet' : 'Every bag is done'}>
              Choose a boat from the list when its bag arrives: it gets the next number.
            </Empty>
          )}
          {/* Next to what was tapped: on a phone the page's head is out of sight. */}
          <div role="alert">{refusal && <Signal tone="fault">{REFUSAL_WORDS[refusal]}</Signal>}</div>
          {last && (
            <button
              type="button"
              className="btn h-12 justify-self-start"
              onClick={() => act([{ kind: 'undone', entryId: last.entryId }])}
            >
              Undo: {actWords(last.act)}
            </button>
          )}
          <ScaleInUse
            weighIn={weighIn}
            entries={entries}
            sheet={sheet}
            scaleId={scaleId}
            nowMs={now.getTime()}
            onScale={station.takeScale}
            onActs={act}
          />
          <OutboxPanel />
        </div>
      </div>
    </div>
  );
}

/** What stands at this device from bag to bag: its scale and the bag’s tare. */
function useStation() {
  const [ownScaleId, setOwnScale] = useState(() => readStored(SCALE));
  const [tareG, setTare] = useState(() => readStored(TARE_G));
  return {
    tareG,
    setTare: (massG: number): void => {
      setTare(massG);
      writeStored(TARE_G, massG);
    },
    takeScale: (id: string): void => {
      setOwnScale(id);
      writeStored(SCALE, id);
    },
    scaleIn: (scales: WeighIn['scales']): string | null =>
      ownScaleId !== null && scales.has(ownScaleId) ? ownScaleId : onlyOne(scales),
  };
}

/** The last thing that this official did to a bag and can take back; a signed bag’s figures are corrected instead. */
function lastUndoable(
  entries: readonly WeighInEntry[],
  { undone }: WeighIn,
  chosen: Ticket | null,
  accountId: AccountId,
): WeighInEntry | undefined {
  const isSigned = chosen !== null && Object.keys(chosen.signatures).length > 0;
  return entries.findLast(
    ({ act, entryId, accountId: by }) =>
      !(isSigned && 'reason' in act) &&
      act.kind !== 'undone' &&
      !undone.has(entryId) &&
      by === accountId &&
      'ticketId' in act &&
      act.ticketId === chosen?.ticketId,
  );
}

function StationHead({
  dayId,
  onDay,
  sheet,
  tickets,
}: {
  dayId: DayId;
  onDay: (dayId: DayId) => void;
  sheet: WeightSheet;
  tickets: readonly Ticket[];
}) {
  const { event } = useInEvent();
  return (
    <div className="flex flex-wrap items-end justify-between gap-3">
      <h1>Weigh-in</h1>
      <div className="flex flex-wrap items-end gap-2">
        {event.days.length > 1 && (
          <select
            aria-label="Day"
            className="select h-12 w-32"
            value={dayId}
            onChange={(e) => onDay(e.target.value)}
          >
            {event.days.map((day) => (
              <option key={day.dayId} value={day.dayId}>
                Day {day.seq}
              </option>
            ))}
          </select>
        )}
        <Report sheet={sheet} tickets={tickets} />
      </div>
    </div>
  );
}

/** What two stations told otherwise of the same bags. */
function EntryNotes({ contradictions, doubled }: { contradictions: number; doubled: readonly number[] }) {
  return (
    <>
      {contradictions > 0 && (
        <Signal tone="look">
          {contradictions} of the entries do not fit the list: kept, without effect. Two stations may have
          told of the same bag.
        </Signal>
      )}
      {doubled.length > 0 && (
        <Signal tone="look">
          {doubled.length === 1 ? `Number ${doubled[0] ?? ''} was` : `Numbers ${doubled.join(', ')} were`}{' '}
          given to two bags by two stations: call them by their boats’ names.
        </Signal>
      )}
    </>
  );
}

const onlyOne = (scales: WeighIn['scales']): string | null =>
  scales.size === 1 ? ([...scales.keys()][0] ?? null) : null;

/** The bag to go on with: the first that is not yet in a tank and does not wait for somebody else. */
function firstOpen(sheet: WeightSheet, tickets: readonly Ticket[]): Ticket | null {
  const open = tickets.filter((ticket) => ticket.released === null);
  return open.find((ticket) => ticketState(sheet, ticket) !== 'weighed') ?? open[0] ?? null;
}

function Queue({
  view,
  sheetOf,
  tickets,
  chosenId,
  linesOutMs,
  onChoose,
  onQueue,
}: {
  view: WeighInView;
  sheetOf: (ticket: Ticket) => WeightSheet;
  tickets: readonly Ticket[];
  chosenId: string | null;
  linesOutMs: number;
  onChoose: (ticketId: TicketId) => void;
  onQueue: (entrantId: EntrantId) => void;
}) {
  const [search, setSearch] = useState('');
  const queued = new Set(tickets.map(({ entrantId }) => entrantId));
  const wanted = search.trim().toLowerCase();
  const missing = view.entrants.filter(
    ({ entrantId, name, number }) =>
      !queued.has(entrantId) &&
      (wanted === '' || name.toLowerCase().includes(wanted) || String(number) === wanted),
  );
  const names = new Map(view.entrants.map((one) => [one.entrantId, one.name]));
  return (
    <div className="grid gap-4">
      <section aria-labelledby="queue">
        <h2 id="queue">Queue</h2>
        {tickets.length === 0 && <p className="text-quiet">Empty.</p>}
        <ol className="ruled border-base-300 border-y">
          {tickets.map((ticket) => {
            const sheet = sheetOf(ticket);
            const { step } = sheet.measure;
            const state = ticketState(sheet, ticket);
            const score = scoreTicket(sheet, ticket, linesOutMs);
            return (
              <li key={ticket.ticketId}>
                <button
                  type="button"
                  aria-current={ticket.ticketId === chosenId}
                  className={`grid min-h-12 w-full cursor-pointer grid-cols-[2rem_1fr_auto] items-center gap-x-2 py-1 text-left ${ticket.ticketId === chosenId ? 'bg-base-200 font-bold' : ''}`}
                  onClick={() => onChoose(ticket.ticketId)}
                >
                  <span className="num text-lg">{ticket.number}</span>
                  <span className="min-w-0 truncate">{names.get(ticket.entrantId)}</span>
                  {ticket.weight ? (
                    <span className="num">
                      {formatSteps(score.totalSteps, step)}{' '}
                      {state !== 'signed' && <span aria-hidden="true">◆</span>}
                    </span>
                  ) : (
                    <span className="text-quiet text-sm">{STATE_WORDS[state]}</span>
                  )}
                </button>
              </li>
            );
          })}
        </ol>
      </section>
      <section aria-labelledby="arrives">
        <h2 id="arrives">A bag arrives</h2>
        <input
          type="search"
          aria-label="Find a boat by name or number"
          placeholder="name or number"
          className="input my-1 h-12 w-full"
          value={search}
          onChange={(e) => setSearch(e.target.value)}
          onKeyDown={(e) => {
            const [only, ...others] = missing;
            if (e.key !== 'Enter' || !only || others.length > 0) return;
            onQueue(only.entrantId);
            setSearch('');
          }}
        />
        <ul className="max-h-96 overflow-y-auto">
          {missing.map(({ entrantId, number, name }) => (
            <li key={entrantId}>
              <button
                type="button"
                className="hover:bg-base-200 flex min-h-12 w-full cursor-pointer items-center gap-2 text-left"
                onClick={() => {
                  onQueue(entrantId);
                  setSearch('');
                }}
              >
                <span className="num text-quiet w-8 text-right">{number}</span> {name}
              </button>
            </li>
          ))}
          {missing.length === 0 && (
            <li className="text-quiet">
              {wanted === '' ? 'Every boat has its number.' : 'No boat of that name without a number.'}
            </li>
          )}
        </ul>
      </section>
    </div>
  );
}

/** What the day's bags come to, for the report. */
function Report({ sheet, tickets }: { sheet: WeightSheet; tickets: readonly Ticket[] }) {
  const sum = (of: (ticket: Ticket) => number): number => tickets.reduce((total, one) => total + of(one), 0);
  const total = sum((ticket) => scoreTicket(sheet, ticket, Infinity).netSteps ?? 0);
  const fish = sum(({ check }) => (check ? check.alive + check.dead : 0));
  const died = sum(({ released, check }) => released?.died ?? check?.dead ?? 0);
  return (
    <p className="num text-right text-sm">
      {countWords(tickets.length, 'bag', 'bags')}, {fish} fish, {formatSteps(total, sheet.measure.step)}{' '}
      {unitOf(sheet.measure.step)}
      <span className="block">{died} did not make it</span>
    </p>
  );
}

/** The queue for whoever waits for a turn. */
function Calls() {
  const { event, place } = useInEvent();
  const now = useNow(10_000);
  const bags = useBags(event.eventId, true);
  const today = dayOfNow(event, now.getTime());
  if (hasFailed(bags)) return <Failed error={bags.error} retry={() => void bags.refetch()} />;
  if (bags.isPending) return <Loading what="Asking for the queue" />;
  const own = bags.data.bags.filter(({ dayId }) => dayId === today?.dayId);
  const waiting = own.filter(({ state }) => state === 'waiting' || state === 'called');
  const calledNow = own.findLast(({ state }) => state !== 'waiting');
  return (
    <div className="grid max-w-xl gap-4">
      <h1>Weigh-in</h1>
      {own.length === 0 ? (
        <Empty title="No bag yet">Numbers appear here as the bags arrive at the scale.</Empty>
      ) : (
        <>
          <p role="status" className="text-2xl">
            {calledNow ? (
              <>
                Called: <b className="num text-5xl">{calledNow.number}</b>
              </>
            ) : (
              'Nobody is called yet.'
            )}
          </p>
          <p className="text-quiet">{waiting.length} wait.</p>
          {/* Focusable, so that a long queue can be scrolled by keyboard. */}
          <ol tabIndex={0} aria-label="Queue" className="ruled border-base-300 border-y">
            {own.map(({ ticketId, number, name, state, entrantId }) => (
              <li
                key={ticketId}
                className={`grid min-h-12 grid-cols-[2.5rem_1fr_auto] items-center gap-2 ${entrantId === place.entrantId ? 'bg-base-200 font-bold' : ''}`}
              >
                <span className="num text-lg">{number}</span>
                <span>{name}</span>
                <span className="text-quiet text-sm">{STATE_WORDS[state]}</span>
              </li>
            ))}
          </ol>
        </>
      )}
    </div>
  );
}
