import { useEffect, useId, useRef, useState } from 'react';
import { TIE_BREAKS, type RuleSheet } from '@lauta/core/rules';
import { LENGTH_STEPS, MASS_STEPS } from '@lauta/core/units';
import { ApiProblem } from '../../door/ask.ts';
import { useRules } from '../../queries/event.ts';
import { RuleSentences } from '../../event/RuleSentences.tsx';
import { Field } from '../../ui/Field.tsx';
import { CommandNote } from '../../outbox/CommandNote.tsx';
import { useCommand } from '../../outbox/useCommand.ts';
import { useBoards } from '../../queries/boards.ts';
import { STEP_WORDS } from '@lauta/words/catch';
import { countWords } from '@lauta/words/count';
import { PenaltyFields } from './PenaltyFields.tsx';
import { SpeciesFields } from './SpeciesFields.tsx';
import { WeighInFields } from './WeighInFields.tsx';
import type { Change } from './change.ts';
import { checkSheet, issueAt, type SheetIssues } from './sheetIssues.ts';
import { restep } from './restep.ts';
import { keysOf } from '@lauta/core/keys';
import type { EventId } from '@lauta/core/ids';

/** What was typed, over which sheet. */
interface Begun {
  sheet: RuleSheet;
  keptIds: readonly string[];
  replaces: number | null;
}

/**
 * One sheet as a form. Untouched, it shows the sheet that stands now, whatever arrives meanwhile; what was typed stays,
 * over the version that it was typed over.
 */
export function RuleForm({
  eventId,
  initial,
  version,
  onPublished,
}: {
  eventId: EventId;
  initial: RuleSheet;
  /** Of the sheet that stands now; null where none is published yet. */
  version: number | null;
  onPublished: () => void;
}) {
  const [begun, setBegun] = useState<Begun | null>(null);
  const untouched: Begun = {
    sheet: initial,
    keptIds: initial.species.map((one) => one.id),
    replaces: version,
  };
  const { sheet, keptIds, replaces } = begun ?? untouched;
  /** The version that was to be written over when it was last sent. */
  const [tried, setTried] = useState<number | null>(null);
  /** Once it was refused each field tells at once whether it is right. */
  const [wasRefused, setRefused] = useState(false);
  const checked = checkSheet(sheet);
  const issues = wasRefused && !checked.ok ? checked.issues : NO_ISSUES;
  const form = useRef<HTMLFormElement>(null);
  const boards = useBoards(eventId);
  const command = useCommand();
  const { error } = command;
  // Another director published what is written over here: that one is looked at first.
  const isStale =
    !command.isBusy &&
    (replaces !== version ||
      (error instanceof ApiProblem && error.type === 'sheet-moved-on' && replaces === tried));
  const change: Change = (part) =>
    setBegun((former) => {
      const last = former ?? untouched;
      return { ...last, sheet: { ...last.sheet, ...part } };
    });
  const publish = (): void => {
    setRefused(!checked.ok);
    setTried(replaces);
    if (checked.ok)
      void command.send('rules.publish', eventId, { sheet: checked.sheet, replaces }, onPublished);
  };
  // The first field that is wrong has the keyboard, wherever on the page it is.
  useEffect(() => {
    if (wasRefused) form.current?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
  }, [wasRefused]);
  return (
    <form
      ref={form}
      className="grid gap-6"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        publish();
      }}
    >
      <MeasureFields sheet={sheet} issues={issues} change={change} />
      <SpeciesFields sheet={sheet} issues={issues} change={change} keptIds={keptIds} />
      {sheet.measure.kind === 'length' ? (
        <>
          <Choices
            legend="Approved boards"
            all={boards.all.map((board) => ({ id: board.id, name: board.name }))}
            chosen={sheet.boards}
            onChosen={(boards) => change({ boards })}
            error={issueAt(issues, 'boards')}
          />
          <PenaltyFields sheet={sheet} change={change} />
        </>
      ) : (
        <WeighInFields sheet={sheet} issues={issues} change={change} />
      )}
      <Choices
        legend="Ties are broken by, in this order"
        all={TIE_BREAKS.map((id) => ({ id, name: id.replaceAll('-', ' ') }))}
        chosen={sheet.tieBreaks}
        onChosen={(chosen) => change({ tieBreaks: TIE_BREAKS.filter((tie) => chosen.includes(tie)) })}
      />
      {issues.size > 0 && (
        <p role="alert" className="text-error font-semibold">
          {countWords(issues.size, 'field is', 'fields are')} not right yet; the first has the cursor.
        </p>
      )}
      <CommandNote command={command} />
      {isStale && (
        <MovedOn eventId={eventId} onOver={(seen) => setBegun({ ...(begun ?? untouched), replaces: seen })} />
      )}
      <button type="submit" className="btn btn-primary h-14" disabled={isStale || command.isBusy}>
        Publish
      </button>
    </form>
  );
}

const NO_ISSUES: SheetIssues = new Map();
const STEPS = [...keysOf(LENGTH_STEPS), ...keysOf(MASS_STEPS)];

/** What another director published meanwhile. */
function MovedOn({ eventId, onOver }: { eventId: EventId; onOver: (version: number) => void }) {
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

function MeasureFields({ sheet, issues, change }: { sheet: RuleSheet; issues: SheetIssues; change: Change }) {
  const { measure } = sheet;
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      <Field label="Title" error={issueAt(issues, 'title')}>
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
      <Field label="Fish in the bag" error={issueAt(issues, 'bagLimit')}>
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
            onChange={({ target }) => {
              const step = STEPS.find((one) => one === target.value);
              if (step) change(restep(sheet, step));
            }}
          >
            {[
              { kind: 'length', steps: keysOf(LENGTH_STEPS) },
              { kind: 'weight', steps: keysOf(MASS_STEPS) },
            ].map(({ kind, steps }) => (
              <optgroup key={kind} label={kind}>
                {steps.map((step) => (
                  <option key={step} value={step}>
                    {STEP_WORDS[step]}
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
      <Field
        label="Air-time limit, s"
        hint="Empty: each angler’s own guide applies."
        error={issueAt(issues, 'airSeconds')}
      >
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
  error,
}: {
  legend: string;
  all: readonly { id: T; name: string }[];
  chosen: readonly T[];
  onChosen: (chosen: T[]) => void;
  error?: string | undefined;
}) {
  const noteId = useId();
  return (
    <fieldset aria-describedby={error ? noteId : undefined}>
      <legend className="font-semibold">{legend}</legend>
      {all.map(({ id, name }) => (
        <label key={id} className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            aria-invalid={error !== undefined}
            checked={chosen.includes(id)}
            onChange={(e) =>
              onChosen(e.target.checked ? [...chosen, id] : chosen.filter((one) => one !== id))
            }
          />
          {name}
        </label>
      ))}
      {error && (
        <p id={noteId} className="text-error text-sm font-semibold">
          {error}
        </p>
      )}
    </fieldset>
  );
}
