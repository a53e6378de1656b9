import { useState } from 'react';
import { formatMass, parseMass, type MassUnit, type ReadAs } from '@lauta/core/units';
import { Field } from '../ui/Field.tsx';
import { ScalePanel } from './ScalePanel.tsx';

const EXAMPLE: Record<MassUnit, string> = { 'lb-oz': '3-4 or 3 lb 4', lb: '3.25', kg: '1.474' };
const AS_WORDS: Record<ReadAs, string> = {
  length: '',
  'pounds-and-ounces': 'pounds and ounces',
  pounds: 'decimal pounds',
  ounces: 'ounces',
  kilograms: 'kilograms',
  grams: 'grams',
};

/** A scale's reading as it is shown; what was read is said at once, and what can be meant in two ways is asked about. */
export function MassField({
  label,
  unit,
  onMass,
  isLarge = false,
  withScale = false,
  initialG,
}: {
  label: string;
  unit: MassUnit;
  /** Null while nothing can be read; `scale` where it was taken from a connected one. */
  onMass: (massG: number | null, from: 'typed' | 'scale') => void;
  isLarge?: boolean;
  /** Offers a connected scale beside typing. */
  withScale?: boolean;
  /** What stands there first. */
  initialG?: number;
}) {
  const [text, setText] = useState(initialG === undefined ? '' : formatMass(initialG, unit));
  const parsed = text.trim() === '' ? null : parseMass(text, unit);
  const put = (next: string): void => {
    setText(next);
    const read = next.trim() === '' ? null : parseMass(next, unit);
    onMass(read?.ok ? read.massG : null, 'typed');
  };
  const error =
    !parsed || parsed.ok
      ? undefined
      : parsed.code === 'too-heavy'
        ? 'heavier than anything weighed here'
        : parsed.code === 'ambiguous'
          ? 'how is this meant?'
          : `as ${EXAMPLE[unit]}`;
  return (
    <div>
      <Field
        label={label}
        error={error}
        hint={parsed?.ok ? `read as ${formatMass(parsed.massG, unit)}` : ' '}
      >
        {(field) => (
          <input
            {...field}
            className={`input num w-full ${isLarge ? 'h-16 text-2xl' : 'h-12'}`}
            inputMode="text"
            autoComplete="off"
            value={text}
            placeholder={EXAMPLE[unit]}
            onChange={(e) => put(e.target.value)}
          />
        )}
      </Field>
      {parsed && !parsed.ok && parsed.code === 'ambiguous' && (
        <div className="mt-1 flex flex-wrap gap-2">
          {parsed.readings.map(({ as, massG }) => (
            <button
              key={as}
              type="button"
              className="btn h-16"
              onClick={() => put(as === 'pounds-and-ounces' ? formatMass(massG, 'lb-oz') : as === 'pounds' ? `${formatMass(massG, 'lb')}` : as === 'grams' ? `${Math.round(massG)} g` : formatMass(massG, 'kg'))} // prettier-ignore
            >
              {AS_WORDS[as]}: <b className="num">{formatMass(massG, unit)}</b>
            </button>
          ))}
        </div>
      )}
      {withScale && (
        <ScalePanel
          unit={unit}
          onTake={(massG) => {
            setText(formatMass(massG, unit));
            onMass(massG, 'scale');
          }}
        />
      )}
    </div>
  );
}
