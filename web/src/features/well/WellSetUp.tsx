import { useState } from 'react';
import { gFromSteps, formatMass, formatSmallMass, type MassUnit } from '@lauta/core/units';
import { isWeightSheet, type RuleSheet } from '@lauta/core/rules';
import { SCALE_KINDS, judgeScale, type ScaleQuality, type ScaleRecord } from '@lauta/core/scale';
import {
  TAG_COLOURS,
  TAG_KINDS,
  tagRecords,
  type FishTag,
  type LiveWell,
  type TagColour,
  type WellAct,
  type WellSettings,
} from '@lauta/core/well';
import { Field } from '../../frame/Field.tsx';
import { Signal } from '../../frame/Signal.tsx';
import { Pick, Picks } from '../water/Picks.tsx';
import { MassField } from './MassField.tsx';
import { TagMark } from './TagMark.tsx';
import { massUnitOf } from './words.ts';

const QUALITY_WORDS: Record<ScaleQuality, string> = {
  good: 'to a few grams',
  usual: 'to an ounce or so',
  poor: 'coarser: a spring, two-ounce marks',
};

/** Tags, compartments and the scale's logbook: what is settled before lines-in. */
export function WellSetUp({
  well,
  sheet,
  scaleId,
  nowMs,
  onActs,
}: {
  well: LiveWell;
  sheet: RuleSheet;
  scaleId: string;
  nowMs: number;
  onActs: (acts: WellAct[]) => void;
}) {
  return (
    <div className="grid gap-6">
      <TagSettings
        settings={well.settings}
        onSettings={(settings) => onActs([{ kind: 'set-up', settings }])}
      />
      <TagNumbers well={well} />
      {sheet.measure.kind === 'weight' && (
        <ScaleLogbook
          scale={well.scales.get(scaleId) ?? null}
          scaleId={scaleId}
          sheet={sheet}
          nowMs={nowMs}
          onActs={onActs}
        />
      )}
    </div>
  );
}

function TagSettings({
  settings,
  onSettings,
}: {
  settings: WellSettings;
  onSettings: (settings: WellSettings) => void;
}) {
  const { tags, spare, tagKind, compartments } = settings;
  const recolour = (colour: TagColour | null): void =>
    onSettings({ ...settings, tags: tags.map((tag) => ({ ...tag, colour })) });
  const count = (wanted: number): void => onSettings({ ...settings, tags: tagsOf(wanted, tags) });
  return (
    <section aria-labelledby="tags" className="grid gap-3">
      <h2 id="tags">Tags</h2>
      <div className="flex flex-wrap gap-2">
        {tags.map((tag) => (
          <TagMark key={tag.tagId} tag={tag} />
        ))}
        {spare && (
          <span className="border-base-300 border-l-2 pl-2">
            <TagMark tag={spare} />
          </span>
        )}
      </div>
      <p className="text-quiet text-sm">
        In the order in which they hang; the last one is the spare, for the newcomer on the beam.
      </p>
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
        <Field label="Tags for the well">
          {(field) => (
            <input
              {...field}
              type="number"
              min={1}
              max={50}
              className="input h-12 w-full"
              value={tags.length}
              onChange={(e) => count(Math.min(50, Math.max(1, Math.round(Number(e.target.value) || 1))))}
            />
          )}
        </Field>
        <Colour label="Their colour" colour={tags[0]?.colour ?? null} onColour={recolour} />
        <Colour
          label="Spare’s colour"
          colour={spare?.colour ?? null}
          onColour={(colour) =>
            onSettings({
              ...settings,
              spare: { tagId: 'spare', number: spare?.number ?? tags.length + 1, colour },
            })
          }
        />
        <Field label="Compartments">
          {(field) => (
            <input
              {...field}
              type="number"
              min={1}
              max={8}
              className="input h-12 w-full"
              value={compartments}
              onChange={(e) =>
                onSettings({
                  ...settings,
                  compartments: Math.min(8, Math.max(1, Math.round(Number(e.target.value) || 1))),
                })
              }
            />
          )}
        </Field>
      </div>
      <Picks label="Each tag by its own colour">
        <Pick
          isOn={new Set(tags.map(({ colour }) => colour)).size === tags.length && tags.length > 1}
          onPick={() =>
            onSettings({
              ...settings,
              tags: tags.map((tag, i) => ({ ...tag, colour: TAG_COLOURS[i % TAG_COLOURS.length] ?? null })),
            })
          }
        >
          by colour
        </Pick>
        <Pick isOn={tags.every(({ colour }) => colour === tags[0]?.colour)} onPick={() => recolour(null)}>
          by number
        </Pick>
      </Picks>
      <Picks label="Kind of tag: kept with each look at a fish">
        {TAG_KINDS.map((kind) => (
          <Pick key={kind} isOn={kind === tagKind} onPick={() => onSettings({ ...settings, tagKind: kind })}>
            {kind === 'clip' ? 'clip, does not pierce' : 'piercing'}
          </Pick>
        ))}
      </Picks>
    </section>
  );
}

/** Whether a kind of tag harms is disputed: what was seen at each look, by the tag that the fish bore. */
function TagNumbers({ well }: { well: LiveWell }) {
  const records = tagRecords(well);
  if (records.length === 0) return null;
  return (
    <section aria-labelledby="tag-numbers">
      <h2 id="tag-numbers">Fish and their tags today</h2>
      <table className="w-full text-sm tabular-nums">
        <thead className="text-quiet text-left">
          <tr>
            <th className="font-normal">tag</th>
            <th className="text-right font-normal">fish</th>
            <th className="text-right font-normal">looks</th>
            <th className="text-right font-normal">not lively</th>
          </tr>
        </thead>
        <tbody className="ruled">
          {records.map(({ tagKind, fish, looks, notLively }) => (
            <tr key={tagKind ?? 'none'}>
              <th scope="row" className="py-1 text-left font-normal">
                {tagKind ?? 'none, or loose'}
              </th>
              <td className="text-right">{fish}</td>
              <td className="text-right">{looks}</td>
              <td className="text-right">{notLively}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Tags that hang already stay as they are. */
function tagsOf(wanted: number, tags: readonly FishTag[]): FishTag[] {
  return Array.from(
    { length: wanted },
    (_, i) => tags[i] ?? { tagId: `tag-${i + 1}`, number: i + 1, colour: tags[0]?.colour ?? null },
  );
}

function Colour({
  label,
  colour,
  onColour,
}: {
  label: string;
  colour: TagColour | null;
  onColour: (colour: TagColour | null) => void;
}) {
  return (
    <Field label={label}>
      {(field) => (
        <select
          {...field}
          className="select h-12 w-full"
          value={colour ?? ''}
          onChange={(e) => onColour(TAG_COLOURS.find((one) => one === e.target.value) ?? null)}
        >
          <option value="">none</option>
          {TAG_COLOURS.map((one) => (
            <option key={one} value={one}>
              {one}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

/** A fish of about this weight is what culls are about. */
const USUAL_FISH_G = 1200;

function ScaleLogbook({
  scale,
  scaleId,
  sheet,
  nowMs,
  onActs,
}: {
  scale: (ScaleRecord & { name: string }) | null;
  scaleId: string;
  sheet: RuleSheet;
  nowMs: number;
  onActs: (acts: WellAct[]) => void;
}) {
  const unit = massUnitOf(sheet);
  const quality = (Object.keys(SCALE_KINDS) as ScaleQuality[]).find(
    (one) => SCALE_KINDS[one].repeatabilityG === scale?.kind.repeatabilityG,
  );
  const describe = (one: ScaleQuality): void =>
    onActs([{ kind: 'scale', scaleId, name: scale?.name ?? 'Hanging scale', scale: SCALE_KINDS[one] }]);
  return (
    <section aria-labelledby="scale" className="grid gap-3">
      <h2 id="scale">Scale</h2>
      <Picks label="It is honest">
        {(Object.keys(SCALE_KINDS) as ScaleQuality[]).map((one) => (
          <Pick key={one} isOn={one === quality} onPick={() => describe(one)}>
            {QUALITY_WORDS[one]}
          </Pick>
        ))}
      </Picks>
      {scale ? (
        <>
          <Verdict scale={scale} sheet={sheet} nowMs={nowMs} unit={unit} />
          <Checks unit={unit} scaleId={scaleId} onActs={onActs} />
          <ul className="ruled border-base-300 border-y text-sm">
            {scale.checks.map(({ atMs, trueG, readG }) => (
              <li key={`${atMs} ${trueG}`} className="num flex justify-between py-1">
                <span>{trueG === 0 ? 'empty hook' : formatMass(trueG, unit)}</span>
                <span>showed {formatMass(readG, unit)}</span>
              </li>
            ))}
            {scale.repeats.map((repeat, i) => (
              <li key={`repeat ${i}`} className="num flex justify-between py-1">
                <span>one fish, {repeat.length} times</span>
                <span>{repeat.map((readG) => formatMass(readG, unit)).join(', ')}</span>
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p className="text-quiet">Say how honest it is; then its checks are kept here.</p>
      )}
      <p className="text-quiet text-sm">
        Not marked legal for trade. A scale that errs light is thought safer than one that errs heavy.
      </p>
    </section>
  );
}

function Verdict({
  scale,
  sheet,
  nowMs,
  unit,
}: {
  scale: ScaleRecord;
  sheet: RuleSheet;
  nowMs: number;
  unit: MassUnit;
}) {
  const stepG = isWeightSheet(sheet) ? gFromSteps(1, sheet.measure.step) : 1;
  const verdict = judgeScale(scale, USUAL_FISH_G, stepG, nowMs);
  return (
    <p className="flex flex-wrap gap-x-4">
      <Signal tone={verdict.isDue ? 'look' : 'clear'}>
        {verdict.isDue
          ? 'due: check it before lines-in'
          : `checked ${Math.floor(verdict.hoursSinceCheck ?? 0)} h ago`}
      </Signal>
      <Signal tone={verdict.isGoodEnough ? 'clear' : 'look'}>
        a fish to ± {formatSmallMass(2 * verdict.sigmaG, unit)}:{' '}
        {verdict.isGoodEnough ? 'good enough for this event’s step' : 'coarser than this event’s step'}
      </Signal>
      <Signal tone={verdict.errs === null ? 'clear' : 'look'}>
        {verdict.errs === null
          ? 'neither light nor heavy as far as can be told'
          : `reads ${verdict.errs} by ${formatSmallMass(Math.abs(verdict.readsHeavyG), unit)}`}
      </Signal>
    </p>
  );
}

function Checks({
  unit,
  scaleId,
  onActs,
}: {
  unit: MassUnit;
  scaleId: string;
  onActs: (acts: WellAct[]) => void;
}) {
  const [round, setRound] = useState(0);
  const [trueG, setTrue] = useState<number | null>(null);
  const [shown, setShown] = useState<number | null>(null);
  const [thrice, setThrice] = useState<(number | null)[]>([null, null, null]);
  const whole = thrice.flatMap((one) => (one === null ? [] : [one]));
  const done = (act: WellAct): void => {
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
        Empty hook shows zero
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
        {['The same fish', 'again', 'and again'].map((label, i) => (
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
