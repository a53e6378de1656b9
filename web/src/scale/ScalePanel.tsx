import { useState } from 'react';
import { formatMass, formatSmallMass, type MassUnit } from '@lauta/core/units';
import { Signal } from '../ui/Signal.tsx';
import { useWho } from '../session/who.ts';
import { hasSerial, serialScale } from './serialScale.ts';
import { simulatedScale, type SimulatedScale } from './simulatedScale.ts';
import { useScale, type ScaleShown } from './useScale.ts';

const LOW_BATTERY_PERCENT = 10;

/** A scale's live figure: it is taken when it is steady, by one tap. */
export function ScalePanel({
  unit,
  onTake,
}: {
  unit: MassUnit;
  /** A steady weight, or the middle of a restless one. */
  onTake: (massG: number) => void;
}) {
  const who = useWho();
  const [simulated, setSimulated] = useState<SimulatedScale | null>(null);
  const { link, shown, open, close, zero } = useScale();
  const isDemo = who.data?.isDemo ?? false;
  const letGo = (): void => {
    setSimulated(null);
    close();
  };
  if (link === 'open') {
    return (
      <div className="border-base-300 grid gap-2 border-y py-2">
        <Figure shown={shown} unit={unit} onTake={onTake} />
        <div className="grid grid-cols-2 gap-2">
          <button type="button" className="btn h-16" onClick={zero}>
            Zero
          </button>
          <button type="button" className="btn h-16" onClick={letGo}>
            Disconnect the scale
          </button>
        </div>
        {simulated && <Hook scale={simulated} />}
      </div>
    );
  }
  const take = (): void => {
    const scale = simulatedScale();
    setSimulated(scale);
    void open(scale);
  };
  if (!isDemo && !hasSerial()) return null;
  return (
    <div className="flex flex-wrap items-center gap-2">
      {hasSerial() && (
        <button
          type="button"
          className="btn h-16"
          disabled={link === 'opening'}
          onClick={() => void open(serialScale)}
        >
          Connect a scale
        </button>
      )}
      {isDemo && (
        <button type="button" className="btn h-16" onClick={take}>
          Simulated scale
        </button>
      )}
      {link === 'gone' && (
        <Signal tone="fault">
          The scale is disconnected: check cable and battery, or type what it showed.
        </Signal>
      )}
      {link === 'refused' && <Signal tone="look">No scale was opened. Type what it shows.</Signal>}
    </div>
  );
}

function Figure({
  shown,
  unit,
  onTake,
}: {
  shown: ScaleShown | null;
  unit: MassUnit;
  onTake: (massG: number) => void;
}) {
  if (!shown) return <p role="status">Listening to the scale.</p>;
  const { state, massG, batteryPercent } = shown;
  const taken = state.kind === 'steady' || state.kind === 'restless' ? state.massG : null;
  return (
    <>
      <div>
        <b className="num block text-4xl">{massG === null ? '–' : formatMass(massG, unit)}</b>
        {/* Room for its longest words at all times: what is to be tapped below must not move under the thumb. */}
        <span role="status" className="block min-h-12">
          {state.kind === 'empty' && <span className="text-quiet">nothing hangs on it</span>}
          {state.kind === 'moving' && <Signal tone="look">it moves</Signal>}
          {state.kind === 'steady' && <Signal tone="clear">steady</Signal>}
          {state.kind === 'overload' && <Signal tone="fault">more than it can weigh: take it off</Signal>}
          {state.kind === 'restless' && (
            <Signal tone="look">
              does not settle, ± {formatSmallMass(2 * state.scatterG, unit)}: back into the water, then again
            </Signal>
          )}
        </span>
      </div>
      {batteryPercent < LOW_BATTERY_PERCENT && (
        <Signal tone="fault">battery at {batteryPercent} %: its figures sink</Signal>
      )}
      <button
        type="button"
        className="btn btn-primary h-16 text-lg"
        disabled={taken === null}
        onClick={() => taken !== null && onTake(taken)}
      >
        {taken === null
          ? 'Taken when steady'
          : `Take ${state.kind === 'restless' ? 'the middle, ' : ''}${formatMass(taken, unit)}`}
      </button>
    </>
  );
}

const LIGHTEST_G = 500;
const SPREAD_G = 1700;

/** In the demo somebody has to hang a fish on it. */
function Hook({ scale }: { scale: SimulatedScale }) {
  const draw = (): number =>
    LIGHTEST_G + SPREAD_G * ((crypto.getRandomValues(new Uint32Array(1))[0] ?? 0) / 2 ** 32);
  return (
    <div className="grid grid-cols-3 gap-2" role="group" aria-label="On the simulated hook">
      <button
        type="button"
        className="btn h-16 text-sm leading-tight"
        onClick={() => scale.hang(draw(), false)}
      >
        A calm fish
      </button>
      <button
        type="button"
        className="btn h-16 text-sm leading-tight"
        onClick={() => scale.hang(draw(), true)}
      >
        A restless one
      </button>
      <button type="button" className="btn h-16 text-sm leading-tight" onClick={scale.takeOff}>
        Off the hook
      </button>
    </div>
  );
}
