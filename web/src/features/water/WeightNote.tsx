import { GUESS_WITHIN, judgeWeight, weightRange } from '@lauta/core/weight';
import type { LengthUnit } from '@lauta/core/units';
import { Signal } from '../../ui/Signal.tsx';
import { massWords } from '@lauta/words/care';

/** What a fish of this kind and length usually weighs, and whether the guess made while it pulled fits that. */
export function WeightNote({
  speciesName,
  lengthMm,
  guessedMassG,
  unit,
}: {
  speciesName: string;
  lengthMm: number;
  guessedMassG: number | null;
  /** The event's: pounds go with inches. */
  unit: LengthUnit;
}) {
  const range = weightRange(speciesName, lengthMm);
  if (!range) return null;
  const fit = guessedMassG === null ? 'fits' : judgeWeight(range, guessedMassG, GUESS_WITHIN);
  return (
    <div className="text-sm">
      <p className="text-quiet">
        So long, it usually weighs about <b className="num">{massWords(range.usualG, unit)}</b>.
      </p>
      {guessedMassG !== null && fit !== 'fits' && (
        <p>
          <Signal tone="look">you guessed {massWords(guessedMassG, unit)}</Signal> Are kind and length right?
        </p>
      )}
    </div>
  );
}
