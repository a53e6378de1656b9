import type { Result } from '@lauta/core/result';
import { isTailFaint, type BoardReading, type ReadingRefusal } from '@lauta/vision';
import { stepsOutlook, type LengthMeasure } from '@lauta/core/rules';
import { formatMeasured, formatSmallLength, formatSteps, LENGTH_STEPS } from '@lauta/core/units';
import { Signal } from '../ui/Signal.tsx';
import { readingRefusalWords } from '../problem/words.ts';
import { madeWords } from './words.ts';

const CAUSES = {
  'board-fit': 'the board’s place',
  'tip-edge': 'the tail’s edge',
  'tail-height': 'the tail’s height over the face',
  distortion: 'the lens’s distortion',
} as const;

/** The length as read, what it rounds to under the sheet, and how sure that is. */
export function ReadingFigure({
  reading,
  measure,
}: {
  reading: Result<BoardReading, ReadingRefusal> | null;
  measure: LengthMeasure;
}) {
  if (!reading) return <p className="text-quiet">reading …</p>;
  if (!reading.ok) {
    return (
      <div role="status">
        <Signal tone="fault">not readable</Signal>
        <p className="mt-1">{readingRefusalWords(reading.code)}</p>
      </div>
    );
  }
  return <ReadFigure reading={reading.value} measure={measure} />;
}

function ReadFigure({ reading, measure }: { reading: BoardReading; measure: LengthMeasure }) {
  const { unit } = LENGTH_STEPS[measure.step];
  const outlook = stepsOutlook(measure, reading.apparentMm, reading.sigmaMm);
  const reached = formatSteps(outlook.steps, measure.step);
  const next = formatSteps(outlook.steps + 1, measure.step);
  return (
    <div>
      <p className="text-quiet">reads, from the stop</p>
      <p role="status" aria-live="polite">
        <span className="num text-5xl font-bold sm:text-6xl">{formatMeasured(reading.apparentMm, unit)}</span>{' '}
        <span className="num text-quiet text-lg">
          {unit} ± {formatMeasured(reading.sigmaMm, unit)}
        </span>
      </p>
      {isTailFaint(reading.budget) && (
        <div className="mt-1">
          <Signal tone="look">tail hardly seen</Signal>
          <p>Its end hardly stands out from the board: put the tail’s mark on it yourself.</p>
        </div>
      )}
      <dl className="mt-2 grid grid-cols-[auto_1fr] items-baseline gap-x-3 gap-y-1">
        <dt>
          <Signal tone={outlook.isSafe ? 'clear' : 'look'}>{reached}</Signal>
        </dt>
        <dd>
          {outlook.isSafe
            ? 'is safe'
            : `is reached by only ${formatSmallLength(outlook.marginMm, measure.step)}`}
        </dd>
        <dt>
          <Signal tone="look">{next}</Signal>
        </dt>
        <dd>lacks {formatSmallLength(outlook.nextLacksMm, measure.step)}</dd>
      </dl>
      <details className="mt-2">
        <summary className="linklike cursor-pointer text-sm">Where the doubt comes from</summary>
        <table className="mt-1 text-sm">
          <tbody>
            {reading.budget.map(({ cause, sigmaMm }) => (
              <tr key={cause}>
                <th scope="row" className="pr-4 text-left font-normal">
                  {CAUSES[cause]}
                </th>
                <td className="num text-right">{formatSmallLength(sigmaMm, measure.step, 1)}</td>
              </tr>
            ))}
            <tr>
              <th scope="row" className="pr-4 text-left">
                together
              </th>
              <td className="num text-right">{formatSmallLength(reading.sigmaMm, measure.step, 1)}</td>
            </tr>
          </tbody>
        </table>
        <p className="text-quiet text-sm">
          Standard uncertainties. Marks {madeWords(reading)}
          {reading.tiltDeg === null
            ? '; the camera’s tilt is not known.'
            : `; camera tilted by ${reading.tiltDeg.toFixed(0)}°.`}
          {reading.lengthMm !== null &&
            ` Corrected for the tail’s height over the face: ${formatMeasured(reading.lengthMm, unit)} ${unit}.`}
        </p>
      </details>
    </div>
  );
}
