import { useState } from 'react';
import { sideOf } from '@lauta/core/care';
import type { RuleSheet } from '@lauta/core/rules';
import { formatMass, formatSmallMass, massUnitOf } from '@lauta/core/units';
import {
  CONDITIONS,
  WELL_SIGNS,
  findTag,
  slotWorths,
  tagPlaceFor,
  type Condition,
  type LiveWell,
  type ReleaseReason,
  type WellAct,
  type WellOutlook,
  type WellFish,
  type WellSign,
} from '@lauta/core/well';
import { useCareChoices } from '../../care/careChoices.ts';
import { Pick, Picks } from '../../ui/Picks.tsx';
import { AirClock, useAirTime, type AirTime } from './AirClock.tsx';
import { MassField } from '../../scale/MassField.tsx';
import { CONDITION_WORDS, REASON_WORDS, SIGN_WORDS, tagWords } from '@lauta/words/well';
import { countWords } from '@lauta/words/count';
import { keysOf } from '@lauta/core/keys';
import type { ScaleId } from '@lauta/core/ids';

type Panel = 'look' | 'weigh' | 'tag' | 'go';
const PANEL_WORDS: Record<Panel, string> = { look: 'Look', weigh: 'Weigh', tag: 'Tag', go: 'Let go' };
const REASONS: readonly ReleaseReason[] = ['cull', 'short', 'weak', 'not-counting', 'own-wish'];

/** What can be done with a fish aboard: one row of large buttons, and what the chosen one asks. */
export function FishActions({
  fish,
  well,
  sheet,
  scaleId,
  outlook,
  onActs,
}: {
  fish: WellFish;
  well: LiveWell;
  outlook: WellOutlook;
  sheet: RuleSheet;
  scaleId: ScaleId;
  onActs: (acts: WellAct[]) => void;
}) {
  const [panel, setPanel] = useState<Panel>('look');
  const air = useAirTime();
  const { fishId } = fish;
  const { schools } = useCareChoices();
  const unit = massUnitOf(sheet.measure.step);
  const slot =
    outlook.kind === 'weight' ? slotWorths(outlook).find((one) => one.fishId === fishId) : undefined;
  const weight = outlook.kind === 'weight' ? outlook.fish.find((one) => one.fishId === fishId) : undefined;
  return (
    <div className="bg-base-200 grid gap-3 pb-3 sm:px-3">
      <div className="grid grid-cols-4 gap-2" role="group" aria-label="What to do with it">
        {keysOf(PANEL_WORDS).map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={panel === one}
            className={`btn h-16 px-1 ${panel === one ? 'btn-primary' : ''}`}
            onClick={() => setPanel(one)}
          >
            {PANEL_WORDS[one]}
          </button>
        ))}
      </div>
      {panel === 'look' && <LookPanel fish={fish} onActs={onActs} />}
      {(panel === 'weigh' || panel === 'go') && (
        <AirClock air={air} limitSeconds={sheet.airSeconds ?? null} />
      )}
      {panel === 'weigh' && (
        <WeighPanel fish={fish} sheet={sheet} scaleId={scaleId} air={air} onActs={onActs} />
      )}
      {panel === 'tag' && (
        <Picks label="Tag">
          {[...well.settings.tags, ...(well.settings.spare ? [well.settings.spare] : [])].map((tag) => (
            <Pick
              key={tag.tagId}
              isOn={tag.tagId === fish.tagId}
              onPick={() => onActs([{ kind: 'tagged', fishId, tagId: tag.tagId, tagPlace: tagPlaceFor(fish, sideOf('every-fish', schools)) }])} // prettier-ignore
            >
              {tagWords(tag)}
            </Pick>
          ))}
          <Pick
            isOn={fish.tagId === null}
            onPick={() => onActs([{ kind: 'tagged', fishId, tagId: null, tagPlace: 'on' }])}
          >
            none
          </Pick>
          {fish.tagId !== null && (
            <Pick
              isOn={fish.tagPlace === 'loose'}
              onPick={() => onActs([{ kind: 'tagged', fishId, tagId: fish.tagId, tagPlace: fish.tagPlace === 'on' ? 'loose' : 'on' }])} // prettier-ignore
            >
              loose beside it
            </Pick>
          )}
          {well.settings.compartments > 1 &&
            Array.from({ length: well.settings.compartments }, (_, i) => i + 1).map((compartment) => (
              <Pick
                key={compartment}
                isOn={compartment === fish.compartment}
                onPick={() => onActs([{ kind: 'moved', fishId, compartment }])}
              >
                compartment {compartment}
              </Pick>
            ))}
        </Picks>
      )}
      {panel === 'go' && (
        <Picks label={`Let ${tagWords(findTag(well.settings, fish.tagId))} go, because`}>
          {REASONS.map((reason) => (
            <button
              key={reason}
              type="button"
              className="btn h-16"
              onClick={() => onActs([{ kind: 'released', fishId, reason, airSeconds: air.seconds() }])}
            >
              {REASON_WORDS[reason]}
            </button>
          ))}
        </Picks>
      )}
      <p className="text-quiet text-sm">
        {weight && (
          <>
            Weighs {formatMass(weight.massG, unit)} ± {formatSmallMass(2 * weight.sigmaG, unit)}
            {slot && `, ${Math.round(100 * slot.share)} % of the bag`}
            {slot &&
              slot.upToBestG > 0 &&
              `; its slot has ${formatMass(slot.upToBestG, unit)} to gain up to the best`}
            .{' '}
          </>
        )}
        Lifted {countWords(fish.liftings, 'time', 'times')}, {fish.airSeconds} s in air, {fish.hangingSeconds}{' '}
        s hanging
        {fish.readings.length > 0 &&
          `; scale showed ${fish.readings.map(({ readG }) => formatMass(readG, unit)).join(', ')}`}
        .
      </p>
    </div>
  );
}

function LookPanel({ fish, onActs }: { fish: WellFish; onActs: (acts: WellAct[]) => void }) {
  const [signs, setSigns] = useState<readonly WellSign[]>([]);
  const look = (condition: Condition): void =>
    onActs([{ kind: 'looked', fishId: fish.fishId, condition, signs: [...signs] }]);
  return (
    <div className="grid gap-2">
      <Picks label="Signs, if any">
        {WELL_SIGNS.map((sign) => (
          <Pick
            key={sign}
            isOn={signs.includes(sign)}
            onPick={() =>
              setSigns(signs.includes(sign) ? signs.filter((one) => one !== sign) : [...signs, sign])
            }
          >
            {SIGN_WORDS[sign]}
          </Pick>
        ))}
      </Picks>
      <Picks label="Condition now">
        {CONDITIONS.map((condition) => (
          <button key={condition} type="button" className="btn h-16 min-w-16" onClick={() => look(condition)}>
            {CONDITION_WORDS[condition].word}
          </button>
        ))}
      </Picks>
      {signs.includes('labours') && fish.tagPlace === 'on' && fish.tagId !== null && (
        <p className="text-sm">Take the tag off a fish that labours, and lay it loose beside it.</p>
      )}
    </div>
  );
}

function WeighPanel({
  fish,
  sheet,
  scaleId,
  air,
  onActs,
}: {
  fish: WellFish;
  sheet: RuleSheet;
  scaleId: ScaleId;
  air: AirTime;
  onActs: (acts: WellAct[]) => void;
}) {
  const [weight, setWeight] = useState<{ massG: number | null; from: 'typed' | 'scale' }>({
    massG: null,
    from: 'typed',
  });
  const { massG } = weight;
  const { schools } = useCareChoices();
  const how =
    weight.from === 'scale' ? 'scale' : sideOf('scale-notes', schools) === 'at-once' ? 'typed' : 'memory';
  return (
    <form
      className="grid grid-cols-[1fr_auto] items-start gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (massG === null) return;
        onActs([
          { kind: 'weighed', fishId: fish.fishId, scaleId, readG: massG, how, airSeconds: air.seconds() },
        ]);
      }}
    >
      <MassField
        label="Scale shows"
        unit={massUnitOf(sheet.measure.step)}
        onMass={(read, from) => setWeight({ massG: read, from })}
        isLarge
        withScale
      />
      <button type="submit" className="btn btn-primary mt-7 h-16" disabled={massG === null}>
        Enter
      </button>
    </form>
  );
}
