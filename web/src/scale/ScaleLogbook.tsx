import { useState } from 'react';
import {
  ACCURACY_CLASSES,
  SCALE_KINDS,
  judgeScale,
  kindOfClass,
  toleranceG,
  withinTolerance,
  type AccuracyClass,
  type NamedScale,
  type ScaleAct,
  type ScaleKind,
  type ScaleQuality,
} from '@lauta/core/scale';
import {
  G_PER_OUNCE,
  G_PER_POUND,
  MASS_STEPS,
  formatMass,
  formatSmallMass,
  gFromSteps,
  type MassStepId,
  type MassUnit,
} from '@lauta/core/units';
import { Field } from '../ui/Field.tsx';
import { Signal } from '../ui/Signal.tsx';
import { Pick, Picks } from '../ui/Picks.tsx';
import { MassField } from './MassField.tsx';
import { keysOf } from '@lauta/core/keys';
import type { ScaleId } from '@lauta/core/ids';

const QUALITY_WORDS: Record<ScaleQuality, string> = {
  good: 'to a few grams',
  usual: 'to an ounce or so',
  poor: 'coarser: a spring, two-ounce marks',
};
const QUALITIES = keysOf(SCALE_KINDS);

/** What scales that are marked are divided into, by what is printed on them. */
const DIVISIONS: readonly { word: string; divisionG: number }[] = [
  ...[0.005, 0.01, 0.02, 0.05].map((pounds) => ({ word: `${pounds} lb`, divisionG: pounds * G_PER_POUND })),
  { word: '½ oz', divisionG: G_PER_OUNCE / 2 },
  { word: '1 oz', divisionG: G_PER_OUNCE },
  ...[1, 2, 5, 10, 20].map((grams) => ({ word: `${grams} g`, divisionG: grams })),
];
/** Thirty pounds, or what a metric bench scale takes. */
const USUAL_CAPACITY_G: Record<MassUnit, number> = {
  'lb-oz': 30 * G_PER_POUND,
  lb: 30 * G_PER_POUND,
  kg: 15_000,
};

/** What is weighed is about so heavy, g: a fish that culls are about, one of a full bag. */
export const USUAL_FISH_G = 1200;

/** What a scale is for: what hangs or lies on it, and about how heavy that is. */
export interface ScaleUse {
  usualName: string;
  load: string;
  loadG: number;
  /** On the weigh-in's table: it is asked for its class mark first. */
  isOnTable: boolean;
}

/** A scale and its checks: how honest it is said to be, and what known weights and repeats make of that. */
export function ScaleLogbook({
  scale,
  scaleId,
  use,
  step,
  nowMs,
  onActs,
}: {
  scale: NamedScale | null;
  scaleId: ScaleId;
  use: ScaleUse;
  /** The event's. */
  step: MassStepId;
  nowMs: number;
  onActs: (acts: ScaleAct[]) => void;
}) {
  const { unit } = MASS_STEPS[step];
  const quality = qualityOf(scale);
  const describe = (kind: ScaleKind, name: string, accuracyClass: AccuracyClass | null): void =>
    onActs([
      { kind: 'scale', scaleId, name, scale: kind, ...(accuracyClass === null ? {} : { accuracyClass }) },
    ]);
  const description = (
    <Description
      key={`${scale?.accuracyClass ?? ''} ${scale?.kind.divisionG ?? ''} ${scale?.kind.capacityG ?? ''} ${scale?.name ?? ''}`}
      scale={scale}
      use={use}
      unit={unit}
      onDescribed={describe}
    />
  );
  return (
    <section aria-labelledby="scale" className="grid gap-3">
      <h2 id="scale">{scale?.name ?? 'Scale'}</h2>
      {!use.isOnTable && (
        <Picks label="Accurate to">
          {QUALITIES.map((one) => (
            <Pick
              key={one}
              isOn={one === quality}
              onPick={() => describe(SCALE_KINDS[one], scale?.name ?? use.usualName, null)}
            >
              {QUALITY_WORDS[one]}
            </Pick>
          ))}
        </Picks>
      )}
      {scale ? (
        <>
          <Standing scale={scale} use={use} step={step} nowMs={nowMs} unit={unit} />
          <Checks unit={unit} scaleId={scaleId} load={use.load} onActs={onActs} />
          <ChecksDone scale={scale} unit={unit} load={use.load} />
          <details className="border-base-300 border-t">
            <summary className="flex min-h-12 cursor-pointer items-center">
              Name, class mark, capacity
            </summary>
            {description}
          </details>
        </>
      ) : use.isOnTable ? (
        description
      ) : (
        <p className="text-quiet">Say how honest it is; then its checks are kept here.</p>
      )}
      {(scale ? scale.accuracyClass === null : !use.isOnTable) && (
        <p className="text-quiet text-sm">
          Not marked legal for trade. A scale that errs light is thought safer than one that errs heavy.
        </p>
      )}
    </section>
  );
}

/** Which of the three it was said to be; null where it bears a mark, or was never described. */
function qualityOf(scale: NamedScale | null): ScaleQuality | null {
  if (scale?.accuracyClass !== null) return null;
  const { repeatabilityG } = scale.kind;
  return QUALITIES.find((one) => SCALE_KINDS[one].repeatabilityG === repeatabilityG) ?? null;
}

/** What stands on the scale's plate: name, class, division, capacity. */
function Description({
  scale,
  use,
  unit,
  onDescribed,
}: {
  scale: NamedScale | null;
  use: ScaleUse;
  unit: MassUnit;
  onDescribed: (kind: ScaleKind, name: string, accuracyClass: AccuracyClass | null) => void;
}) {
  const [name, setName] = useState(scale?.name ?? use.usualName);
  const [mark, setMark] = useState<AccuracyClass | null>(scale ? scale.accuracyClass : 'III');
  const [quality, setQuality] = useState<ScaleQuality>(qualityOf(scale) ?? 'usual');
  const [divisionG, setDivision] = useState(
    () => nearest(scale?.kind.divisionG ?? (unit === 'kg' ? 5 : 0.01 * G_PER_POUND)).divisionG,
  );
  const firstCapacityG = scale?.kind.capacityG ?? USUAL_CAPACITY_G[unit];
  const [capacityG, setCapacity] = useState<number | null>(firstCapacityG);
  const isWhole = name.trim() !== '' && capacityG !== null && capacityG > divisionG;
  const keep = (): void => {
    if (!isWhole) return;
    const kind =
      mark === null ? { ...SCALE_KINDS[quality], capacityG } : kindOfClass(mark, divisionG, capacityG);
    onDescribed(kind, name.trim(), mark);
  };
  return (
    <form
      className="grid max-w-xl gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      <div className="grid items-start gap-3 sm:grid-cols-2">
        <Field label="Name">
          {(field) => (
            <input
              {...field}
              className="input h-12 w-full"
              maxLength={60}
              value={name}
              onChange={(e) => setName(e.target.value)}
            />
          )}
        </Field>
        <MassField label="Weighs up to" unit={unit} initialG={firstCapacityG} onMass={setCapacity} />
      </div>
      <Picks label="Class mark on its plate, legal for trade">
        {ACCURACY_CLASSES.map((one) => (
          <Pick key={one} isOn={one === mark} onPick={() => setMark(one)}>
            {one}
          </Pick>
        ))}
        <Pick isOn={mark === null} onPick={() => setMark(null)}>
          none
        </Pick>
      </Picks>
      {mark !== null ? (
        <Field label="Its division, e" hint="the smallest step of its display">
          {(field) => (
            <select
              {...field}
              className="select h-12 w-full sm:w-1/2"
              value={nearest(divisionG).word}
              onChange={(e) =>
                setDivision(DIVISIONS.find(({ word }) => word === e.target.value)?.divisionG ?? divisionG)
              }
            >
              {DIVISIONS.map(({ word }) => (
                <option key={word}>{word}</option>
              ))}
            </select>
          )}
        </Field>
      ) : (
        use.isOnTable && (
          <Picks label="Accurate to">
            {QUALITIES.map((one) => (
              <Pick key={one} isOn={one === quality} onPick={() => setQuality(one)}>
                {QUALITY_WORDS[one]}
              </Pick>
            ))}
          </Picks>
        )
      )}
      <button type="submit" className="btn btn-primary h-16 justify-self-start px-8" disabled={!isWhole}>
        Keep
      </button>
    </form>
  );
}

function nearest(divisionG: number): (typeof DIVISIONS)[number] {
  const off = (one: (typeof DIVISIONS)[number]): number => Math.abs(one.divisionG - divisionG);
  return DIVISIONS.reduce((best, one) => (off(one) < off(best) ? one : best));
}

function Standing({
  scale,
  use,
  step,
  nowMs,
  unit,
}: {
  scale: NamedScale;
  use: ScaleUse;
  step: MassStepId;
  nowMs: number;
  unit: MassUnit;
}) {
  const { kind, accuracyClass } = scale;
  const standing = judgeScale(scale, use.loadG, gFromSteps(1, step), nowMs);
  return (
    <div className="grid gap-1">
      <p className="flex flex-wrap gap-x-4">
        <Signal tone={standing.isDue ? 'look' : 'clear'}>
          {standing.isDue
            ? `due: check it before ${use.isOnTable ? 'the first bag' : 'lines-in'}`
            : `checked ${Math.floor(standing.hoursSinceCheck ?? 0)} h ago`}
        </Signal>
        <Signal tone={standing.isGoodEnough ? 'clear' : 'look'}>
          {use.load} to ± {formatSmallMass(2 * standing.sigmaG, unit)}:{' '}
          {standing.isGoodEnough ? 'good enough for this event’s step' : 'coarser than this event’s step'}
        </Signal>
        <Signal tone={standing.errs === null ? 'clear' : 'look'}>
          {standing.errs === null
            ? 'neither light nor heavy as far as can be told'
            : `reads ${standing.errs} by ${formatSmallMass(Math.abs(standing.readsHeavyG), unit)}`}
        </Signal>
      </p>
      {accuracyClass !== null && (
        <p className="text-quiet text-sm">
          Class {accuracyClass}, division {nearest(kind.divisionG).word}: at {use.load} of about{' '}
          {formatMass(use.loadG, unit)} it may be off by{' '}
          {formatSmallMass(toleranceG(accuracyClass, kind.divisionG, use.loadG), unit)} (NIST Handbook 44,
          2.20, maintenance). Local law and its own seal come first.
        </p>
      )}
    </div>
  );
}

/** What was done with it, the last first. */
function ChecksDone({ scale, unit, load }: { scale: NamedScale; unit: MassUnit; load: string }) {
  if (scale.checks.length + scale.repeats.length === 0) return null;
  return (
    <ul aria-label="Checks" className="ruled border-base-300 border-y text-sm">
      {scale.checks.toReversed().map((check) => {
        const isWithin = withinTolerance(scale, check);
        const { atMs, trueG, readG } = check;
        return (
          <li key={`${atMs} ${trueG}`} className="flex flex-wrap justify-between gap-x-4 py-1">
            <span className="num">{trueG === 0 ? 'empty' : formatMass(trueG, unit)}</span>
            <span className="flex gap-4">
              {isWithin !== null && (
                <Signal tone={isWithin ? 'clear' : 'fault'}>
                  {isWithin ? 'within its class' : 'outside its class'}
                </Signal>
              )}
              <span className="num">showed {formatMass(readG, unit)}</span>
            </span>
          </li>
        );
      })}
      {scale.repeats.map((repeat, i) => (
        <li key={`repeat ${i}`} className="num flex justify-between py-1">
          <span>
            {load}, {repeat.length} times
          </span>
          <span>{repeat.map((readG) => formatMass(readG, unit)).join(', ')}</span>
        </li>
      ))}
    </ul>
  );
}

function Checks({
  unit,
  scaleId,
  load,
  onActs,
}: {
  unit: MassUnit;
  scaleId: ScaleId;
  load: string;
  onActs: (acts: ScaleAct[]) => void;
}) {
  const [round, setRound] = useState(0);
  const [trueG, setTrue] = useState<number | null>(null);
  const [shown, setShown] = useState<number | null>(null);
  const [thrice, setThrice] = useState<(number | null)[]>([null, null, null]);
  const whole = thrice.flatMap((one) => (one === null ? [] : [one]));
  const done = (act: ScaleAct): void => {
    onActs([act]);
    setRound(round + 1);
    setTrue(null);
    setShown(null);
    setThrice([null, null, null]);
  };
  return (
    <div key={round} className="grid gap-3">
      <button
        type="button"
        className="btn h-16"
        onClick={() => done({ kind: 'scale-check', scaleId, trueG: 0, readG: 0 })}
      >
        Empty, it shows zero
      </button>
      <div className="grid grid-cols-[1fr_1fr_auto] items-start gap-2">
        <MassField label="A known weight" unit={unit} onMass={setTrue} />
        <MassField label="shows" unit={unit} onMass={setShown} />
        <button
          type="button"
          className="btn mt-7 h-12"
          disabled={trueG === null || shown === null}
          onClick={() => {
            if (trueG !== null && shown !== null) done({ kind: 'scale-check', scaleId, trueG, readG: shown });
          }}
        >
          Keep
        </button>
      </div>
      <div className="grid grid-cols-[1fr_1fr_1fr_auto] items-start gap-2">
        {[`The same (${load})`, 'again', 'and again'].map((label, i) => (
          <MassField
            key={label}
            label={label}
            unit={unit}
            onMass={(massG) => setThrice((former) => former.map((one, k) => (k === i ? massG : one)))}
          />
        ))}
        <button
          type="button"
          className="btn mt-7 h-12"
          disabled={whole.length < 3}
          onClick={() => done({ kind: 'scale-repeat', scaleId, readG: whole })}
        >
          Keep
        </button>
      </div>
    </div>
  );
}
