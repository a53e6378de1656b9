import type { Handling } from '@lauta/core/care';
import type { Identifier } from '@lauta/core/identifier';
import type { LengthSheet } from '@lauta/core/rules';
import { LENGTH_STEPS, formatSteps } from '@lauta/core/units';
import { useState } from 'react';
import type { OpenedPhoto } from '../../bench/benchCalls.ts';
import { HANDLES, type HandleId } from '../../bench/handles.ts';
import { PhotoView } from '../../bench/PhotoView.tsx';
import { Strip } from '../../bench/Strip.tsx';
import { useBenchWorker, useOpenedPhoto, type Bench } from '../../bench/useBench.ts';
import { photoRefusalWords } from '../../bench/words.ts';
import type { Frame } from '../../camera/frames.ts';
import { useInEvent } from '../../event/inEvent.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { Loading } from '../../ui/states.tsx';
import { useObjectUrl } from '../../ui/useObjectUrl.ts';
import { BenchReading, type FocusedOn } from './BenchReading.tsx';
import { CaptureNote } from './CaptureNote.tsx';
import { captureTime } from '@lauta/core/catch';
import { ClaimFields } from './ClaimFields.tsx';
import type { CatchDraft } from './draft.ts';
import { HandleTools } from './HandleTools.tsx';
import { useClaim } from './useClaim.ts';
import { useDraftMarks, type DraftMarks } from './useDraftMarks.ts';
import type { Claimed } from './useSending.ts';
import type { EntrantId } from '@lauta/core/ids';

interface Props {
  draft: CatchDraft;
  sheet: LengthSheet;
  entrantId: EntrantId;
  /** The entrant's card of today; the same object as long as it is the same card. */
  card: Identifier | null;
  change: (part: Partial<CatchDraft>) => void;
  putAway: () => void;
  /** What the button for it says. */
  awayWords: string;
  /** How the fish was treated, as far as it was tapped. */
  handling: Handling | null;
  /** A picture of the person with the fish, to go with the claim. */
  portrait: Frame | null;
  onClaimed: (claimed: Claimed) => void;
}

/** A photograph on the bench: opened, read, corrected where a person wants to, claimed. */
export function ClaimBench(props: Props) {
  const { draft, putAway } = props;
  const bench = useBenchWorker();
  const opened = useOpenedPhoto(bench, draft.photo);
  if (opened.kind === 'opening') return <Loading what="Opening the photograph" />;
  if (opened.kind === 'refused') {
    return (
      <div role="alert" className="grid max-w-xl gap-4 py-6">
        <Signal tone="fault">not a photograph that can be read</Signal>
        <p>{photoRefusalWords(opened.code)}</p>
        <button type="button" className="btn btn-primary main-action" onClick={putAway}>
          Choose another
        </button>
      </div>
    );
  }
  return <OpenBench {...props} bench={bench} photo={opened.photo} />;
}

const TIPS: readonly HandleId[] = ['nose', 'tail'];

function OpenBench({
  draft,
  sheet,
  entrantId,
  card,
  change,
  putAway,
  awayWords,
  handling,
  portrait,
  onClaimed,
  bench,
  photo,
}: Props & { bench: Bench | null; photo: OpenedPhoto }) {
  const { event } = useInEvent();
  const code = card?.code ?? null;
  const src = useObjectUrl(draft.photo);
  const [focus, setFocus] = useState<FocusedOn | null>(null);
  const [sizeKept] = useState({ width: photo.widthPx, height: photo.heightPx });
  const draftMarks = useDraftMarks({ bench, photo, draft, sheet, card, change });
  const { board, boards, chosen, setChosen, hasHandles, isSearching, marks, notes, read, reached } =
    draftMarks;
  const claimedSteps = draft.claimedSteps ?? reached;
  const capture = captureTime(photo.exif, draft.chosenAt, event.zone);
  const { claim, isBusy, error } = useClaim({
    draft,
    photo,
    entrantId,
    capture,
    code,
    marks,
    bench: notes,
    handling,
    portrait,
    onClaimed,
  });
  if (!src || !board) return <Loading what="Opening the photograph" />;
  const onBoard = { bench, photo, board, marks, lens: notes?.lens ?? null, measure: sheet.measure };
  return (
    <div className="grid gap-4 max-lg:pb-24 lg:grid-cols-[minmax(0,1fr)_18.5rem] lg:gap-x-6">
      <PhotoView
        src={src}
        alt="The photograph on the bench"
        size={sizeKept}
        marks={isSearching ? null : marks}
        {...(hasHandles ? { onMarks: draftMarks.setMarks } : {})}
        chosen={hasHandles ? chosen : null}
        onChosen={setChosen}
        outline={draft.analysis?.outline ?? null}
        focus={focus}
        shown={hasHandles ? HANDLES : TIPS}
        className="h-[60vw] max-h-[46vh] min-h-64 lg:h-[44vh]"
      />
      <BenchReading
        draft={draft}
        sheet={sheet}
        draftMarks={draftMarks}
        onBoard={onBoard}
        onFocus={setFocus}
      />
      <HandleTools draftMarks={draftMarks} />
      <div className="min-w-0">
        <Strip {...onBoard} reading={read} />
      </div>
      <ClaimFields
        draft={draft}
        sheet={sheet}
        boards={boards.all}
        code={code}
        reached={reached}
        claimedSteps={claimedSteps}
        lengthMm={read?.apparentMm ?? null}
        guessedMassG={handling?.guessedMassG ?? null}
        change={change}
        chooseBoard={draftMarks.chooseBoard}
      />
      <CaptureNote
        draft={draft}
        sheet={sheet}
        at={capture.at}
        source={capture.source}
        claimedSteps={claimedSteps}
        hasPortrait={portrait !== null}
      />
      <div className="lg:col-span-2">
        {photo.isTruncated && (
          <p role="status">
            <Signal tone="look">the file breaks off</Signal> What there is was read. To claim the fish, copy
            the photograph from the camera again, whole.
          </p>
        )}
        <ProblemNote error={error} />
      </div>
      <ClaimBar
        sheet={sheet}
        draftMarks={draftMarks}
        claimedSteps={claimedSteps}
        canClaim={!photo.isTruncated && !isBusy}
        isBusy={isBusy}
        awayWords={awayWords}
        putAway={putAway}
        claim={(steps) => void claim(steps)}
      />
    </div>
  );
}

/** At the screen's lower edge: put the photograph away, or claim what it reads. */
function ClaimBar({
  sheet,
  draftMarks,
  claimedSteps,
  canClaim,
  isBusy,
  awayWords,
  putAway,
  claim,
}: Pick<Props, 'sheet' | 'awayWords' | 'putAway'> & {
  draftMarks: DraftMarks;
  claimedSteps: number | null;
  canClaim: boolean;
  isBusy: boolean;
  claim: (steps: number) => void;
}) {
  const { hasMarks, isSearching, isSettled } = draftMarks;
  return (
    <div className="bg-base-100 border-base-300 z-10 flex gap-2 border-t px-4 py-3 max-lg:fixed max-lg:inset-x-0 max-lg:bottom-[calc(4rem+2px+env(safe-area-inset-bottom))] lg:sticky lg:-bottom-8 lg:col-span-2 lg:-mx-7 lg:-mb-8 lg:px-7">
      <button type="button" className="btn h-16" disabled={isBusy} onClick={putAway}>
        {awayWords}
      </button>
      <button
        type="button"
        className="btn btn-primary main-action grow"
        disabled={!canClaim || !isSettled || claimedSteps === null}
        onClick={() => claim(claimedSteps ?? 0)}
      >
        {isBusy
          ? 'Keeping it …'
          : isSearching
            ? 'Reading …'
            : !hasMarks
              ? 'Set the handles first'
              : claimedSteps === null
                ? 'Not readable yet'
                : `Claim ${formatSteps(claimedSteps, sheet.measure.step)} ${LENGTH_STEPS[sheet.measure.step].unit}`}
      </button>
    </div>
  );
}
