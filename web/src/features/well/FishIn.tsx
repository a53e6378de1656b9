import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { sideOf } from '@lauta/core/care';
import { findSpecies, isShort, type RuleSheet, type SpeciesRule } from '@lauta/core/rules';
import {
  formatMass,
  lengthStepOf,
  massUnitOf,
  mmFromSteps,
  unitOf,
  type LengthStepId,
  type MassUnit,
} from '@lauta/core/units';
import {
  CONDITIONS,
  findTag,
  tagPlaceFor,
  type Condition,
  type LiveWell,
  type WellAct,
} from '@lauta/core/well';
import { judgeWeight, weightRange } from '@lauta/core/weight';
import { SizeField } from '../../ui/SizeField.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { useCareChoices } from '../../care/careChoices.ts';
import { Pick, Picks } from '../../ui/Picks.tsx';
import { AirClock, useAirTime } from './AirClock.tsx';
import { MassField } from '../../scale/MassField.tsx';
import { CONDITION_WORDS, tagWords } from '@lauta/words/well';
import type { ScaleId, TagId } from '@lauta/core/ids';

/** A fish comes aboard: its kind, its weight, its tag. What is usual is chosen already. */
export function FishIn({
  well,
  sheet,
  scaleId,
  onDone,
  onCancel,
}: {
  well: LiveWell;
  sheet: RuleSheet;
  scaleId: ScaleId;
  onDone: (acts: WellAct[]) => void;
  onCancel: () => void;
}) {
  const counting = sheet.species.filter(({ counts }) => counts);
  const [speciesId, setSpecies] = useState(well.fish.at(-1)?.speciesId ?? counting[0]?.id ?? '');
  // One form is one fish, however often it is sent.
  const [fishId] = useState(() => uuidv7());
  const [condition, setCondition] = useState<Condition>('lively');
  const [compartment, setCompartment] = useState(1);
  const [lengthSteps, setLength] = useState<number | null>(null);
  const [weight, setWeight] = useState<{ massG: number | null; from: 'typed' | 'scale' }>({
    massG: null,
    from: 'typed',
  });
  const { massG } = weight;
  const air = useAirTime();
  const { schools } = useCareChoices();
  const isFull = well.fish.length >= sheet.bagLimit;
  const tagsAtOnce = sideOf('tagging', schools) === 'each' || well.fish.length + 1 >= sheet.bagLimit;
  const free = freeTag(well, isFull);
  const [tagSet, setTag] = useState<string | null | undefined>(undefined);
  const tagId = tagSet === undefined ? (tagsAtOnce ? (free?.tagId ?? null) : null) : tagSet;
  const tagPlace = tagPlaceFor({ condition, speciesId }, sideOf('every-fish', schools));
  const step: LengthStepId = lengthStepOf(sheet.measure.step);
  const lengthMm = lengthSteps === null ? null : mmFromSteps(lengthSteps, step);
  const species = findSpecies(sheet, speciesId);
  const unit = massUnitOf(sheet.measure.step);
  const how =
    weight.from === 'scale' ? 'scale' : sideOf('scale-notes', schools) === 'at-once' ? 'typed' : 'memory';
  const done = (): void => {
    onDone([
      { kind: 'fish-in', fishId, speciesId, lengthMm, condition, compartment, tagId, tagPlace },
      ...(massG === null
        ? []
        : [{ kind: 'weighed', fishId, scaleId, readG: massG, how, airSeconds: air.seconds() } as const]),
    ]);
  };
  return (
    <form
      aria-label="A fish comes in"
      className="grid gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        done();
      }}
    >
      <h1>A fish comes in</h1>
      <Picks label="Kind">
        {sheet.species.map(({ id, name }) => (
          <Pick key={id} isOn={id === speciesId} onPick={() => setSpecies(id)}>
            {name}
          </Pick>
        ))}
      </Picks>
      <AirClock air={air} limitSeconds={sheet.airSeconds ?? null} />
      <div className="grid gap-3 sm:grid-cols-2">
        <MassField
          label="Scale shows"
          unit={unit}
          onMass={(read, from) => setWeight({ massG: read, from })}
          isLarge
          withScale
        />
        <SizeField
          label={`Length, ${unitOf(step)}`}
          steps={null}
          step={step}
          onSteps={setLength}
          placeholder="if measured"
          hint=" "
        />
      </div>
      <SizeWarnings species={species} lengthMm={lengthMm} massG={massG} unit={unit} />
      <Picks label="Condition">
        {CONDITIONS.filter((one) => one !== 'dead').map((one) => (
          <Pick key={one} isOn={one === condition} onPick={() => setCondition(one)}>
            {CONDITION_WORDS[one].word}
          </Pick>
        ))}
      </Picks>
      <TagChoice well={well} isFull={isFull} tagId={tagId} isLoose={tagPlace === 'loose'} onTag={setTag} />
      {well.settings.compartments > 1 && (
        <Picks label="Compartment">
          {Array.from({ length: well.settings.compartments }, (_, i) => i + 1).map((one) => (
            <Pick key={one} isOn={one === compartment} onPick={() => setCompartment(one)}>
              {one}
            </Pick>
          ))}
        </Picks>
      )}
      <div className="bg-base-100 border-base-300 grid grid-cols-[1fr_auto] gap-2 max-lg:sticky max-lg:bottom-16 max-lg:z-10 max-lg:-mx-4 max-lg:border-t max-lg:px-4 max-lg:py-3">
        <button type="submit" className="btn btn-primary h-16 text-lg">
          {isFull ? 'Aboard, one too many' : 'Into the well'}
        </button>
        <button type="button" className="btn h-16" onClick={onCancel}>
          Cancel
        </button>
      </div>
    </form>
  );
}

/** A kind that does not count, a fish that is short, a weight that does not go with its length. */
function SizeWarnings({
  species,
  lengthMm,
  massG,
  unit,
}: {
  species: SpeciesRule | null;
  lengthMm: number | null;
  massG: number | null;
  unit: MassUnit;
}) {
  const range = lengthMm === null ? null : weightRange(species?.name ?? '', lengthMm);
  const fit = range && massG !== null ? judgeWeight(range, massG) : 'fits';
  return (
    <>
      {species && !species.counts && <Signal tone="fault">This kind does not count: let it go.</Signal>}
      {species && isShort(species, lengthMm) && (
        <Signal tone="fault">Short: it may not be kept. Let it go.</Signal>
      )}
      {range && fit !== 'fits' && (
        <Signal tone="look">
          {fit === 'light' ? 'Light' : 'Heavy'} for its length: fish of this kind weigh{' '}
          {formatMass(range.lightestG, unit)} to {formatMass(range.heaviestG, unit)}. Read both again.
        </Signal>
      )}
    </>
  );
}

function TagChoice({
  well,
  isFull,
  tagId,
  isLoose,
  onTag,
}: {
  well: LiveWell;
  isFull: boolean;
  tagId: TagId | null;
  isLoose: boolean;
  onTag: (tagId: TagId | null) => void;
}) {
  const tags = [...well.settings.tags, ...(isFull && well.settings.spare ? [well.settings.spare] : [])];
  return (
    <>
      <Picks label={isLoose && tagId !== null ? 'Tag, loose beside it' : 'Tag'}>
        {tags
          .filter((tag) => tag.tagId === tagId || !well.fish.some((fish) => fish.tagId === tag.tagId))
          .map((tag) => (
            <Pick key={tag.tagId} isOn={tag.tagId === tagId} onPick={() => onTag(tag.tagId)}>
              {tagWords(tag)}
            </Pick>
          ))}
        <Pick isOn={tagId === null} onPick={() => onTag(null)}>
          none
        </Pick>
      </Picks>
      {isLoose && (
        <p className="text-quiet text-sm">
          A hurt or small-mouthed fish: the tag lies loose in its compartment, and it is looked at often.
        </p>
      )}
    </>
  );
}

/** The first free tag in the order in which they hang; the spare only for the one over the limit. */
function freeTag(well: LiveWell, isFull: boolean) {
  const isFree = (tagId: TagId): boolean => !well.fish.some((fish) => fish.tagId === tagId);
  const next = well.settings.tags.find(({ tagId }) => isFree(tagId));
  if (!isFull) return next ?? null;
  const { spare } = well.settings;
  return spare && isFree(spare.tagId) ? findTag(well.settings, spare.tagId) : (next ?? null);
}
