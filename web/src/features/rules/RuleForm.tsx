import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { ruleSheetSchema } from '@lauta/contract';
import { SHIPPED_BOARDS } from '@lauta/core/photo';
import { INFRACTIONS, TIE_BREAKS, type Penalty, type RuleSheet } from '@lauta/core/rules';
import { LENGTH_STEPS, formatSteps, parseSteps, type LengthStepId } from '@lauta/core/units';
import { sendCommand } from '../../door/door.ts';
import { Field } from '../../frame/Field.tsx';
import { ProblemNote } from '../../problem/ProblemNote.tsx';
import { INFRACTION_WORDS, STEP_WORDS } from '../catch/words.ts';
import { restep } from './restep.ts';

type Change = (part: Partial<RuleSheet>) => void;

/** One sheet as a form. What was typed stays when something is refused. */
export function RuleForm({
  eventId,
  initial,
  onPublished,
}: {
  eventId: string;
  initial: RuleSheet;
  onPublished: () => void;
}) {
  const [sheet, setSheet] = useState(initial);
  const [issues, setIssues] = useState<string[]>([]);
  const [error, setError] = useState<unknown>(null);
  const isSending = useRef(false);
  const client = useQueryClient();
  const change: Change = (part) => setSheet((former) => ({ ...former, ...part }));
  const publish = async (): Promise<void> => {
    const checked = ruleSheetSchema.safeParse(sheet);
    setIssues(
      checked.success ? [] : checked.error.issues.map((issue) => `${issue.path.join(' ')}: ${issue.message}`),
    );
    if (!checked.success || isSending.current) return;
    isSending.current = true;
    setError(null);
    try {
      await sendCommand('rules.publish', eventId, { sheet: checked.data });
      await client.invalidateQueries({ queryKey: ['event', eventId] });
      onPublished();
    } catch (problem) {
      setError(problem);
    } finally {
      isSending.current = false;
    }
  };
  return (
    <form
      className="grid gap-6"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        void publish();
      }}
    >
      <MeasureFields sheet={sheet} change={change} />
      <SpeciesFields sheet={sheet} change={change} keptIds={initial.species.map((one) => one.id)} />
      <Choices
        legend="Approved boards"
        all={SHIPPED_BOARDS.map((board) => ({ id: board.id, name: board.name }))}
        chosen={sheet.boards}
        onChosen={(boards) => change({ boards })}
      />
      <PenaltyFields sheet={sheet} change={change} />
      <Choices
        legend="Ties are broken by, in this order"
        all={TIE_BREAKS.map((id) => ({ id, name: id.replaceAll('-', ' ') }))}
        chosen={sheet.tieBreaks}
        onChosen={(chosen) => change({ tieBreaks: TIE_BREAKS.filter((tie) => chosen.includes(tie)) })}
      />
      {issues.length > 0 && (
        <ul
          role="alert"
          className="border-error text-error list-inside list-disc border-l-4 pl-3 font-semibold"
        >
          {issues.map((issue) => (
            <li key={issue}>{issue}</li>
          ))}
        </ul>
      )}
      <ProblemNote error={error} />
      <button type="submit" className="btn btn-primary h-14">
        Publish
      </button>
    </form>
  );
}

function MeasureFields({ sheet, change }: { sheet: RuleSheet; change: Change }) {
  const { measure } = sheet;
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      <Field label="Title">
        {(field) => (
          <input
            {...field}
            className="input h-12 w-full"
            maxLength={120}
            value={sheet.title}
            onChange={(e) => change({ title: e.target.value })}
          />
        )}
      </Field>
      <Field label="Fish in the bag">
        {(field) => (
          <input
            {...field}
            type="number"
            min={1}
            max={50}
            className="input h-12 w-full"
            value={sheet.bagLimit}
            onChange={(e) => change({ bagLimit: Number(e.target.value) })}
          />
        )}
      </Field>
      <Field label="Length in">
        {(field) => (
          <select
            {...field}
            className="select h-12 w-full"
            value={measure.step}
            onChange={(e) => change(restep(sheet, e.target.value as LengthStepId))}
          >
            {Object.keys(LENGTH_STEPS).map((step) => (
              <option key={step} value={step}>
                {STEP_WORDS[step as LengthStepId]}
              </option>
            ))}
          </select>
        )}
      </Field>
      <Field label="Rounded">
        {(field) => (
          <select
            {...field}
            className="select h-12 w-full"
            value={measure.rounding}
            onChange={(e) =>
              change({ measure: { ...measure, rounding: e.target.value === 'down' ? 'down' : 'nearest' } })
            }
          >
            <option value="down">down to the line reached</option>
            <option value="nearest">to the nearest line</option>
          </select>
        )}
      </Field>
      <Field label="The bag is filled">
        {(field) => (
          <select
            {...field}
            className="select h-12 w-full"
            value={sheet.bagPeriod}
            onChange={(e) => change({ bagPeriod: e.target.value === 'day' ? 'day' : 'event' })}
          >
            <option value="event">once, over the whole event</option>
            <option value="day">each day anew, and added up</option>
          </select>
        )}
      </Field>
    </div>
  );
}

const keyOf = (name: string): string =>
  name
    .trim()
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40);

function SpeciesFields({
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

function PenaltyFields({ sheet, change }: { sheet: RuleSheet; change: Change }) {
  const set = (infraction: (typeof INFRACTIONS)[number], penalty: Penalty | null): void => {
    const others = sheet.penalties.filter((rule) => rule.infraction !== infraction);
    const all = penalty ? [...others, { infraction, penalty }] : others;
    change({ penalties: INFRACTIONS.flatMap((one) => all.find((rule) => rule.infraction === one) ?? []) });
  };
  return (
    <fieldset>
      <legend className="font-semibold">Infractions</legend>
      <div className="ruled border-base-300 border-y">
        {INFRACTIONS.map((infraction) => {
          const penalty = sheet.penalties.find((rule) => rule.infraction === infraction)?.penalty;
          return (
            <div key={infraction} className="grid min-h-12 grid-cols-[1fr_auto] items-center gap-2 py-1">
              <span>{INFRACTION_WORDS[infraction]}</span>
              <select
                aria-label={INFRACTION_WORDS[infraction]}
                className="select h-10 w-48"
                value={penalty ? (penalty.kind === 'deduction' ? String(penalty.steps) : 'out') : ''}
                onChange={(e) =>
                  set(
                    infraction,
                    e.target.value === ''
                      ? null
                      : e.target.value === 'out'
                        ? { kind: 'disqualification' }
                        : { kind: 'deduction', steps: Number(e.target.value) },
                  )
                }
              >
                <option value="">noted only</option>
                {deductionChoices(sheet.measure.step, penalty).map((steps) => (
                  <option key={steps} value={steps}>
                    deducts {formatSteps(steps, sheet.measure.step)}
                  </option>
                ))}
                <option value="out">fish does not count</option>
              </select>
            </div>
          );
        })}
      </div>
    </fieldset>
  );
}

/** From one step to two units, and whatever the sheet has already. */
function deductionChoices(step: LengthStepId, penalty: Penalty | undefined): number[] {
  const perUnit = LENGTH_STEPS[step].unit === 'mm' ? 10 : LENGTH_STEPS[step].stepsPerUnit;
  const own = penalty?.kind === 'deduction' ? [penalty.steps] : [];
  return [...new Set([1, 2, perUnit, 2 * perUnit, 4 * perUnit, ...own])].sort((a, b) => a - b);
}

function Choices<T extends string>({
  legend,
  all,
  chosen,
  onChosen,
}: {
  legend: string;
  all: readonly { id: T; name: string }[];
  chosen: readonly T[];
  onChosen: (chosen: T[]) => void;
}) {
  return (
    <fieldset>
      <legend className="font-semibold">{legend}</legend>
      {all.map(({ id, name }) => (
        <label key={id} className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={chosen.includes(id)}
            onChange={(e) =>
              onChosen(e.target.checked ? [...chosen, id] : chosen.filter((one) => one !== id))
            }
          />
          {name}
        </label>
      ))}
    </fieldset>
  );
}
