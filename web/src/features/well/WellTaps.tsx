import type { RuleSheet } from '@lauta/core/rules';
import type { LiveWell, WellAct, WellOutlook } from '@lauta/core/well';
import { actWords, fishWords } from '@lauta/words/well';
import type { BeamPair } from './CullPanel.tsx';
import type { EntryId, FishId } from '@lauta/core/ids';

type OnActs = (acts: readonly WellAct[]) => void;

/** Docked under the thumb: the one thing to do now, and undo. */
export function WellTaps({
  well,
  outlook,
  sheet,
  last,
  onHang,
  onLetGo,
  onIn,
  onActs,
}: {
  well: LiveWell;
  outlook: WellOutlook;
  sheet: RuleSheet;
  last: { entryId: EntryId; act: WellAct } | null;
  onHang: (pair: BeamPair) => void;
  onLetGo: (fishId: FishId) => void;
  onIn: () => void;
  onActs: OnActs;
}) {
  const next = mainAct(outlook);
  const isOver = well.fish.length > sheet.bagLimit;
  return (
    <div className="bg-base-100 border-base-300 grid grid-cols-[2fr_1fr] gap-2 max-lg:sticky max-lg:bottom-16 max-lg:z-10 max-lg:-mx-4 max-lg:border-t max-lg:px-4 max-lg:py-3">
      {next ? (
        <button
          type="button"
          className="btn btn-primary h-16 text-lg"
          onClick={() => (next.kind === 'hang' ? onHang(next.pair) : onLetGo(next.fishId))}
        >
          {next.kind === 'hang'
            ? `Hang ${next.pair.map((fishId) => fishWords(well, sheet, fishId)).join(' and ')}`
            : `Let ${fishWords(well, sheet, next.fishId)} go`}
        </button>
      ) : (
        <button type="button" className={`btn h-16 text-lg ${isOver ? '' : 'btn-primary'}`} onClick={onIn}>
          A fish comes in
        </button>
      )}
      <button
        type="button"
        className="btn h-16 px-1 text-sm leading-tight"
        disabled={!last}
        onClick={() => last && onActs([{ kind: 'undone', entryId: last.entryId }])}
      >
        {last ? `Undo: ${actWords(last.act, well, sheet)}` : 'Undo'}
      </button>
    </div>
  );
}

/** With one too many aboard the one thing to do: hang two, or let one go. */
function mainAct(
  outlook: WellOutlook,
): { kind: 'hang'; pair: BeamPair } | { kind: 'let-go'; fishId: FishId } | null {
  if (outlook.kind === 'length')
    return outlook.releaseId === null ? null : { kind: 'let-go', fishId: outlook.releaseId };
  const { advice } = outlook;
  if (advice.kind === 'beam') return { kind: 'hang', pair: [advice.beam.leftId, advice.beam.rightId] };
  return advice.kind === 'release' ? { kind: 'let-go', fishId: advice.fishId } : null;
}

/** All looked at without a change, and how many a person counts. */
export function LookedAndCounted({
  well,
  bagLimit,
  isOpen,
  onToggle,
  onActs,
}: {
  well: LiveWell;
  bagLimit: number;
  isOpen: boolean;
  onToggle: () => void;
  onActs: OnActs;
}) {
  return (
    <div className="grid gap-2">
      <div className="grid grid-cols-2 gap-2">
        <button
          type="button"
          className="btn h-16 px-1 leading-tight"
          disabled={well.fish.length === 0}
          onClick={() => onActs(lookAtAll(well.fish))}
        >
          All looked at, no change
        </button>
        <button
          type="button"
          aria-expanded={isOpen}
          className="btn h-16 px-1 leading-tight"
          onClick={onToggle}
        >
          Count by hand
        </button>
      </div>
      {isOpen && (
        <div className="grid grid-cols-4 gap-2 sm:grid-cols-8" role="group" aria-label="Fish counted">
          {Array.from({ length: bagLimit + 3 }, (_, count) => (
            <button
              key={count}
              type="button"
              className="btn num h-16 text-xl"
              onClick={() => onActs([{ kind: 'declared', count }])}
            >
              {count}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}

function lookAtAll(
  fish: readonly { fishId: FishId; condition: Extract<WellAct, { kind: 'looked' }>['condition'] }[],
): WellAct[] {
  return fish.map(({ fishId, condition }) => ({ kind: 'looked', fishId, condition, signs: [] }));
}
