import { useState } from 'react';
import type { RuleSheet } from '@lauta/core/rules';
import { formatSteps, parseSteps, type LengthStepId } from '@lauta/core/units';
import { Field } from '../../frame/Field.tsx';
import type { Change } from './change.ts';

const keyOf = (name: string): string =>
  name
    .trim()
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40);

export function SpeciesFields({
  sheet,
  change,
  keptIds,
}: {
  sheet: RuleSheet;
  change: Change;
  keptIds: readonly string[];
}) {
  const set = (i: number, part: Partial<RuleSheet['species'][number]>): void =>
    change({ species: sheet.species.map((one, k) => (k === i ? { ...one, ...part } : one)) });
  // A species that fish were claimed as keeps its id under whatever name.
  const rename = (i: number, name: string): void =>
    set(i, { name, ...(keptIds.includes(sheet.species[i]?.id ?? '') ? {} : { id: keyOf(name) }) });
  return (
    <fieldset className="grid gap-2">
      <legend className="font-semibold">Species</legend>
      {sheet.species.map((species, i) => (
        <div key={i} className="grid grid-cols-2 items-end gap-2 sm:grid-cols-[1fr_8rem_6rem_auto]">
          <Field label="Name">
            {(field) => (
              <input
                {...field}
                className="input h-12 w-full"
                value={species.name}
                onChange={(e) => rename(i, e.target.value)}
              />
            )}
          </Field>
          <LengthField
            key={sheet.measure.step}
            label="Least length"
            steps={species.minimumSteps}
            step={sheet.measure.step}
            onSteps={(minimumSteps) => set(i, { minimumSteps })}
          />
          <label className="flex h-12 items-center gap-2">
            <input
              type="checkbox"
              className="checkbox"
              checked={species.counts}
              onChange={(e) => set(i, { counts: e.target.checked })}
            />{' '}
            counts
          </label>
          <button
            type="button"
            className="btn h-12"
            disabled={sheet.species.length === 1}
            onClick={() => change({ species: sheet.species.filter((_, k) => k !== i) })}
          >
            Remove
          </button>
        </div>
      ))}
      <button
        type="button"
        className="btn justify-self-start"
        onClick={() =>
          change({ species: [...sheet.species, { id: '', name: '', minimumSteps: null, counts: true }] })
        }
      >
        Another species
      </button>
    </fieldset>
  );
}

/** A length as the trade writes it; empty for none. What does not fit the step is said at once. */
function LengthField({
  label,
  steps,
  step,
  onSteps,
}: {
  label: string;
  steps: number | null;
  step: LengthStepId;
  onSteps: (steps: number | null) => void;
}) {
  const [text, setText] = useState(steps === null ? '' : formatSteps(steps, step));
  const parsed = text.trim() === '' ? { ok: true as const, steps: null } : parseSteps(text, step);
  const error = parsed.ok ? undefined : parsed.code === 'off-step' ? 'between two steps' : 'as 12 or 12¼';
  return (
    <Field label={label} error={error}>
      {(field) => (
        <input
          {...field}
          className="input num h-12 w-full"
          value={text}
          placeholder="none"
          onChange={(e) => {
            setText(e.target.value);
            const next =
              e.target.value.trim() === ''
                ? { ok: true as const, steps: null }
                : parseSteps(e.target.value, step);
            if (next.ok) onSteps(next.steps);
          }}
        />
      )}
    </Field>
  );
}
