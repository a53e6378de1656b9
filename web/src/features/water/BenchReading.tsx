import type { ComponentProps } from 'react';
import type { LengthSheet } from '@lauta/core/rules';
import type { Point } from '@lauta/vision';
import { FindingsList } from '../../bench/FindingsList.tsx';
import { ReadingFigure } from '../../bench/ReadingFigure.tsx';
import { TailCloseUp } from '../../bench/Strip.tsx';
import { TROUBLE_WORDS } from '../../bench/words.ts';
import { Signal } from '../../ui/Signal.tsx';
import type { CatchDraft } from './draft.ts';
import type { DraftMarks } from './useDraftMarks.ts';

/** A place of the photograph that a finding speaks of. */
export interface FocusedOn {
  place: Point;
}

function SearchProgress({ share }: { share: number }) {
  return (
    <div role="status" className="grid gap-2">
      <p>{share < 0.7 ? 'Looking for the board …' : 'Looking for the fish …'}</p>
      <progress className="progress w-full" value={share} max={1} aria-label="Reading the photograph" />
    </div>
  );
}

/** What the photograph reads, or how far the bench is, and what it found to be wrong. */
export function BenchReading({
  draft,
  sheet,
  draftMarks,
  onBoard,
  onFocus,
}: {
  draft: CatchDraft;
  sheet: LengthSheet;
  draftMarks: DraftMarks;
  onBoard: Omit<ComponentProps<typeof TailCloseUp>, 'reading'>;
  onFocus: (focus: FocusedOn | null) => void;
}) {
  const { analysis } = draft;
  const { hasMarks, read, reading, search } = draftMarks;
  return (
    <div className="grid content-start gap-3 lg:col-start-2 lg:row-start-1">
      {draftMarks.isSearching ? (
        <SearchProgress share={search.progress ?? 0} />
      ) : hasMarks ? (
        <ReadingFigure reading={reading} measure={sheet.measure} />
      ) : (
        <div role="status" className="grid gap-1">
          <Signal tone="look">not read by the bench</Signal>
          <p>
            {search.hasFailed
              ? 'The bench broke off. Set the handles by hand.'
              : analysis?.trouble
                ? TROUBLE_WORDS[analysis.trouble]
                : 'Set the handles: four corners of the ruled face, then the nose and the tail’s farthest point.'}
          </p>
        </div>
      )}
      {analysis && (
        <FindingsList
          findings={analysis.findings}
          step={sheet.measure.step}
          isFishThere
          onShow={({ place }) => onFocus(place && { place })}
        />
      )}
      {read && hasMarks && <TailCloseUp {...onBoard} reading={read} />}
    </div>
  );
}
