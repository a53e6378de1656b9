import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { SALT_PERCENT, saltG } from '@lauta/core/well-water';
import {
  celsiusOf,
  fahrenheitOf,
  formatTemperature,
  G_PER_POUND,
  unitSystemOf,
  type StepId,
} from '@lauta/core/units';
import type { RuleSheet } from '@lauta/core/rules';
import { appNow, useNow } from '../../clock/appClock.ts';
import { Field } from '../../ui/Field.tsx';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { hasFailed } from '../../ui/hasFailed.ts';
import { Signal } from '../../ui/Signal.tsx';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { useRules } from '../../queries/event.ts';
import { dayOfNow } from '../../event/dayOfNow.ts';
import { useWellList } from './useWell.ts';
import { OxygenChart } from './OxygenChart.tsx';
import { LINE_MG_L, forecastOf, massesAboard, minutesLeft, type Forecast } from './forecast.ts';
import { usePumpTone } from './usePumpTone.ts';
import { BOUNDS, changeWell, useWellChoices, type WellChoices } from './wellChoices.ts';
import type { EntrantId } from '@lauta/core/ids';

/** Keeping them alive: oxygen, ice, salt and the pump, as a guide with its sources. */
export function WellWaterPage() {
  const { event, place } = useInEvent();
  const rules = useRules(event.eventId);
  if (hasFailed(rules)) return <Failed error={rules.error} retry={() => void rules.refetch()} />;
  if (rules.isPending) return <Loading what="Fetching the rules" />;
  const sheet = rules.data.at(-1)?.sheet;
  if (!place.entrantId || !sheet)
    return (
      <Empty title="Only a boat sees its own well">Sign in as an angler of an event that has rules.</Empty>
    );
  return <Planner entrantId={place.entrantId} sheet={sheet} />;
}

const L_PER_GALLON = 3.785411784;

function Planner({ entrantId, sheet }: { entrantId: EntrantId; sheet: RuleSheet }) {
  const { event } = useInEvent();
  const now = useNow(5000);
  const today = dayOfNow(event, now.getTime());
  const { well } = useWellList(event, entrantId, today?.dayId ?? '');
  const choices = useWellChoices();
  const masses = useMemo(() => massesAboard(well), [well]);
  const forecast = useMemo(() => forecastOf(choices, masses), [choices, masses]);
  const left = minutesLeft(choices, forecast, now.getTime());
  const { step } = sheet.measure;
  const isUs = unitSystemOf(step) === 'us';
  return (
    <div className="grid max-w-4xl gap-6">
      <div>
        <Link className="linklike" to={eventPath(event.eventId, 'well')}>
          Back to the well
        </Link>
        <h1>Keep them alive</h1>
        <p className="text-quiet">
          A guide with its assumptions, not a promise: a meter and a look at the fish decide. {masses.length}{' '}
          fish, {(masses.reduce((sum, one) => sum + one, 0) / (isUs ? G_PER_POUND : 1000)).toFixed(1)}{' '}
          {isUs ? 'lb' : 'kg'} aboard.
        </p>
      </div>
      <Pump choices={choices} forecast={forecast} left={left} />
      <section aria-labelledby="oxygen" className="grid gap-2">
        <h2 id="oxygen">Oxygen</h2>
        <p>
          At saturation this water holds <b className="num">{forecast.saturationMgL.toFixed(1)}</b> mg/l; the
          fish use{' '}
          <b className="num">
            {Math.round(forecast.use.low)} to {Math.round(forecast.use.high)}
          </b>{' '}
          mg an hour (estimate). With pump and aerator it settles {endWords(forecast.endsOn)}.
        </p>
        <OxygenChart curve={forecast.curve} />
        <details>
          <summary className="flex min-h-12 cursor-pointer items-center">The same as a table</summary>
          <table className="num w-full max-w-lg text-sm">
            <thead className="text-quiet">
              <tr>
                <th className="text-left font-normal">minutes</th>
                <th className="text-right font-normal">pump off</th>
                <th className="text-right font-normal">pump on</th>
              </tr>
            </thead>
            <tbody className="ruled">
              {forecast.curve
                .filter((_, i) => i % 2 === 0)
                .map(({ minute, offLow, offHigh, onLow, onHigh }) => (
                  <tr key={minute}>
                    <th scope="row" className="text-left">
                      {minute}
                    </th>
                    <td className="text-right">
                      {offLow.toFixed(1)} to {offHigh.toFixed(1)}
                    </td>
                    <td className="text-right">
                      {onLow.toFixed(1)} to {onHigh.toFixed(1)}
                    </td>
                  </tr>
                ))}
            </tbody>
          </table>
        </details>
      </section>
      <Cooling choices={choices} forecast={forecast} step={step} />
      <section aria-labelledby="salt">
        <h2 id="salt">Salt and ammonia</h2>
        <p>
          Salt without iodine, where local rules allow it: {SALT_PERCENT.low} to {SALT_PERCENT.high} % are{' '}
          <b className="num">
            {Math.round(saltG(choices.volumeL, SALT_PERCENT.low))} to{' '}
            {Math.round(saltG(choices.volumeL, SALT_PERCENT.high))}
          </b>{' '}
          g in this well.
        </p>
        <p>
          {forecast.unionisedMgL === null
            ? 'Ammonia is worked out where a test has shown its total.'
            : `Of the ammonia ${forecast.unionisedMgL.toFixed(3)} mg/l are un-ionised, the part that harms; change the water where it rises.`}
        </p>
      </section>
      <Assumptions choices={choices} isUs={isUs} />
      <section aria-labelledby="sources" className="text-quiet text-sm">
        <h2 id="sources">Sources</h2>
        <p>
          Saturation: Benson & Krause 1984. Use: Rice et al. 1983, coefficients unsure, times what fish just
          caught may use. Line of {LINE_MG_L} mg/l and cooling: Gilliland & Schramm 2002, from memory. Ice:
          heat balance without walls, sun and fresh water. Salt: Piper et al. 1982. Ammonia: Emerson et al.
          1975. Local rules and the event’s fish-care staff decide.
        </p>
      </section>
    </div>
  );
}

function endWords({ low, high }: Forecast['endsOn']): string {
  if (low === null || high === null) return 'nowhere: it falls as long as they breathe';
  const words = `between ${low.toFixed(1)} and ${high.toFixed(1)} mg/l`;
  return low < LINE_MG_L ? `${words}: too little at the most use` : words;
}

/** The pump's timer: off, how long it may stay off, and a tone when that is over. */
function Pump({
  choices,
  forecast,
  left,
}: {
  choices: WellChoices;
  forecast: Forecast;
  left: number | null;
}) {
  const isOff = choices.pumpOffAtMs !== null;
  const isOver = left !== null && left <= 0;
  usePumpTone(left);
  const { low, high } = forecast.minutesOff;
  return (
    <section
      aria-labelledby="pump"
      className={
        isOver ? 'bg-error text-error-content -mx-4 grid gap-3 px-4 py-3 sm:-mx-7 sm:px-7' : 'grid gap-3'
      }
    >
      <h2 id="pump">Pump {isOff ? 'off' : 'on'}</h2>
      <p role="status" className="text-xl">
        {isOff && left !== null ? (
          isOver ? (
            <b>Pump on now: {LINE_MG_L} mg/l may be reached.</b>
          ) : (
            <>
              <b className="num text-5xl">{Math.floor(left)}</b> min left until {LINE_MG_L} mg/l at the most
              use
            </>
          )
        ) : low === null ? (
          'With no fish aboard nothing falls.'
        ) : (
          <>
            With the pump off: <b className="num">{Math.floor(low)}</b>
            {high === null ? ' min or more' : ` to ${Math.floor(high)} min`} until {LINE_MG_L} mg/l.
          </>
        )}
      </p>
      <button
        type="button"
        className="btn btn-primary h-16 text-lg"
        onClick={() => changeWell({ pumpOffAtMs: isOff ? null : appNow().getTime() })}
      >
        {isOff ? 'The pump is on again' : 'The pump is off'}
      </button>
    </section>
  );
}

function Cooling({ choices, forecast, step }: { choices: WellChoices; forecast: Forecast; step: StepId }) {
  const { targetCelsius, iceKg, minutes, isTooCold } = forecast.cooling;
  const isUs = unitSystemOf(step) === 'us';
  const degrees = (celsius: number): string => formatTemperature(celsius, step);
  return (
    <section aria-labelledby="ice">
      <h2 id="ice">Ice</h2>
      {isTooCold && (
        <Signal tone="fault">
          The well is more than {isUs ? '10 °F' : '5.5 °C'} under the lake: no more ice, let it warm slowly.
        </Signal>
      )}
      <p>
        {targetCelsius === null ? (
          `The lake at ${degrees(choices.lakeCelsius)} is cool enough: no ice.`
        ) : iceKg === 0 ? (
          `Cool enough: ${degrees(choices.wellCelsius)} for a lake of ${degrees(choices.lakeCelsius)}.`
        ) : (
          <>
            Down to {degrees(targetCelsius)}, not further:{' '}
            <b className="num">
              {isUs ? `${((iceKg * 1000) / G_PER_POUND).toFixed(1)} lb` : `${iceKg.toFixed(1)} kg`}
            </b>{' '}
            of ice, spread over {minutes} min at least. Sealed bottles, or ice of the lake’s own water:
            chlorine harms.
          </>
        )}
      </p>
    </section>
  );
}

/** What the page reckons with; each can be changed. */
function Assumptions({ choices, isUs }: { choices: WellChoices; isUs: boolean }) {
  const gallons = {
    to: (litres: number) => litres / L_PER_GALLON,
    from: (own: number) => own * L_PER_GALLON,
  };
  const warmth = { to: fahrenheitOf, from: celsiusOf };
  const feet = { to: (metres: number) => metres / 0.3048, from: (own: number) => own * 0.3048 };
  const us = (unit: Conversion): Conversion => (isUs ? unit : SAME);
  return (
    <section aria-labelledby="assumptions" className="grid gap-3">
      <h2 id="assumptions">Assumptions</h2>
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        <NumberField
          label={isUs ? 'Well, gallons' : 'Well, litres'}
          name="volumeL"
          choices={choices}
          unit={us(gallons)}
        />
        <NumberField
          label={isUs ? 'Lake, °F' : 'Lake, °C'}
          name="lakeCelsius"
          choices={choices}
          unit={us(warmth)}
        />
        <NumberField
          label={isUs ? 'Well, °F' : 'Well, °C'}
          name="wellCelsius"
          choices={choices}
          unit={us(warmth)}
        />
        <NumberField
          label={isUs ? 'Height, ft' : 'Height, m'}
          name="altitudeM"
          choices={choices}
          unit={us(feet)}
        />
        <NumberField label="Salt in it, %" name="saltPercent" choices={choices} unit={SAME} />
        <NumberField
          label="Oxygen measured, mg/l"
          name="measuredMgL"
          choices={choices}
          unit={SAME}
          isOptional
        />
        <NumberField
          label={isUs ? 'Pump, gallons an hour' : 'Pump, litres an hour'}
          name="pumpLPerHour"
          choices={choices}
          unit={us(gallons)}
        />
        <NumberField label="Aeration rate, per hour" name="aerationPerHour" choices={choices} unit={SAME} />
        <NumberField label="Lowest uptake, × resting" name="activityLow" choices={choices} unit={SAME} />
        <NumberField label="Highest uptake, × resting" name="activityHigh" choices={choices} unit={SAME} />
        <NumberField label="pH" name="ph" choices={choices} unit={SAME} />
        <NumberField label="Total ammonia, mg/l" name="ammoniaMgL" choices={choices} unit={SAME} isOptional />
      </div>
    </section>
  );
}

interface Conversion {
  to: (stored: number) => number;
  from: (own: number) => number;
}
const SAME: Conversion = { to: (one) => one, from: (one) => one };

function NumberField({
  label,
  name,
  choices,
  unit,
  isOptional = false,
}: {
  label: string;
  name: keyof typeof BOUNDS;
  choices: WellChoices;
  unit: Conversion;
  isOptional?: boolean;
}) {
  const stored = choices[name];
  const [text, setText] = useState(stored === null ? '' : String(Number(unit.to(stored).toPrecision(4))));
  const [least, most] = BOUNDS[name];
  const read = text.trim() === '' ? null : unit.from(Number(text.replace(',', '.')));
  const fits = read === null ? isOptional : Number.isFinite(read) && read >= least && read <= most;
  const bound = (value: number): string => String(Math.round(10 * unit.to(value)) / 10);
  return (
    <Field label={label} error={fits ? undefined : `${bound(least)} to ${bound(most)}`}>
      {(field) => (
        <input
          {...field}
          className="input num h-12 w-full"
          inputMode="decimal"
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            const next =
              e.target.value.trim() === '' ? null : unit.from(Number(e.target.value.replace(',', '.')));
            if (next === null ? isOptional : next >= least && next <= most) changeWell({ [name]: next });
          }}
        />
      )}
    </Field>
  );
}
