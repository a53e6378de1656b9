import type { RuleSheet } from '@lauta/core/rules';
import type { LiveWell, WellAct, WellOutlook } from '@lauta/core/well';
import { FishActions } from './FishActions.tsx';
import { FishRow } from './FishRow.tsx';
import type { FishId, ScaleId, TagId } from '@lauta/core/ids';

/** The fish in the well, in the order in which their tags hang; one of them open for what can be done with it. */
export function WellFishList({
  well,
  outlook,
  sheet,
  scaleId,
  nowMs,
  unlooked,
  openId,
  setOpen,
  onActs,
}: {
  well: LiveWell;
  outlook: WellOutlook;
  sheet: RuleSheet;
  scaleId: ScaleId;
  nowMs: number;
  /** Fish that nobody has looked at for too long. */
  unlooked: readonly string[];
  openId: string | null;
  setOpen: (fishId: FishId | null) => void;
  onActs: (acts: readonly WellAct[]) => void;
}) {
  const byTag = well.fish.toSorted((a, b) => hangingPlace(well, a.tagId) - hangingPlace(well, b.tagId));
  return (
    <ul className="ruled border-base-300 border-y" aria-label="Fish in the well">
      {byTag.map((fish) => (
        <li key={fish.fishId}>
          <FishRow
            fish={fish}
            well={well}
            outlook={outlook}
            sheet={sheet}
            nowMs={nowMs}
            isSmallest={fish.fishId === outlook.smallestId}
            isUnlooked={unlooked.includes(fish.fishId)}
            isOpen={openId === fish.fishId}
            onOpen={() => setOpen(openId === fish.fishId ? null : fish.fishId)}
          />
          {openId === fish.fishId && (
            <FishActions
              fish={fish}
              well={well}
              outlook={outlook}
              sheet={sheet}
              scaleId={scaleId}
              onActs={onActs}
            />
          )}
        </li>
      ))}
    </ul>
  );
}

/** Where a tag hangs; fish without one stand last. */
function hangingPlace({ settings }: { settings: { tags: { tagId: TagId }[] } }, tagId: TagId | null): number {
  const place = settings.tags.findIndex((tag) => tag.tagId === tagId);
  return place < 0 ? settings.tags.length : place;
}
