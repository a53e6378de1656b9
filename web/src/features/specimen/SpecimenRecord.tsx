import type { SpecimenView } from '@lauta/contract';
import { specimenFindings, specimenWeight } from '@lauta/core/specimen';
import type { RuleSheet } from '@lauta/core/rules';
import {
  formatMass,
  formatMeasured,
  formatSmallMass,
  LENGTH_STEPS,
  lengthStepOf,
  massUnitOf,
} from '@lauta/core/units';
import { Signal } from '../../ui/Signal.tsx';
import { HandlingRecord } from '../../care/HandlingRecord.tsx';
import { speciesName } from '@lauta/words/catch';
import { CARE_WORDS, WOUND_WORDS, findingWords } from '@lauta/words/specimen';
import { dayAndTime } from '@lauta/words/clock';

/** A record whole: weight, how it came about, photographs, wounds, and how the fish left. */
export function SpecimenRecord({
  record,
  sheet,
  zone,
  showsEntrant,
  isCorrected,
  onCorrect,
}: {
  record: SpecimenView;
  sheet: RuleSheet;
  /** IANA zone of the times. */
  zone: string;
  showsEntrant: boolean;
  /** A later record stands in its place. */
  isCorrected: boolean;
  onCorrect?: () => void;
}) {
  const { specimen, note, corrects, entrant, weighedAt, weighedHow, receivedAt } = record;
  const { weighing, care, wounds, photographs, handling, lengthMm } = specimen;
  const unit = massUnitOf(sheet.measure.step);
  const weight = specimenWeight(weighing);
  const name = speciesName(sheet, specimen.speciesId);
  const lengthUnit = LENGTH_STEPS[lengthStepOf(sheet.measure.step)].unit;
  const lines: (readonly [string, string])[] = [
    [
      'on the scale',
      `${formatMass(weighing.grossG, unit)}, ${weighedHow === 'scale' ? 'from the scale' : 'typed'}`,
    ],
    [
      'empty wet sling',
      weighing.tare.kind === 'zeroed'
        ? 'set to zero'
        : `${formatMass(weighing.tare.slingG, unit)}, stand ${formatMass(weighing.tare.standG, unit)}`,
    ],
    ['empty again', weighing.emptyAfterG === null ? 'not looked at' : formatMass(weighing.emptyAfterG, unit)],
    ...(lengthMm === null
      ? []
      : [['length', `${formatMeasured(lengthMm, lengthUnit)} ${lengthUnit}`] as const]),
    ['done', care.length === 0 ? '–' : care.map((one) => CARE_WORDS[one]).join(', ')],
    [
      'wounds',
      wounds.length === 0
        ? 'none seen'
        : wounds
            .map(({ place, isDressed }) => `${WOUND_WORDS[place]}${isDressed ? ', dressed' : ''}`)
            .join('; '),
    ],
    ...(note === '' ? [] : [['note', note] as const]),
    ...(corrects ? [['corrects an earlier record', corrects.reason] as const] : []),
  ];
  return (
    <article
      aria-label={`${name}, ${weight ? formatMass(weight.netG, unit) : ''}`}
      className={`border-base-content grid gap-3 border-t-2 pt-3 ${isCorrected ? 'text-quiet' : ''}`}
    >
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h3 className={`text-2xl ${isCorrected ? 'line-through' : ''}`}>
          <span className="num">{weight ? formatMass(weight.netG, unit) : '–'}</span>{' '}
          <span className="text-base font-normal">
            {weight && `± ${formatSmallMass(2 * weight.sigmaG, unit)} by its steps,`} {name}
          </span>
        </h3>
        <p className="text-quiet">
          {showsEntrant && `${entrant.name}, no. ${entrant.number}, `}
          {dayAndTime(weighedAt, zone)}
        </p>
      </div>
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        {receivedAt === '' && <Signal tone="look">waits on this device</Signal>}
        {isCorrected && <Signal tone="look">corrected by a later record</Signal>}
        {specimenFindings(specimen, name).map((finding) => {
          const { tone, words } = findingWords(finding, unit);
          return (
            <Signal key={finding.kind} tone={tone}>
              {words}
            </Signal>
          );
        })}
      </div>
      {photographs.length > 0 && receivedAt !== '' && (
        <ul className="flex flex-wrap gap-2" aria-label="Photographs">
          {photographs.map(({ photographId }, i) => (
            <li key={photographId}>
              <a href={`/api/photographs/${photographId}/screen`} target="_blank" rel="noreferrer">
                <img
                  src={`/api/photographs/${photographId}/thumb`}
                  alt={`${name}, photograph ${i + 1}`}
                  className="border-base-300 h-32 border object-contain"
                />
              </a>
            </li>
          ))}
        </ul>
      )}
      <div className="grid gap-4 sm:grid-cols-2">
        <dl className="ruled border-base-300 border-y text-sm">
          {lines.map(([term, value]) => (
            <div key={term} className="flex min-h-8 items-baseline justify-between gap-3 py-1">
              <dt className="text-quiet flex-none">{term}</dt>
              <dd className="text-right">{value}</dd>
            </div>
          ))}
        </dl>
        {handling && <HandlingRecord handling={handling} zone={zone} step={sheet.measure.step} />}
      </div>
      {onCorrect && !isCorrected && (
        <button type="button" className="btn h-16 justify-self-start lg:h-12" onClick={onCorrect}>
          Correct this record
        </button>
      )}
    </article>
  );
}
