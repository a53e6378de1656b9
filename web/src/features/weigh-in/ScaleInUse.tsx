import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { WeightSheet } from '@lauta/core/rules';
import { isScaleAct } from '@lauta/core/scale';
import { scaleDoubts, type WeighIn, type WeighInAct, type WeighInEntry } from '@lauta/core/weigh-in';
import { Signal } from '../../ui/Signal.tsx';
import { ScaleLogbook, USUAL_FISH_G } from '../../scale/ScaleLogbook.tsx';
import { SCALE_DOUBT_WORDS, actWords } from '@lauta/words/weighIn';
import type { ScaleId } from '@lauta/core/ids';

/** The scale at this station with its logbook; a weigh-in of two stations has two. */
export function ScaleInUse({
  weighIn,
  entries,
  sheet,
  scaleId,
  nowMs,
  onScale,
  onActs,
}: {
  weighIn: WeighIn;
  entries: readonly WeighInEntry[];
  sheet: WeightSheet;
  /** Null where nobody said which. */
  scaleId: ScaleId | null;
  nowMs: number;
  onScale: (scaleId: ScaleId) => void;
  onActs: (acts: WeighInAct[]) => boolean;
}) {
  const [newId, setNew] = useState(() => uuidv7());
  const [isNew, setIsNew] = useState(false);
  const scale = scaleId === null ? undefined : weighIn.scales.get(scaleId);
  const [doubt] = scaleDoubts(scale, null, nowMs);
  const shownId = isNew || scaleId === null ? newId : scaleId;
  const last = entries.findLast(
    ({ entryId, act }) => isScaleAct(act) && act.scaleId === scaleId && !weighIn.undone.has(entryId),
  );
  return (
    <details className="border-base-300 border-t">
      <summary className="flex min-h-12 cursor-pointer flex-wrap items-center gap-x-4">
        <span>{scale ? `Scale: ${scale.name}` : 'The scale in use'}</span>
        {doubt ? (
          <Signal tone={doubt === 'outside-tolerance' ? 'fault' : 'look'}>{SCALE_DOUBT_WORDS[doubt]}</Signal>
        ) : (
          <Signal tone="clear">checked</Signal>
        )}
      </summary>
      <div className="grid gap-4 pb-4">
        {(weighIn.scales.size > 1 || (weighIn.scales.size > 0 && isNew)) && (
          <select
            aria-label="Scale at this station"
            className="select h-12 max-w-xs"
            value={isNew ? '' : (scaleId ?? '')}
            onChange={(e) => {
              setIsNew(false);
              onScale(e.target.value);
            }}
          >
            {(isNew || scaleId === null) && <option value="">choose</option>}
            {[...weighIn.scales].map(([id, { name }]) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        )}
        <ScaleLogbook
          key={shownId}
          scale={isNew ? null : (scale ?? null)}
          scaleId={shownId}
          use={{ usualName: `Bench scale${weighIn.scales.size > 0 ? ` ${weighIn.scales.size + 1}` : ''}`, load: 'a full bag', loadG: sheet.bagLimit * USUAL_FISH_G, isOnTable: true }} // prettier-ignore
          step={sheet.measure.step}
          nowMs={nowMs}
          onActs={(acts) => {
            if (!onActs(acts) || shownId !== newId) return;
            onScale(newId);
            setIsNew(false);
            setNew(uuidv7());
          }}
        />
        <div className="flex flex-wrap gap-2">
          {last && !isNew && (
            <button
              type="button"
              className="btn h-12"
              onClick={() => onActs([{ kind: 'undone', entryId: last.entryId }])}
            >
              Undo: {actWords(last.act)}
            </button>
          )}
          {weighIn.scales.size > 0 && (
            <button type="button" className="btn h-12" onClick={() => setIsNew(!isNew)}>
              {isNew ? 'Leave it' : 'Another scale'}
            </button>
          )}
        </div>
      </div>
    </details>
  );
}
