import { HandlePad } from '../../bench/HandlePad.tsx';
import { Signal } from '../../ui/Signal.tsx';
import type { DraftMarks } from './useDraftMarks.ts';

/** The handles of the photograph, moved by hand; out of sight until somebody wants them or the bench found nothing. */
export function HandleTools({ draftMarks }: { draftMarks: DraftMarks }) {
  const { hasHandles, isSearching, isSnapping, marks } = draftMarks;
  return (
    <div className="grid content-start gap-2 lg:col-start-2 lg:row-start-2">
      {hasHandles ? (
        <>
          <HandlePad
            marks={marks}
            onMarks={draftMarks.setMarks}
            chosen={draftMarks.chosen}
            onChosen={draftMarks.setChosen}
            undo={draftMarks.undo}
          />
          <div className="flex flex-wrap gap-1">
            <button
              type="button"
              className="btn h-16 lg:h-12"
              disabled={isSnapping}
              onClick={() => void draftMarks.snap()}
            >
              {isSnapping ? 'Looking …' : 'Snap corners to the lines'}
            </button>
            <button type="button" className="btn h-16 lg:h-12" onClick={draftMarks.searchAgain}>
              Let the bench look again
            </button>
          </div>
          {draftMarks.hasSnapFailed && (
            <p role="status">
              <Signal tone="look">no board of this kind near these corners</Signal>
            </p>
          )}
        </>
      ) : (
        !isSearching && (
          <button
            type="button"
            className="btn h-16 lg:h-12 justify-self-start"
            onClick={draftMarks.askForHandles}
          >
            Correct by hand
          </button>
        )
      )}
    </div>
  );
}
