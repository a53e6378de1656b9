import { useState } from 'react';
import {
  formatSteps,
  parseSteps,
  unitOf,
  type ParsedSteps,
  type ReadAs,
  type Reading,
  type StepId,
} from '@lauta/core/units';
import { Field } from './Field.tsx';

const EXAMPLES: Record<ReturnType<typeof unitOf>, string> = {
  in: '12 or 12¼',
  cm: '43.5',
  mm: '431',
  lb: '3-4 or 3.25',
  kg: '1.47',
};

/** What a typed size is refused for, in the trade's words. */
export function sizeRefusal(parsed: ParsedSteps, step: StepId): string | undefined {
  if (parsed.ok) return undefined;
  switch (parsed.code) {
    case 'off-step':
      return 'between two steps';
    case 'too-long':
      return 'longer than any board';
    case 'too-heavy':
      return 'heavier than any fish';
    case 'other-kind':
      return unitOf(step) === 'lb' || unitOf(step) === 'kg' ? 'a weight is wanted' : 'a length is wanted';
    case 'ambiguous':
      return 'how is this meant?';
    default:
      return `as ${EXAMPLES[unitOf(step)]}`;
  }
}

const AS_WORDS: Record<ReadAs, string> = {
  length: 'converted',
  'pounds-and-ounces': 'pounds and ounces',
  pounds: 'decimal pounds',
  ounces: 'ounces',
  kilograms: 'kilograms',
  grams: 'grams',
};

/** A length or a weight as the trade writes it; empty for none. What can be meant in two ways is asked about. */
export function SizeField({
  label,
  steps,
  step,
  onSteps,
  hint,
  placeholder = 'none',
  error,
}: {
  label: string;
  steps: number | null;
  step: StepId;
  onSteps: (steps: number | null) => void;
  hint?: string;
  placeholder?: string;
  /** What the form has to say of it; what was typed comes first. */
  error?: string | undefined;
}) {
  const [text, setText] = useState(steps === null ? '' : formatSteps(steps, step));
  const parsed = text.trim() === '' ? null : parseSteps(text, step);
  const put = (next: string): void => {
    setText(next);
    const read = next.trim() === '' ? { ok: true as const, steps: null } : parseSteps(next, step);
    if (read.ok) onSteps(read.steps);
  };
  const choose = (reading: Reading): void => put(formatSteps(reading.steps, step));
  return (
    <div>
      <Field
        label={label}
        error={(parsed ? sizeRefusal(parsed, step) : undefined) ?? error}
        {...(hint === undefined ? {} : { hint })}
      >
        {(field) => (
          <input
            {...field}
            className="input num h-12 w-full"
            value={text}
            placeholder={placeholder}
            onChange={(e) => put(e.target.value)}
          />
        )}
      </Field>
      {parsed && !parsed.ok && parsed.code === 'ambiguous' && (
        <div className="mt-1 flex flex-wrap gap-1">
          {parsed.readings.map((reading) => (
            <button key={reading.as} type="button" className="btn h-11" onClick={() => choose(reading)}>
              {AS_WORDS[reading.as]}: {reading.isExact ? '' : 'about '}
              <b className="num">{formatSteps(reading.steps, step)}</b> {unitOf(step)}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}
