import { useState } from 'react';
import { formatMass, parseMass, type MassUnit, type ReadAs } from '@lauta/core/units';
import { Field } from '../../frame/Field.tsx';

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
}: {
  label: string;
  unit: MassUnit;
  /** Null while nothing can be read. */
  onMass: (massG: number | null) => void;
  isLarge?: boolean;
}) {
  const [text, setText] = useState('');
  const parsed = text.trim() === '' ? null : parseMass(text, unit);
  const put = (next: string): void => {
    setText(next);
    const read = next.trim() === '' ? null : parseMass(next, unit);
    onMass(read?.ok ? read.massG : null);
  };
  const error =
    !parsed || parsed.ok
      ? undefined
      : parsed.code === 'too-heavy'
        ? 'heavier than any fish'
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
    </div>
  );
}
