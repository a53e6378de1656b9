import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { ruleSheetSchema } from '@lauta/contract';
import { TIE_BREAKS, keptRules, type RuleSheet } from '@lauta/core/rules';
import { LENGTH_STEPS, MASS_STEPS, type StepId } from '@lauta/core/units';
import { sendCommand } from '../../door/door.ts';
import { ApiProblem } from '../../door/http.ts';
import { useRules } from '../../queries/event.ts';
import { RuleSentences } from '../../event/RuleSentences.tsx';
import { Field } from '../../ui/Field.tsx';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { useBoards } from '../../queries/boards.ts';
import { STEP_WORDS } from '@lauta/words/catch';
import { PenaltyFields } from './PenaltyFields.tsx';
import { SpeciesFields } from './SpeciesFields.tsx';
import { WeighInFields } from './WeighInFields.tsx';
import type { Change } from './change.ts';
import { restep } from './restep.ts';

/** One sheet as a form. What was typed stays when something is refused. */
export function RuleForm({
  eventId,
  initial,
  version,
  onPublished,
}: {
  eventId: string;
  initial: RuleSheet;
  /** Of the sheet that is written over; null where none is published yet. */
  version: number | null;
  onPublished: () => void;
}) {
  const [sheet, setSheet] = useState(initial);
  const [replaces, setReplaces] = useState(version);
  const [issues, setIssues] = useState<string[]>([]);
  const [error, setError] = useState<unknown>(null);
  const isSending = useRef(false);
  const boards = useBoards(eventId);
  const client = useQueryClient();
  const change: Change = (part) => setSheet((former) => ({ ...former, ...part }));
  const publish = async (): Promise<void> => {
    const checked = ruleSheetSchema.safeParse(keptRules(sheet));
    setIssues(
      checked.success ? [] : checked.error.issues.map((issue) => `${issue.path.join(' ')}: ${issue.message}`),
    );
    if (!checked.success || isSending.current) return;
    isSending.current = true;
    setError(null);
    try {
      await sendCommand('rules.publish', eventId, { sheet: checked.data, replaces });
      await client.invalidateQueries({ queryKey: ['event', eventId] });
      onPublished();
    } catch (problem) {
      setError(problem);
      // The other director's sheet is shown beside what is written here.
      await client.invalidateQueries({ queryKey: ['event', eventId, 'rules'] });
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
      {sheet.measure.kind === 'length' ? (
        <>
          <Choices
            legend="Approved boards"
            all={boards.all.map((board) => ({ id: board.id, name: board.name }))}
            chosen={sheet.boards}
            onChosen={(boards) => change({ boards })}
          />
          <PenaltyFields sheet={sheet} change={change} />
        </>
      ) : (
        <WeighInFields sheet={sheet} change={change} />
      )}
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
      {isStale(error) && (
        <MovedOn
          eventId={eventId}
          onOver={(current) => {
            setReplaces(current);
            setError(null);
          }}
        />
      )}
      <button type="submit" className="btn btn-primary h-14" disabled={isStale(error)}>
        Publish
      </button>
    </form>
  );
}

const isStale = (error: unknown): boolean => error instanceof ApiProblem && error.type === 'sheet-moved-on';

/** What another director published meanwhile. */
function MovedOn({ eventId, onOver }: { eventId: string; onOver: (version: number) => void }) {
  const current = useRules(eventId).data?.at(-1);
  if (!current) return null;
  return (
    <section aria-label="Published meanwhile" className="border-warning border-l-4 pl-3">
      <h2>Version {current.version}, published meanwhile</h2>
      <RuleSentences sheet={current.sheet} eventId={eventId} />
      <button type="button" className="btn mt-2 h-12" onClick={() => onOver(current.version)}>
        I have seen it: publish mine after it
      </button>
    </section>
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
      <Field label="What counts">
        {(field) => (
          <select
            {...field}
            className="select h-12 w-full"
            value={measure.step}
            onChange={(e) => change(restep(sheet, e.target.value as StepId))}
          >
            {[
              { kind: 'length', steps: Object.keys(LENGTH_STEPS) },
              { kind: 'weight', steps: Object.keys(MASS_STEPS) },
            ].map(({ kind, steps }) => (
              <optgroup key={kind} label={kind}>
                {steps.map((step) => (
                  <option key={step} value={step}>
                    {STEP_WORDS[step as StepId]}
                  </option>
                ))}
              </optgroup>
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
            <option value="down">down to the step reached</option>
            <option value="nearest">to the nearest step</option>
          </select>
        )}
      </Field>
      <Field label="Air-time limit, s" hint="Empty: each angler’s own guide applies.">
        {(field) => (
          <input
            {...field}
            type="number"
            min={1}
            max={600}
            className="input h-12 w-full"
            value={sheet.airSeconds ?? ''}
            onChange={(e) =>
              change({ airSeconds: e.target.value === '' ? undefined : Number(e.target.value) })
            }
          />
        )}
      </Field>
      <Field label="Picture with the person">
        {(field) => (
          <select
            {...field}
            className="select h-12 w-full"
            value={sheet.personPicture ? 'wanted' : 'free'}
            onChange={(e) => change({ personPicture: e.target.value === 'wanted' ? true : undefined })}
          >
            <option value="free">as each person likes</option>
            <option value="wanted">wanted with each claim</option>
          </select>
        )}
      </Field>
      {measure.kind === 'length' && (
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
      )}
    </div>
  );
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
