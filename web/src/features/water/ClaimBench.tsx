import { useMemo, useState } from 'react';
import type { Identifier } from '@lauta/core/identifier';
import type { Handling } from '@lauta/core/care';
import { MARK_NAMES, type BoardMarks, type MarkName, type Point } from '@lauta/vision';
import { stepsReached, type LengthSheet } from '@lauta/core/rules';
import { LENGTH_STEPS, formatSteps } from '@lauta/core/units';
import { Signal } from '../../ui/Signal.tsx';
import { useInEvent } from '../../event/inEvent.ts';
import { Loading } from '../../ui/states.tsx';
import { useObjectUrl } from '../../ui/useObjectUrl.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { useBoards } from '../../queries/boards.ts';
import type { Frame } from '../../camera/frames.ts';
import { FindingsList } from '../../bench/FindingsList.tsx';
import { HandlePad } from '../../bench/HandlePad.tsx';
import { PhotoView } from '../../bench/PhotoView.tsx';
import { ReadingFigure } from '../../bench/ReadingFigure.tsx';
import { Strip, TailCloseUp } from '../../bench/Strip.tsx';
import type { OpenedPhoto } from '../../bench/benchProtocol.ts';
import { benchNotes, startMarks } from '../../bench/benchMarks.ts';
import { HANDLES, type HandleId } from '../../bench/handles.ts';
import { useAnalysis, useBenchWorker, useOpenedPhoto, useReading, type Bench } from '../../bench/useBench.ts';
import { TROUBLE_WORDS, photoRefusalWords } from '../../bench/words.ts';
import { CaptureNote } from './CaptureNote.tsx';
import { ClaimFields } from './ClaimFields.tsx';
import { captureTime } from './captureTime.ts';
import type { CatchDraft } from './draft.ts';
import { useClaim } from './useClaim.ts';
import type { Claimed } from './useSending.ts';

interface Props {
  draft: CatchDraft;
  sheet: LengthSheet;
  entrantId: string;
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

/** Marks before a change, to go back to. */
interface Step {
  marks: BoardMarks | null;
  byHand: CatchDraft['byHand'];
}

function movedMarks(before: BoardMarks, after: BoardMarks): MarkName[] {
  return MARK_NAMES.filter((name) => JSON.stringify(before[name]) !== JSON.stringify(after[name]));
}

function SearchProgress({ share }: { share: number }) {
  return (
    <div role="status" className="grid gap-2">
      <p>{share < 0.7 ? 'Looking for the board …' : 'Looking for the fish …'}</p>
      <progress className="progress w-full" value={share} max={1} aria-label="Reading the photograph" />
    </div>
  );
}

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
  const [focus, setFocus] = useState<{ place: Point } | null>(null);
  const src = useObjectUrl(draft.photo);
  const [chosen, setChosen] = useState<HandleId | null>('tail');
  const [history, setHistory] = useState<readonly Step[]>([]);
  const [wantsHandles, setWantsHandles] = useState(false);
  const [isSnapping, setSnapping] = useState(false);
  const [snapFailed, setSnapFailed] = useState(false);
  const { analysis, byHand } = draft;
  const boards = useBoards(event.eventId);
  const board = boards.find(draft.boardId);
  const search = useAnalysis(
    bench,
    photo,
    board,
    boards.all,
    sheet.boards,
    card,
    analysis === null && draft.marks === null,
    (found) => {
      setHistory([]);
      change({
        analysis: found,
        marks: found.marks,
        byHand: [],
        ...(found.found ? { boardId: found.found.boardId } : {}),
      });
    },
  );
  const isSearching = search.progress !== null;
  const start = useMemo(() => startMarks(analysis, boards.all, photo), [analysis, boards, photo]);
  const marks = draft.marks ?? start;
  const notes = useMemo(
    () =>
      benchNotes(
        analysis,
        draft.marks && analysis?.marks ? byHand : [...new Set([...byHand, 'nose' as const, 'tail' as const])],
      ),
    [analysis, byHand, draft.marks],
  );
  const { reading, isCurrent } = useReading(bench, photo, board, isSearching ? null : marks, notes);
  const size = { width: photo.widthPx, height: photo.heightPx };
  const [sizeKept] = useState(size);
  const setMarks = (next: BoardMarks): void => {
    setHistory((former) => [...former.slice(-200), { marks: draft.marks, byHand }]);
    setSnapFailed(false);
    const moved = chosen ? [...new Set([...byHand, ...movedMarks(marks, next)])] : byHand;
    change({ marks: next, byHand: moved });
  };
  const last = history.at(-1);
  const undo = last
    ? () => {
        setHistory(history.slice(0, -1));
        change(last);
      }
    : null;
  const snap = async (): Promise<void> => {
    if (!bench || !board) return;
    setSnapping(true);
    const found = await bench
      .call('analyse', {
        board,
        others: boards.all,
        approved: sheet.boards,
        expected: card,
        photo,
        near: marks.corners,
      })
      .catch(() => null);
    setSnapping(false);
    if (!found?.found || found.found.boardId !== draft.boardId) {
      setSnapFailed(true);
      return;
    }
    setHistory((former) => [...former.slice(-200), { marks: draft.marks, byHand }]);
    // What was found by hand apart from the corners stays.
    const kept = byHand.filter((name) => name !== 'corners');
    change({
      analysis: found,
      byHand: found.marks ? kept : [...new Set([...kept, 'nose' as const, 'tail' as const])],
      marks: {
        corners: found.found.corners,
        nose: kept.includes('nose') || !found.marks ? marks.nose : found.marks.nose,
        tail: kept.includes('tail') || !found.marks ? marks.tail : found.marks.tail,
      },
    });
  };
  const searchAgain = (): void => {
    setHistory([]);
    setWantsHandles(false);
    change({ analysis: null, marks: null, byHand: [], claimedSteps: null });
  };
  const hasHandles = !isSearching && (wantsHandles || draft.marks === null || byHand.length > 0);
  const read = reading?.ok ? reading.value : null;
  const reached = read ? stepsReached(sheet.measure, read.apparentMm) : null;
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
  const canClaim =
    !photo.isTruncated &&
    !isSearching &&
    !isSnapping &&
    isCurrent &&
    read !== null &&
    draft.marks !== null &&
    claimedSteps !== null &&
    !isBusy;
  if (!src || !board) return <Loading what="Opening the photograph" />;
  const onBoard = { bench, photo, board, marks, lens: notes?.lens ?? null, measure: sheet.measure };
  return (
    <div className="grid gap-4 max-lg:pb-24 lg:grid-cols-[minmax(0,1fr)_18.5rem] lg:gap-x-6">
      <PhotoView
        src={src}
        alt="The photograph on the bench"
        size={sizeKept}
        marks={isSearching ? null : marks}
        {...(hasHandles ? { onMarks: setMarks } : {})}
        chosen={hasHandles ? chosen : null}
        onChosen={setChosen}
        outline={analysis?.outline ?? null}
        focus={focus}
        shown={hasHandles ? HANDLES : TIPS}
        className="h-[60vw] max-h-[46vh] min-h-64 lg:h-[44vh]"
      />
      <div className="grid content-start gap-3 lg:col-start-2 lg:row-start-1">
        {isSearching ? (
          <SearchProgress share={search.progress ?? 0} />
        ) : draft.marks === null ? (
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
        ) : (
          <ReadingFigure reading={reading} measure={sheet.measure} />
        )}
        {analysis && (
          <FindingsList
            findings={analysis.findings}
            step={sheet.measure.step}
            isFishThere
            onShow={({ place }) => setFocus(place && { place })}
          />
        )}
        {read && draft.marks && <TailCloseUp {...onBoard} reading={read} />}
      </div>
      <div className="grid content-start gap-2 lg:col-start-2 lg:row-start-2">
        {hasHandles ? (
          <>
            <HandlePad marks={marks} onMarks={setMarks} chosen={chosen} onChosen={setChosen} undo={undo} />
            <div className="flex flex-wrap gap-1">
              <button
                type="button"
                className="btn h-16 lg:h-12"
                disabled={isSnapping}
                onClick={() => void snap()}
              >
                {isSnapping ? 'Looking …' : 'Snap corners to the lines'}
              </button>
              <button type="button" className="btn h-16 lg:h-12" onClick={searchAgain}>
                Let the bench look again
              </button>
            </div>
            {snapFailed && (
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
              onClick={() => setWantsHandles(true)}
            >
              Correct by hand
            </button>
          )
        )}
      </div>
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
        chooseBoard={(boardId) =>
          // Marks that nobody has touched belong to the board that they were found on.
          change(byHand.length === 0 ? { boardId, analysis: null, marks: null } : { boardId })
        }
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
      <div className="bg-base-100 border-base-300 z-10 flex gap-2 border-t px-4 py-3 max-lg:fixed max-lg:inset-x-0 max-lg:bottom-[calc(4rem+2px+env(safe-area-inset-bottom))] lg:sticky lg:-bottom-8 lg:col-span-2 lg:-mx-7 lg:-mb-8 lg:px-7">
        <button type="button" className="btn h-16" disabled={isBusy} onClick={putAway}>
          {awayWords}
        </button>
        <button
          type="button"
          className="btn btn-primary main-action grow"
          disabled={!canClaim}
          onClick={() => void claim(claimedSteps ?? 0)}
        >
          {isBusy
            ? 'Keeping it …'
            : isSearching
              ? 'Reading …'
              : draft.marks === null
                ? 'Set the handles first'
                : claimedSteps === null
                  ? 'Not readable yet'
                  : `Claim ${formatSteps(claimedSteps, sheet.measure.step)} ${LENGTH_STEPS[sheet.measure.step].unit}`}
        </button>
      </div>
    </div>
  );
}
