import { useState } from 'react';
import { GUESSED_MASSES_G, HOOK_PLACES, hazardOf, type CatchClock } from '@lauta/core/care';
import { FREE_TREBLE, HAZARD_CAUTION, HAZARD_WORDS, UNHOOKING } from '@lauta/words/hazards';
import type { RuleSheet } from '@lauta/core/rules';
import {
  G_PER_POUND,
  celsiusOf,
  fahrenheitOf,
  formatTemperature,
  unitSystemOf,
  type StepId,
} from '@lauta/core/units';
import { changeCareChoices, type CareChoices } from '../care/careChoices.ts';
import { HOOK_WORDS } from '@lauta/words/care';
import { Pick, Picks } from '../ui/Picks.tsx';
import type { ChangeCatch, RunningCatch } from './runningCatch.ts';
import type { SpeciesId } from '@lauta/core/ids';

/** What may be told of the fish by one tap each, and what that means for the hand. */
export function FishQuestions({
  clock,
  running,
  change,
  sheet,
  speciesId,
  onSpecies,
  choices,
}: {
  clock: CatchClock;
  running: RunningCatch;
  change: ChangeCatch;
  sheet: Pick<RuleSheet, 'species' | 'measure'>;
  speciesId: SpeciesId;
  onSpecies: (speciesId: SpeciesId) => void;
  choices: CareChoices;
}) {
  const [isTreble, setTreble] = useState(false);
  const { step } = sheet.measure;
  const system = unitSystemOf(step);
  const name = sheet.species.find((one) => one.id === speciesId)?.name ?? '';
  const kind = hazardOf(name);
  const hazard = kind && HAZARD_WORDS[kind.id];
  return (
    <>
      <Picks label="Species">
        {sheet.species.map((one) => (
          <Pick key={one.id} isOn={one.id === speciesId} onPick={() => onSpecies(one.id)}>
            {one.name}
          </Pick>
        ))}
        <Pick isOn={isTreble} onPick={() => setTreble(!isTreble)}>
          treble swings free
        </Pick>
      </Picks>
      {(hazard || isTreble) && (
        <div className="border-warning grid gap-1 border-l-4 pl-3">
          {isTreble && (
            <p>
              <b>{FREE_TREBLE.hazard}</b> {FREE_TREBLE.hold}
            </p>
          )}
          {hazard && (
            <>
              <p>
                <b>{hazard.hazard}</b>
              </p>
              <p>{hazard.hold}</p>
              <details>
                <summary className="linklike inline-flex min-h-16 lg:min-h-11 items-center">
                  Holds, tools and unhooking
                </summary>
                <ul className="ml-5 list-disc">
                  <li>{hazard.never}</li>
                  <li>Lies ready: {hazard.tools.join(', ')}.</li>
                  {UNHOOKING[running.hookPlace ?? 'lip'].map((step) => (
                    <li key={step}>{step}</li>
                  ))}
                  <li className="text-quiet">{HAZARD_CAUTION}</li>
                </ul>
              </details>
            </>
          )}
        </div>
      )}
      {clock.phase === 'fight' && (
        <Picks label={`About how heavy, ${system === 'us' ? 'lb' : 'kg'}`}>
          {GUESSED_MASSES_G[system].map((massG) => (
            <Pick
              key={massG}
              isOn={running.guessedMassG === massG}
              onPick={() => change((now) => ({ ...now, guessedMassG: massG }))}
            >
              {massG / (system === 'us' ? G_PER_POUND : 1000)}
            </Pick>
          ))}
        </Picks>
      )}
      {clock.phase === 'net' && (
        <Picks label="Hook in">
          {HOOK_PLACES.map((place) => (
            <Pick
              key={place}
              isOn={running.hookPlace === place}
              onPick={() => change((now) => ({ ...now, hookPlace: now.hookPlace === place ? null : place }))}
            >
              {HOOK_WORDS[place]}
            </Pick>
          ))}
          <Pick isOn={running.bleeds} onPick={() => change((now) => ({ ...now, bleeds: !now.bleeds }))}>
            it bleeds
          </Pick>
        </Picks>
      )}
      <details>
        <summary className="linklike inline-flex min-h-16 lg:min-h-11 items-center">
          Water {degrees(choices.waterCelsius, step)}, air {degrees(choices.airCelsius, step)}
        </summary>
        <div className="flex gap-4">
          <Temperature
            label="water"
            step={step}
            value={choices.waterCelsius}
            onChange={(waterCelsius) => changeCareChoices({ waterCelsius })}
          />
          <Temperature
            label="air"
            step={step}
            value={choices.airCelsius}
            onChange={(airCelsius) => changeCareChoices({ airCelsius })}
          />
        </div>
      </details>
    </>
  );
}

function degrees(celsius: number | null, step: StepId): string {
  if (celsius !== null) return formatTemperature(celsius, step);
  return unitSystemOf(step) === 'us' ? '– °F' : '– °C';
}

/** The coldest and the warmest that is taken, °C. */
const BOUNDS = [-40, 60] as const;

/** A temperature in the event's unit; `value` and what is told are °C. */
function Temperature({
  label,
  step,
  value,
  onChange,
}: {
  label: string;
  step: StepId;
  value: number | null;
  onChange: (value: number | null) => void;
}) {
  const isUs = unitSystemOf(step) === 'us';
  const shown = (celsius: number): number => (isUs ? Math.round(10 * fahrenheitOf(celsius)) / 10 : celsius);
  return (
    <label className="grid">
      <span className="text-quiet">
        {label}, {isUs ? '°F' : '°C'}
      </span>
      <input
        type="number"
        inputMode="decimal"
        min={shown(BOUNDS[0])}
        max={shown(BOUNDS[1])}
        step="any"
        className="input h-16 w-28 text-xl"
        defaultValue={value === null ? '' : shown(value)}
        onChange={(change) => {
          const { valueAsNumber } = change.currentTarget;
          if (change.currentTarget.validity.valid)
            onChange(Number.isNaN(valueAsNumber) ? null : isUs ? celsiusOf(valueAsNumber) : valueAsNumber);
        }}
      />
    </label>
  );
}
