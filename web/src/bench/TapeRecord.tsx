import type { CatchView } from '@lauta/contract';
import type { LengthMeasure } from '@lauta/core/rules';
import type { TapeReading } from '@lauta/core/tape';
import { LENGTH_STEPS, formatMeasured } from '@lauta/core/units';
import { Signal } from '../ui/Signal.tsx';

/** The evidence of a catch that was measured with a tape: every reading with its photograph. */
export function TapeRecord({
  caught,
  reading,
  measure,
}: {
  caught: CatchView;
  reading: TapeReading;
  measure: LengthMeasure;
}) {
  const { unit } = LENGTH_STEPS[measure.step];
  return (
    <section aria-label="Measured with a tape" className="grid content-start gap-3">
      <p>
        Two readings that agree, less <b className="num">{formatMeasured(reading.gripOffsetMm, unit)}</b>{' '}
        {unit} from the grip to the nose:{' '}
        <b className="num text-2xl">{formatMeasured(reading.apparentMm, unit)}</b> {unit}
      </p>
      <ol className="grid gap-3 sm:grid-cols-2">
        {reading.marks.map(({ tapeMm, photographId }, i) => (
          <li key={`${i} ${photographId}`} className="grid gap-1">
            <a href={`/api/photographs/${photographId}/screen`} target="_blank" rel="noreferrer">
              <img
                src={`/api/photographs/${photographId}/${caught.mayJudge || caught.isOwn ? 'screen' : 'thumb'}`}
                alt={`Reading ${i + 1}`}
                className="border-base-300 max-h-[40vh] w-full border object-contain"
              />
            </a>
            <p className="flex items-baseline justify-between gap-3">
              <span>
                reading {i + 1}:{' '}
                <b className="num">
                  {formatMeasured(tapeMm, unit)} {unit}
                </b>
              </span>
              {reading.taken.includes(i) && <Signal tone="clear">taken</Signal>}
            </p>
          </li>
        ))}
      </ol>
    </section>
  );
}
