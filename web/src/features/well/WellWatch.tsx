import { Link, useLocation } from 'react-router';
import type { RuleSheet } from '@lauta/core/rules';
import { wallTimeOf } from '@lauta/core/schedule';
import { useNow } from '../../clock/appClock.ts';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { Signal } from '../../ui/Signal.tsx';
import type { Tone } from '@lauta/words/tone';
import { dayOfNow } from '../../event/dayOfNow.ts';
import { forecastOf, massesAboard, minutesLeft } from './forecast.ts';
import { usePumpTone } from './usePumpTone.ts';
import { useWellChoices } from './wellChoices.ts';
import { areLinesOut, countCarried, troublesNow } from './troublesNow.ts';
import { useWellList } from './useWell.ts';
import { troubleWords } from '@lauta/words/well';
import type { EntrantId } from '@lauta/core/ids';

/** What the well asks for on whatever page is open: one too many aboard, fish to look at, the pump. */
export function WellWatch({ entrantId, sheet }: { entrantId: EntrantId; sheet: RuleSheet }) {
  const { event } = useInEvent();
  const { pathname } = useLocation();
  const nowMs = useNow(5000).getTime();
  const dayId = dayOfNow(event, nowMs)?.dayId ?? '';
  const { well, carried } = useWellList(event, entrantId, dayId);
  const toWell = eventPath(event.eventId, 'well');
  const isToday = event.days.some((day) => day.dayId === dayId && day.date === wallTimeOf(nowMs, event.zone).local.slice(0, 10)); // prettier-ignore
  if (!isToday) return null;
  const isOver = areLinesOut(event, dayId, nowMs);
  const troubles = troublesNow(event, dayId, sheet, well, countCarried(carried), nowMs);
  const stops = troubles.filter(({ isStop }) => isStop);
  // After lines-out the fish go to the scale: what is left to do is to count them.
  const asked = troubles.filter(({ kind }) => kind === (isOver ? 'not-counted' : 'unlooked'));
  // The well's own page says these itself, large; the pump's page its own.
  const isOnWell = pathname === toWell;
  return (
    <div role="status" className="empty:hidden">
      {!isOnWell && stops.length > 0 && (
        <div className="bg-error text-error-content -mx-4 -mt-5 mb-5 flex flex-wrap items-center justify-between gap-x-6 px-4 py-1 sm:-mx-7 sm:px-7">
          {stops.map((trouble) => (
            <b key={JSON.stringify(trouble)} className="text-xl leading-tight">
              {troubleWords(trouble, well, sheet)}
            </b>
          ))}
          <Link className="inline-flex min-h-12 items-center font-bold underline" to={toWell}>
            To the well
          </Link>
        </div>
      )}
      {!isOnWell &&
        stops.length === 0 &&
        asked.map((trouble) => (
          <Asked key={trouble.kind} tone="look" to={toWell} place="To the well">
            {troubleWords(trouble, well, sheet)}
          </Asked>
        ))}
      {!pathname.startsWith(`${toWell}/`) && (
        <PumpWatch masses={massesAboard(well)} nowMs={nowMs} to={`${toWell}/water`} />
      )}
    </div>
  );
}

function PumpWatch({ masses, nowMs, to }: { masses: readonly number[]; nowMs: number; to: string }) {
  const choices = useWellChoices();
  const isOff = choices.pumpOffAtMs !== null;
  const left = isOff ? minutesLeft(choices, forecastOf(choices, masses), nowMs) : null;
  usePumpTone(left);
  if (left === null) return null;
  return (
    <Asked tone={left <= 0 ? 'fault' : 'look'} to={to} place="To the pump">
      {left <= 0 ? 'Pump on now.' : `The pump is off: ${Math.floor(left)} min left at the most use.`}
    </Asked>
  );
}

function Asked({ tone, to, place, children }: { tone: Tone; to: string; place: string; children: string }) {
  return (
    <p className="border-base-300 -mt-3 mb-4 flex min-h-12 flex-wrap items-center gap-x-4 border-b">
      <Signal tone={tone}>{children}</Signal>
      <Link className="linklike inline-flex min-h-12 items-center" to={to}>
        {place}
      </Link>
    </p>
  );
}
