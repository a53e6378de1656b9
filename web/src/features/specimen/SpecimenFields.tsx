import { SPECIMEN_CARE, WOUND_PLACES, specimenWeight, type SpecimenCare } from '@lauta/core/specimen';
import type { RuleSheet } from '@lauta/core/rules';
import {
  formatMass,
  formatSmallMass,
  G_PER_OUNCE,
  LENGTH_STEPS,
  lengthStepOf,
  mmFromSteps,
  stepsFromMm,
  type MassUnit,
} from '@lauta/core/units';
import { judgeWeight, weightRange } from '@lauta/core/weight';
import { appNow } from '../../clock/appClock.ts';
import { Field } from '../../ui/Field.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { SizeField } from '../../ui/SizeField.tsx';
import { speciesName } from '@lauta/words/catch';
import { Pick, Picks } from '../../ui/Picks.tsx';
import { MassField } from '../../scale/MassField.tsx';
import { CARE_WORDS, WOUND_WORDS } from '@lauta/words/specimen';
import { weighingOf, type SpecimenDraft } from './specimenDraft.ts';
import type { SpeciesId } from '@lauta/core/ids';

interface Telling {
  draft: SpecimenDraft;
  tell: (part: Partial<SpecimenDraft>) => void;
}

export interface FieldsProps extends Telling {
  sheet: RuleSheet;
  unit: MassUnit;
}

const BEFORE: readonly SpecimenCare[] = ['mat-wet', 'hook-out-in-net', 'fins-flat', 'sling-wet'];
const IN_AIR: readonly SpecimenCare[] = ['water-over', 'held-low'];
const AFTER: readonly SpecimenCare[] = ['sling-to-water'];

/** Steps of bank scales, g. */
const METRIC_STEPS_G = [10, 20, 50, 100];
const IMPERIAL_STEPS_G = [G_PER_OUNCE / 2, G_PER_OUNCE, 2 * G_PER_OUNCE, 4 * G_PER_OUNCE];

function CarePicks({
  label,
  steps,
  draft,
  tell,
}: Telling & { label: string; steps: readonly SpecimenCare[] }) {
  return (
    <Picks label={label}>
      {steps.map((step) => {
        const isDone = draft.care.includes(step);
        const others = draft.care.filter((one) => one !== step);
        return (
          <Pick
            key={step}
            isOn={isDone}
            // In the order of the work, however they were tapped.
            onPick={() => tell({ care: isDone ? others : SPECIMEN_CARE.filter((one) => one === step || others.includes(one)) })} // prettier-ignore
          >
            {CARE_WORDS[step]}
          </Pick>
        );
      })}
    </Picks>
  );
}

/** What lies ready before the fish leaves the water, and what the empty wet sling weighs. */
export function BeforeFields({ draft, unit, tell }: FieldsProps) {
  return (
    <>
      <CarePicks label="Ready" steps={BEFORE} draft={draft} tell={tell} />
      <Picks label="The empty wet sling, hung as it will hang">
        <Pick isOn={draft.tare === 'zeroed'} onPick={() => tell({ tare: 'zeroed' })}>
          set to zero with it
        </Pick>
        <Pick isOn={draft.tare === 'noted'} onPick={() => tell({ tare: 'noted' })}>
          note what it weighs
        </Pick>
      </Picks>
      {draft.tare === 'noted' && (
        <div className="grid gap-3 sm:grid-cols-2">
          <Mass label="Wet sling" part="slingG" {...{ draft, unit, tell }} />
          <Mass label="Stand or bar, where it hangs along" part="standG" {...{ draft, unit, tell }} />
        </div>
      )}
      <Picks label="The scale’s step">
        {(unit === 'kg' ? METRIC_STEPS_G : IMPERIAL_STEPS_G).map((stepG) => (
          <Pick
            key={stepG}
            isOn={Math.abs(stepG - draft.divisionG) < 0.01}
            onPick={() => tell({ divisionG: stepG })}
          >
            {formatSmallMass(stepG, unit)}
          </Pick>
        ))}
      </Picks>
    </>
  );
}

function Mass({
  label,
  part,
  draft,
  unit,
  tell,
  isLarge = false,
  withScale = false,
}: Telling & {
  unit: MassUnit;
  label: string;
  part: 'slingG' | 'standG' | 'grossG' | 'emptyAfterG';
  isLarge?: boolean;
  withScale?: boolean;
}) {
  const known = draft[part];
  return (
    <MassField
      label={label}
      unit={unit}
      isLarge={isLarge}
      withScale={withScale}
      {...(known === null ? {} : { initialG: known })}
      onMass={(massG, from) =>
        tell(
          part === 'grossG'
            ? {
                grossG: massG,
                weighedHow: from,
                // A correction is written later than the fish was weighed.
                weighedAt: draft.corrects ? draft.weighedAt : massG === null ? null : appNow().toISOString(),
              }
            : { [part]: massG },
        )
      }
    />
  );
}

/** The fish hangs: one figure, steady, and back. */
export function ScaleFields({ draft, unit, tell }: FieldsProps) {
  return (
    <>
      <Mass label="Scale shows, fish and sling" part="grossG" isLarge withScale {...{ draft, unit, tell }} />
      <CarePicks label="Done" steps={IN_AIR} draft={draft} tell={tell} />
    </>
  );
}

function CorrectionFields({
  draft: { corrects },
  sheet,
  speciesId,
  tell,
}: Pick<FieldsProps, 'draft' | 'sheet' | 'tell'> & { speciesId: SpeciesId }) {
  return (
    <>
      <Field label="Why it is corrected">
        {(field) => (
          <input
            {...field}
            className="input h-16 w-full"
            maxLength={300}
            value={corrects?.reason ?? ''}
            onChange={({ currentTarget: { value } }) =>
              tell({ corrects: corrects && { ...corrects, reason: value } })
            }
          />
        )}
      </Field>
      <Picks label="Species">
        {sheet.species.map(({ id, name }) => (
          <Pick key={id} isOn={id === speciesId} onPick={() => tell({ speciesId: id })}>
            {name}
          </Pick>
        ))}
      </Picks>
    </>
  );
}

/** What the fish weighs by what was told so far, and what speaks against it. */
function WeightTold({
  draft,
  speciesName: kind,
  unit,
}: Pick<FieldsProps, 'draft' | 'unit'> & { speciesName: string }) {
  const { grossG, tare, slingG, divisionG, lengthMm } = draft;
  const weighing = weighingOf(draft);
  const weight = weighing && specimenWeight(weighing);
  const range = lengthMm === null ? null : weightRange(kind, lengthMm);
  const movedG = weight?.movedG ?? null;
  const fit = range && weight ? judgeWeight(range, weight.netG) : 'fits';
  return (
    <>
      <p role="status">
        {weight ? (
          <>
            <b className="num text-4xl">{formatMass(weight.netG, unit)}</b>{' '}
            <span className="text-quiet">
              ± {formatSmallMass(2 * weight.sigmaG, unit)} by the scale’s steps and its zero
            </span>
          </>
        ) : tare === 'noted' && slingG === null ? (
          <span className="text-quiet">What the wet sling weighs is missing.</span>
        ) : grossG === null ? (
          <span className="text-quiet">No weight was told yet.</span>
        ) : (
          <Signal tone="fault">The scale showed no more than the empty sling weighs. Read it again.</Signal>
        )}
      </p>
      {movedG !== null && Math.abs(movedG) > divisionG && (
        <Signal tone="look">
          The empty scale moved by {formatSmallMass(Math.abs(movedG), unit)}: its middle was taken. Next time
          zero it once more before the lift.
        </Signal>
      )}
      {range && fit !== 'fits' && (
        <Signal tone="look">
          {fit === 'light' ? 'Light' : 'Heavy'} for its length: fish of this kind weigh{' '}
          {formatMass(range.lightestG, unit)} to {formatMass(range.heaviestG, unit)}. Look at both again.
        </Signal>
      )}
    </>
  );
}

/** Once it is back: the zero again, its wounds, its length, and what else is worth a word. */
export function AfterFields({
  draft,
  sheet,
  unit,
  tell,
  isCorrection,
}: FieldsProps & { isCorrection: boolean }) {
  const step = lengthStepOf(sheet.measure.step);
  const { unit: lengthUnit } = LENGTH_STEPS[step];
  const { lengthMm, wounds } = draft;
  const speciesId = draft.speciesId ?? sheet.species[0]?.id ?? '';
  return (
    <>
      {isCorrection && <CorrectionFields draft={draft} sheet={sheet} speciesId={speciesId} tell={tell} />}
      {!isCorrection && <CarePicks label="Done" steps={AFTER} draft={draft} tell={tell} />}
      <div className="grid gap-3 sm:grid-cols-2">
        <Mass label="Empty wet sling, once more" part="emptyAfterG" {...{ draft, unit, tell }} />
        <SizeField
          label={`Length, ${lengthUnit}`}
          steps={lengthMm === null ? null : stepsFromMm(lengthMm, step, 'nearest')}
          step={step}
          onSteps={(steps) => tell({ lengthMm: steps === null ? null : mmFromSteps(steps, step) })}
          placeholder="if measured"
          hint=" "
        />
      </div>
      <WeightTold draft={draft} speciesName={speciesName(sheet, speciesId)} unit={unit} />
      <Picks label="Wounds: tap again once dressed">
        {WOUND_PLACES.map((place) => {
          const wound = wounds.find((one) => one.place === place);
          const others = wounds.filter((one) => one.place !== place);
          return (
            <Pick
              key={place}
              isOn={wound !== undefined}
              onPick={() =>
                tell({
                  wounds: !wound
                    ? [...others, { place, isDressed: false }]
                    : wound.isDressed
                      ? others
                      : [...others, { place, isDressed: true }],
                })
              }
            >
              {WOUND_WORDS[place]}
              {wound ? (wound.isDressed ? ': dressed' : ': not dressed') : ''}
            </Pick>
          );
        })}
      </Picks>
      {wounds.length > 0 && (
        <p className="text-quiet text-sm">
          A guide: dressings only where the water’s rules allow them, and never instead of a quick return.
        </p>
      )}
      <Field label="A note, if any">
        {(field) => (
          <textarea
            {...field}
            className="textarea w-full"
            rows={2}
            maxLength={500}
            value={draft.note}
            onChange={({ currentTarget: { value } }) => tell({ note: value })}
          />
        )}
      </Field>
    </>
  );
}
