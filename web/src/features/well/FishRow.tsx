import type { RuleSheet } from '@lauta/core/rules';
import { formatMass, formatSteps, massUnitOf } from '@lauta/core/units';
import { findTag, minutesUnseen, type LiveWell, type WellFish, type WellOutlook } from '@lauta/core/well';
import { Signal } from '../../ui/Signal.tsx';
import { speciesName } from '@lauta/words/catch';
import { TagMark } from './TagMark.tsx';
import { CONDITION_WORDS } from '@lauta/words/well';
import type { FishId } from '@lauta/core/ids';

/** A fish aboard as a bar of its weight from the stop, with its doubt; a tap opens what can be done with it. */
export function FishRow({
  fish,
  well,
  outlook,
  sheet,
  nowMs,
  isSmallest,
  isUnlooked,
  isOpen,
  onOpen,
}: {
  fish: WellFish;
  well: LiveWell;
  outlook: WellOutlook;
  sheet: RuleSheet;
  nowMs: number;
  isSmallest: boolean;
  isUnlooked: boolean;
  isOpen: boolean;
  onOpen: () => void;
}) {
  const { word, tone } = CONDITION_WORDS[fish.condition];
  const minutes = minutesUnseen(fish, nowMs);
  const bar = barOf(fish.fishId, outlook, sheet);
  return (
    <button
      type="button"
      aria-expanded={isOpen}
      className={`grid min-h-16 w-full cursor-pointer grid-cols-[2.75rem_1fr] items-center gap-x-3 py-1 text-left ${isOpen ? 'bg-base-200' : ''}`}
      onClick={onOpen}
    >
      <TagMark tag={findTag(well.settings, fish.tagId)} isLoose={fish.tagPlace === 'loose'} />
      <span className="grid gap-0.5">
        <span className="relative flex h-8 items-center">
          <i className="bg-stop absolute inset-y-0 -left-1 w-1" />
          {bar && (
            <>
              <i className="bg-fish absolute inset-y-0 left-0" style={{ width: `${100 * bar.share}%` }} />
              <i
                className="border-base-content absolute top-1/2 border-t-2"
                style={{ left: `${100 * bar.from}%`, width: `${100 * (bar.to - bar.from)}%` }}
              />
            </>
          )}
          <b className="num relative pl-2 text-xl">{bar?.words ?? 'not weighed'}</b>
        </span>
        <span className="flex flex-wrap items-center gap-x-2.5 text-sm leading-tight">
          {isSmallest && <b>smallest</b>}
          <span>{speciesName(sheet, fish.speciesId)}</span>
          <Signal tone={tone}>{word}</Signal>
          {isUnlooked ? (
            <Signal tone="look">{minutes} min ago</Signal>
          ) : (
            <span className="text-quiet">{minutes} min ago</span>
          )}
          {bar?.isGuess && <span className="text-quiet">not weighed</span>}
          {well.settings.compartments > 1 && <span className="text-quiet">in {fish.compartment}</span>}
        </span>
      </span>
    </button>
  );
}

interface Bar {
  share: number;
  from: number;
  to: number;
  words: string;
  isGuess: boolean;
}

/** The heaviest fish aboard fills nine tenths of the row. */
const FILLED = 0.9;

function barOf(fishId: FishId, outlook: WellOutlook, sheet: RuleSheet): Bar | null {
  if (outlook.kind === 'length') {
    const longest = Math.max(1, ...outlook.fish.map(({ steps }) => steps ?? 0));
    const steps = outlook.fish.find((one) => one.fishId === fishId)?.steps ?? null;
    if (steps === null) return { share: 0, from: 0, to: 0, words: 'not measured', isGuess: false };
    const share = (FILLED * steps) / longest;
    return { share, from: share, to: share, words: formatSteps(steps, sheet.measure.step), isGuess: false };
  }
  const unit = massUnitOf(sheet.measure.step);
  const found = outlook.fish.find((one) => one.fishId === fishId);
  if (!found) return null;
  const heaviest = Math.max(1, ...outlook.fish.map(({ massG }) => massG));
  const shareOf = (massG: number): number => Math.min(1, Math.max(0, (FILLED * massG) / heaviest));
  return {
    share: shareOf(found.massG),
    from: shareOf(found.massG - 2 * found.sigmaG),
    to: shareOf(found.massG + 2 * found.sigmaG),
    words: found.isGuess ? `about ${formatMass(found.massG, unit)}` : formatMass(found.massG, unit),
    isGuess: found.isGuess,
  };
}
