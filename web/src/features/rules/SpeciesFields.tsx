import type { RuleSheet, Slot, SpeciesRule } from '@lauta/core/rules';
import { Field } from '../../ui/Field.tsx';
import { SizeField } from '../../ui/SizeField.tsx';
import type { Change } from './change.ts';
import { issueAt, type SheetIssues } from './sheetIssues.ts';

const keyOf = (name: string): string =>
  name
    .trim()
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40);

/** A name that makes no key is no name. */
const nameIssue = (issues: SheetIssues, i: number): string | undefined =>
  issueAt(issues, `species.${i}.name`) ?? issueAt(issues, `species.${i}.id`);

export function SpeciesFields({
  sheet,
  issues,
  change,
  keptIds,
}: {
  sheet: RuleSheet;
  issues: SheetIssues;
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
          <Field label="Name" error={nameIssue(issues, i)}>
            {(field) => (
              <input
                {...field}
                className="input h-12 w-full"
                value={species.name}
                onChange={(e) => rename(i, e.target.value)}
              />
            )}
          </Field>
          {sheet.measure.kind === 'length' ? (
            <SizeField
              key={sheet.measure.step}
              label="Minimum length"
              steps={species.minimumSteps}
              step={sheet.measure.step}
              onSteps={(minimumSteps) => set(i, { minimumSteps })}
              error={issueAt(issues, `species.${i}.minimumSteps`)}
            />
          ) : (
            <span />
          )}
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
          <KeepFields
            species={species}
            isByWeight={sheet.measure.kind === 'weight'}
            set={(part) => set(i, part)}
            issueOf={(field) => issueAt(issues, `species.${i}.${field}`)}
          />
        </div>
      ))}
      {issues.has('species') && (
        <p role="alert" className="text-error text-sm font-semibold">
          {issues.get('species')}
        </p>
      )}
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

/** How long a kind must be, how many may be kept, and its slot: the same units as the boards of the trade, quarter inches. */
function KeepFields({
  species,
  isByWeight,
  set,
  issueOf,
}: {
  species: SpeciesRule;
  isByWeight: boolean;
  set: (part: Partial<SpeciesRule>) => void;
  issueOf: (field: string) => string | undefined;
}) {
  const slot = species.slot ?? null;
  const step = slot?.step ?? species.minimumLength?.step ?? 'quarter-inch';
  const setSlot = (part: Partial<Slot> | null): void =>
    set({
      slot:
        part === null
          ? undefined
          : { step, fromSteps: 0, underSteps: 0, allowed: 0, ...species.slot, ...part },
    });
  return (
    <div className="col-span-full grid grid-cols-2 gap-2 pl-4 sm:grid-cols-4">
      {isByWeight && (
        <SizeField
          label="Minimum length, in"
          steps={species.minimumLength?.steps ?? null}
          step={step}
          onSteps={(steps) => set({ minimumLength: steps === null ? undefined : { step, steps } })}
        />
      )}
      <CountField
        label="At most"
        value={species.limit ?? null}
        onValue={(limit) => set({ limit: limit ?? undefined })}
        error={issueOf('limit')}
      />
      <SizeField
        label="Slot from, in"
        steps={slot?.fromSteps ?? null}
        step={step}
        onSteps={(fromSteps) => setSlot(fromSteps === null ? null : { fromSteps })}
      />
      {slot && (
        <>
          <SizeField
            label="to under, in"
            steps={slot.underSteps}
            step={step}
            onSteps={(underSteps) => setSlot({ underSteps: underSteps ?? 0 })}
            error={issueOf('slot')}
          />
          <CountField
            label="limit in the slot"
            value={slot.allowed}
            onValue={(allowed) => setSlot({ allowed: allowed ?? 0 })}
            error={issueOf('slot.allowed')}
          />
        </>
      )}
    </div>
  );
}

function CountField({
  label,
  value,
  onValue,
  error,
}: {
  label: string;
  value: number | null;
  onValue: (value: number | null) => void;
  error?: string | undefined;
}) {
  return (
    <Field label={label} error={error}>
      {(field) => (
        <input
          {...field}
          type="number"
          min={0}
          max={50}
          className="input h-12 w-full"
          placeholder="bag limit"
          value={value ?? ''}
          onChange={(e) => onValue(e.target.value === '' ? null : Number(e.target.value))}
        />
      )}
    </Field>
  );
}
