import type { RuleSheet } from '@lauta/core/rules';
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
import { Field } from '../../ui/Field.tsx';
import { Pick, Picks } from '../../ui/Picks.tsx';
import { ScaleLogbook, USUAL_FISH_G } from '../../scale/ScaleLogbook.tsx';
import { TagMark } from './TagMark.tsx';
import type { ScaleId } from '@lauta/core/ids';

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
  scaleId: ScaleId;
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
          use={{ usualName: 'Hanging scale', load: 'a fish', loadG: USUAL_FISH_G, isOnTable: false }}
          step={sheet.measure.step}
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
