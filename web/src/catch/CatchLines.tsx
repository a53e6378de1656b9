import { Link } from 'react-router';
import type { CatchSummary, EventView } from '@lauta/contract';
import type { LengthSheet } from '@lauta/core/rules';
import { formatSteps, MM_PER_INCH, unitSystemOf } from '@lauta/core/units';
import { dayAndTime } from '@lauta/words/clock';
import { Signal } from '../ui/Signal.tsx';
import { FishBar } from './FishBar.tsx';
import { MARK_WORDS, NOT_COUNTING_WORDS, STATE_WORDS, speciesName } from '@lauta/words/catch';
import type { CatchId } from '@lauta/core/ids';

/** A list of catches, each a bar from the stop over one scale. */
export function CatchLines({
  event,
  sheet,
  items,
  to,
  withEntrant = false,
}: {
  event: EventView;
  sheet: LengthSheet;
  items: readonly CatchSummary[];
  to: (catchId: CatchId) => string;
  withEntrant?: boolean;
}) {
  const { step } = sheet.measure;
  const scaleMm = unitSystemOf(step) === 'us' ? 24 * MM_PER_INCH : 600;
  return (
    <ul className="ruled border-base-300 border-y">
      {items.map((caught) => (
        <li key={caught.catchId}>
          <Link
            to={to(caught.catchId)}
            className="hover:bg-base-200 grid min-h-16 grid-cols-[4.5rem_1fr] items-center gap-x-4 gap-y-1 py-2 md:grid-cols-[4.5rem_15rem_1fr_auto]"
          >
            <img
              src={`/api/photographs/${caught.thumbId}/thumb`}
              alt=""
              loading="lazy"
              className="bg-base-200 aspect-4/3 w-18 object-cover max-md:row-span-3"
            />
            <span className="leading-tight">
              <b>{withEntrant ? caught.entrant.name : speciesName(sheet, caught.speciesId)}</b>
              <span className="text-quiet block text-sm">
                {withEntrant && `${speciesName(sheet, caught.speciesId)}, `}
                {dayAndTime(caught.capturedAt, event.zone)}
              </span>
            </span>
            <span>
              <FishBar
                steps={caught.scoreSteps}
                step={step}
                scaleMm={scaleMm}
                isProvisional={caught.state !== 'accepted'}
                isStruck={caught.notCounting !== null}
              />
              <span className="sr-only">{formatSteps(caught.scoreSteps, step)}</span>
            </span>
            <span className="flex flex-wrap gap-x-4 md:flex-col md:items-end">
              <Signal tone={STATE_WORDS[caught.state].tone}>
                {withEntrant && caught.state === 'sent-back' ? 'sent back' : STATE_WORDS[caught.state].word}
              </Signal>
              {caught.deductionSteps > 0 && (
                <span className="num text-error text-sm">{formatSteps(-caught.deductionSteps, step)}</span>
              )}
              {caught.notCounting &&
                caught.notCounting !== 'refused' &&
                caught.notCounting !== 'withdrawn' && (
                  <span className="text-quiet text-sm">{NOT_COUNTING_WORDS[caught.notCounting]}</span>
                )}
              {caught.marks.map((mark) => (
                <span key={mark} className="text-warning text-sm font-semibold">
                  {MARK_WORDS[mark]}
                </span>
              ))}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}
