import type { FishPenalty, RuleSheet, WeighInRules } from '@lauta/core/rules';
import { unitOf, type StepId } from '@lauta/core/units';
import { Field } from '../../ui/Field.tsx';
import { SizeField } from '../../ui/SizeField.tsx';
import type { Change } from './change.ts';
import { issueAt, type SheetIssues } from './sheetIssues.ts';

/** The rules of the scale: dead, short and late fish, fish over the limit, and who enters a weight. */
export function WeighInFields({
  sheet,
  issues,
  change,
}: {
  sheet: RuleSheet;
  issues: SheetIssues;
  change: Change;
}) {
  const { weighIn, measure } = sheet;
  if (!weighIn) return null;
  const set = (part: Partial<WeighInRules>): void => change({ weighIn: { ...weighIn, ...part } });
  const { late, overLimit } = weighIn;
  return (
    <fieldset className="grid gap-3">
      <legend className="font-semibold">At the scale</legend>
      <div className="grid gap-3 sm:grid-cols-2">
        <FishPenaltyFields
          label="Each dead fish"
          penalty={weighIn.deadFish}
          step={measure.step}
          onPenalty={(deadFish) => set({ deadFish })}
        />
        <FishPenaltyFields
          label="Each short fish"
          penalty={weighIn.shortFish}
          step={measure.step}
          onPenalty={(shortFish) => set({ shortFish })}
        />
        <FishPenaltyFields
          label="Each fish over the limit"
          penalty={overLimit.penalty}
          step={measure.step}
          onPenalty={(penalty) => set({ overLimit: { ...overLimit, penalty } })}
        />
        <Field label="Taken out of a bag over the limit">
          {(field) => (
            <select
              {...field}
              className="select h-12 w-full"
              value={overLimit.takenOut}
              onChange={(e) =>
                set({
                  overLimit: {
                    ...overLimit,
                    takenOut: e.target.value === 'smallest' ? 'smallest' : 'largest',
                  },
                })
              }
            >
              <option value="largest">the largest fish</option>
              <option value="smallest">the smallest fish</option>
            </select>
          )}
        </Field>
        <SizeField
          key={`late ${measure.step}`}
          label="For each minute late"
          steps={late.stepsPerMinute}
          step={measure.step}
          onSteps={(steps) => set({ late: { ...late, stepsPerMinute: steps ?? 0 } })}
        />
        <Minutes
          label="Minutes of grace"
          value={late.graceMinutes}
          onValue={(graceMinutes) => set({ late: { ...late, graceMinutes: graceMinutes ?? 0 } })}
          error={issueAt(issues, 'weighIn.late.graceMinutes')}
        />
        <Minutes
          label="Nothing is weighed after, minutes"
          hint="Empty: weighed however late."
          value={late.refusedAfterMinutes}
          onValue={(refusedAfterMinutes) => set({ late: { ...late, refusedAfterMinutes } })}
          error={issueAt(issues, 'weighIn.late.refusedAfterMinutes')}
        />
      </div>
      <Check
        label="a dead fish may be culled"
        isOn={weighIn.deadMayBeCulled}
        onChange={(deadMayBeCulled) => set({ deadMayBeCulled })}
      />
      <Check
        label="one enters a weight, another confirms it"
        isOn={weighIn.twoPeople}
        onChange={(twoPeople) => set({ twoPeople })}
      />
    </fieldset>
  );
}

function Check({
  label,
  isOn,
  onChange,
}: {
  label: string;
  isOn: boolean;
  onChange: (isOn: boolean) => void;
}) {
  return (
    <label className="flex min-h-11 items-center gap-2">
      <input
        type="checkbox"
        className="checkbox"
        checked={isOn}
        onChange={(e) => onChange(e.target.checked)}
      />
      {label}
    </label>
  );
}

function Minutes({
  label,
  hint,
  value,
  onValue,
  error,
}: {
  label: string;
  hint?: string;
  error?: string | undefined;
  value: number | null;
  onValue: (value: number | null) => void;
}) {
  return (
    <Field label={label} error={error} {...(hint === undefined ? {} : { hint })}>
      {(field) => (
        <input
          {...field}
          type="number"
          min={0}
          max={600}
          className="input h-12 w-full"
          value={value ?? ''}
          onChange={(e) => onValue(e.target.value === '' ? null : Number(e.target.value))}
        />
      )}
    </Field>
  );
}

function FishPenaltyFields({
  label,
  penalty,
  step,
  onPenalty,
}: {
  label: string;
  penalty: FishPenalty;
  step: StepId;
  onPenalty: (penalty: FishPenalty) => void;
}) {
  const steps = penalty.kind === 'disqualification' ? 0 : penalty.steps;
  return (
    <div className="grid grid-cols-[1fr_7rem] items-start gap-2">
      <Field label={label}>
        {(field) => (
          <select
            {...field}
            className="select h-12 w-full"
            value={penalty.kind}
            onChange={(e) =>
              onPenalty(
                e.target.value === 'disqualification'
                  ? { kind: 'disqualification' }
                  : { kind: e.target.value === 'deduction' ? 'deduction' : 'not-counted', steps },
              )
            }
          >
            <option value="deduction">is weighed, less</option>
            <option value="not-counted">is not weighed, and less</option>
            <option value="disqualification">no bag that day</option>
          </select>
        )}
      </Field>
      {penalty.kind !== 'disqualification' && (
        <SizeField
          key={step}
          label={unitOf(step)}
          steps={penalty.steps}
          step={step}
          onSteps={(next) => onPenalty({ ...penalty, steps: next ?? 0 })}
        />
      )}
    </div>
  );
}
