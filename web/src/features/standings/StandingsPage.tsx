import { useDeferredValue, useState } from 'react';
import type { StandingsView } from '@lauta/contract';
import type { RuleSheet } from '@lauta/core/rules';
import type { CatchStanding, Standing, TicketStanding } from '@lauta/core/scoring';
import { formatSteps } from '@lauta/core/units';
import { clockTime } from '@lauta/words/clock';
import { useNow } from '../../clock/appClock.ts';
import { useInEvent } from '../../event/inEvent.ts';
import { Pager } from '../../ui/Pager.tsx';
import { dayAndTime } from '@lauta/words/clock';
import { Signal } from '../../ui/Signal.tsx';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { barClass } from '../../catch/FishBar.tsx';
import { INFRACTION_WORDS, STEP_WORDS } from '@lauta/words/catch';
import { useRules } from '../../queries/event.ts';
import { PENALTY_KIND_WORDS } from '@lauta/words/weighIn';
import { WhyScore } from './WhyScore.tsx';
import { WhyTickets } from './WhyTickets.tsx';
import { rulerAxis, type Axis } from './axis.ts';
import { standingsQuery, useStandings, type StandingsChoice } from '../../queries/standings.ts';
import { hasFailed } from '../../ui/hasFailed.ts';
import type { EntrantId } from '@lauta/core/ids';

export function StandingsPage() {
  const { event, place, live } = useInEvent();
  const [choice, setChoice] = useState<StandingsChoice>({ include: 'all', dayId: null, search: '', page: 1 });
  const search = useDeferredValue(choice.search);
  const asked = { ...choice, search };
  const standings = useStandings(event.eventId, asked);
  const rules = useRules(event.eventId);
  const now = useNow(10_000);
  const sheet = rules.data?.at(-1)?.sheet;
  const isByWeight = sheet?.measure.kind === 'weight';
  const change = (part: Partial<StandingsChoice>): void => setChoice({ ...choice, page: 1, ...part });
  const isAwaiting = standings.data?.standings.some((one) => one.provisionalSteps > 0) ?? false;
  return (
    <div>
      <div className="mb-2 flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <div>
          <h1>Standings</h1>
          <p className="text-quiet flex flex-wrap gap-x-3">
            {sheet && (
              <span>
                best {sheet.bagLimit}
                {sheet.bagPeriod === 'day' ? ' a day' : ''}, {STEP_WORDS[sheet.measure.step]}
              </span>
            )}
            <span className="num">{clockTime(now, event.zone)}</span>
            {live === 'lost' && <Signal tone="look">not live: no connection</Signal>}
            {isAwaiting && (
              <Signal tone="look">
                {sheet?.measure.kind === 'weight' ? 'hatched: not signed yet' : 'hatched: awaiting a judge'}
              </Signal>
            )}
          </p>
        </div>
        <div className="flex flex-wrap items-end gap-2">
          <input
            type="search"
            aria-label="Find an entrant by name or number"
            placeholder="name or number"
            className="input h-11 w-40"
            value={choice.search}
            onChange={(e) => change({ search: e.target.value })}
          />
          <select
            aria-label="Which days"
            className="select h-11 w-32"
            value={choice.dayId ?? ''}
            onChange={(e) => change({ dayId: e.target.value || null })}
          >
            <option value="">All days</option>
            {event.days.map((day) => (
              <option key={day.dayId} value={day.dayId}>
                Day {day.seq}
              </option>
            ))}
          </select>
          <select
            aria-label="Which fish"
            className="select h-11 w-44"
            value={choice.include}
            onChange={(e) => change({ include: e.target.value === 'official' ? 'official' : 'all' })}
          >
            <option value="all">{isByWeight ? 'With unsigned bags' : 'With undecided fish'}</option>
            <option value="official">{isByWeight ? 'Signed bags only' : 'Official fish only'}</option>
          </select>
          <a
            className="btn h-11"
            href={`/api/events/${event.eventId}/standings.csv?${standingsQuery(choice)}`}
            download
          >
            CSV
          </a>
        </div>
      </div>
      {event.officialAt && (
        <p>
          <Signal tone="clear">official since {dayAndTime(event.officialAt, event.zone)}</Signal>
        </p>
      )}
      {hasFailed(standings) && <Failed error={standings.error} retry={() => void standings.refetch()} />}
      {standings.isPending && <Loading what="Loading the standings" />}
      {standings.data && !standings.data.ruleVersion && (
        <Empty title="No rule sheet yet">Standings begin when the director publishes it.</Empty>
      )}
      {standings.data && sheet && standings.data.ruleVersion !== null && (
        <>
          {standings.data.standings.length === 0 ? (
            <Empty title={choice.search ? 'Nobody found' : 'No entrants yet'}>
              {choice.search
                ? 'Try a part of the name, or the number.'
                : 'They appear here as soon as the director enters them.'}
            </Empty>
          ) : (
            <Ruled view={standings.data} sheet={sheet} ownEntrantId={place.entrantId} />
          )}
          <Pager {...standings.data} onPage={(page) => setChoice({ ...choice, page })} />
        </>
      )}
    </div>
  );
}

const GRID =
  'grid grid-cols-[1.75rem_minmax(0,1fr)_4.25rem] md:grid-cols-[2rem_11.5rem_minmax(0,1fr)] gap-x-2 items-center';

function Ruled({
  view,
  sheet,
  ownEntrantId,
}: {
  view: StandingsView;
  sheet: RuleSheet;
  ownEntrantId: EntrantId | null;
}) {
  const axis = rulerAxis(view.longestSteps, sheet.measure.step);
  return (
    <div>
      <div className={`${GRID} bg-base-100 sticky top-16 z-10 max-md:hidden lg:-top-5`} aria-hidden="true">
        <span className="col-span-2" />
        <AxisRule axis={axis} />
      </div>
      <ol className="ruled border-base-300 border-b max-md:border-t">
        {view.standings.map((standing) => (
          <Row
            key={standing.entrantId}
            standing={standing}
            name={view.names[standing.entrantId] ?? ''}
            names={view.names}
            sheet={sheet}
            axis={axis}
            isOwn={standing.entrantId === ownEntrantId}
            onWater={view.onWater?.find((one) => one.entrantId === standing.entrantId) ?? null}
          />
        ))}
      </ol>
    </div>
  );
}

function AxisRule({ axis }: { axis: Axis }) {
  return (
    <div className="border-base-content relative mr-20 h-8 border-b">
      {axis.ticks.map((tick) => (
        <span key={tick.steps} className="absolute bottom-0" style={{ left: `${tick.share * 100}%` }}>
          <i
            className={`bg-base-content absolute bottom-0 left-0 w-px ${tick.label === null ? 'h-1.5' : 'h-3'}`}
          />
          {tick.label !== null && (
            <span className="num text-quiet absolute bottom-3 left-0 -translate-x-1/2 text-xs">
              {tick.label}
            </span>
          )}
        </span>
      ))}
    </div>
  );
}

interface RowProps {
  standing: Standing;
  name: string;
  names: Record<string, string>;
  sheet: RuleSheet;
  axis: Axis;
  isOwn: boolean;
  onWater: OnWater | null;
}

type OnWater = NonNullable<StandingsView['onWater']>[number];

function Row({ standing, name, names, sheet, axis, isOwn, onWater }: RowProps) {
  const [isOpen, setOpen] = useState(false);
  const { rank, score } = standing;
  const { step } = sheet.measure;
  const detailsId = `why-${standing.entrantId}`;
  return (
    <li className={isOwn ? 'bg-base-200' : ''}>
      <button
        type="button"
        aria-expanded={isOpen}
        aria-controls={detailsId}
        className={`${GRID} min-h-11 w-full cursor-pointer py-1.5 text-left`}
        onClick={() => setOpen(!isOpen)}
      >
        <span className="num text-quiet">{score.steps > 0 ? rank : '–'}</span>
        <span className="min-w-0 leading-tight">
          <b className="block truncate">{name}</b>
          <span className="flex flex-wrap gap-x-3">
            {standing.kind === 'tickets' ? (
              <TicketNotes standing={standing} sheet={sheet} onWater={onWater} />
            ) : (
              <BagNotes standing={standing} sheet={sheet} />
            )}
            {standing.tieBreak && <span className="text-quiet text-sm">by tie-break</span>}
          </span>
        </span>
        <span className="max-md:col-span-2 max-md:col-start-2 max-md:row-start-2 md:mr-20">
          <BagBar standing={standing} axis={axis} sheet={sheet} />
        </span>
        <b className="num text-right text-xl md:hidden">{formatSteps(score.steps, step)}</b>
      </button>
      {isOpen && (
        <div id={detailsId} className="pb-4 md:pl-10">
          {standing.kind === 'tickets' ? (
            <WhyTickets standing={standing} sheet={sheet} names={names} />
          ) : (
            <WhyScore standing={standing} sheet={sheet} names={names} />
          )}
        </div>
      )}
    </li>
  );
}

function BagNotes({ standing: { bag }, sheet }: { standing: CatchStanding; sheet: RuleSheet }) {
  const undecided = bag.counting.filter((fish) => fish.standing === 'provisional').length;
  const deducted = bag.counting.filter((fish) => fish.deductionSteps > 0);
  return (
    <>
      {deducted.map((fish) => (
        <Signal key={fish.catchId} tone="fault">
          {formatSteps(-fish.deductionSteps, sheet.measure.step)}{' '}
          {fish.infractions.map((one) => INFRACTION_WORDS[one]).join(', ')}
        </Signal>
      ))}
      {undecided > 0 && <Signal tone="look">{undecided} undecided</Signal>}
      {bag.counting.length > 0 && bag.counting.length < sheet.bagLimit && (
        <span className="text-quiet text-sm">
          {bag.counting.length} of {sheet.bagLimit}
        </span>
      )}
    </>
  );
}

function TicketNotes({
  standing: { tickets },
  sheet,
  onWater,
}: {
  standing: TicketStanding;
  sheet: RuleSheet;
  onWater: OnWater | null;
}) {
  const open = tickets.filter(({ state }) => state !== 'signed').length;
  return (
    <>
      {tickets.flatMap(({ ticketId, score }) =>
        score.penalties.map(({ kind, count, steps, disqualifies }) => (
          <Signal key={`${ticketId} ${kind}`} tone="fault">
            {disqualifies ? 'no bag' : formatSteps(-steps, sheet.measure.step)}{' '}
            {PENALTY_KIND_WORDS[kind](count)}
          </Signal>
        )),
      )}
      {onWater && (
        <span className="text-quiet text-sm">
          on the water {formatSteps(onWater.steps, sheet.measure.step)}, {onWater.fish} fish, unofficial
        </span>
      )}
      {open > 0 && <Signal tone="look">{open === 1 ? 'a bag' : `${open} bags`} not signed</Signal>}
    </>
  );
}

/** Parts of a total that are drawn end to end: fish, or the days' bags where weight counts. */
function partsOf(standing: Standing): { id: string; steps: number; isProvisional: boolean }[] {
  return standing.kind === 'tickets'
    ? standing.tickets.map(({ ticketId, score, state }) => ({
        id: ticketId,
        steps: score.totalSteps,
        isProvisional: state !== 'signed',
      }))
    : standing.bag.counting.map((fish) => ({
        id: fish.catchId,
        steps: fish.scoreSteps,
        isProvisional: fish.standing === 'provisional',
      }));
}

/** The bag laid end to end from the stop, to the scale of the axis. */
function BagBar({ standing, axis, sheet }: { standing: Standing; axis: Axis; sheet: RuleSheet }) {
  const { step } = sheet.measure;
  return (
    <span className="relative flex h-7 w-full items-stretch" aria-hidden="true">
      <i className="bg-stop -ml-1 w-1 flex-none" />
      {partsOf(standing).map(({ id, steps, isProvisional }, i) => (
        <span
          key={id}
          className={`num border-base-100 flex items-center overflow-hidden border-r pl-1.5 text-sm ${
            isProvisional ? barClass(true) : i % 2 === 0 ? 'bg-fish' : 'bg-fish-other'
          }`}
          style={{ width: `${(steps / axis.endSteps) * 100}%` }}
        >
          {formatSteps(steps, step)}
        </span>
      ))}
      <b
        className="num absolute inset-y-0 flex items-center pl-3 text-xl whitespace-nowrap max-md:hidden"
        style={{ left: `${(standing.score.steps / axis.endSteps) * 100}%` }}
      >
        {formatSteps(standing.score.steps, step)}
      </b>
    </span>
  );
}
