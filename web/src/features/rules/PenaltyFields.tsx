import { INFRACTIONS, type Penalty, type RuleSheet } from '@lauta/core/rules';
import { LENGTH_STEPS, MASS_STEPS, formatSteps, isMassStep, type StepId } from '@lauta/core/units';
import { INFRACTION_WORDS } from '@lauta/words/catch';
import type { Change } from './change.ts';

/** What photographs show wrong, where length counts. */
export function PenaltyFields({ sheet, change }: { sheet: RuleSheet; change: Change }) {
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
export function deductionChoices(step: StepId, penalty: Penalty | undefined): number[] {
  const perUnit = isMassStep(step)
    ? MASS_STEPS[step].stepsPerUnit / 4
    : LENGTH_STEPS[step].unit === 'mm'
      ? 10
      : LENGTH_STEPS[step].stepsPerUnit;
  const own = penalty?.kind === 'deduction' ? [penalty.steps] : [];
  return [...new Set([1, 2, perUnit, 2 * perUnit, 4 * perUnit, ...own])].sort((a, b) => a - b);
}
