import { useState } from 'react';
import { SHIPPED_BOARDS, findBoard, type BoardMarks } from '@lauta/core/photo';
import { stepsReached, type RuleSheet } from '@lauta/core/rules';
import { LENGTH_STEPS, formatSteps } from '@lauta/core/units';
import { Signal } from '../../frame/Signal.tsx';
import { useInEvent } from '../../frame/inEvent.ts';
import { Loading } from '../../frame/states.tsx';
import { useObjectUrl } from '../../frame/useObjectUrl.ts';
import { ProblemNote } from '../../problem/ProblemNote.tsx';
import { HandlePad } from '../photo/HandlePad.tsx';
import { PhotoView } from '../photo/PhotoView.tsx';
import { ReadingFigure } from '../photo/ReadingFigure.tsx';
import { Strip, TailCloseUp } from '../photo/Strip.tsx';
import type { OpenedPhoto } from '../photo/benchProtocol.ts';
import { firstMarks, type HandleId } from '../photo/handles.ts';
import { useBenchWorker, useOpenedPhoto, useReading, type Bench } from '../photo/useBench.ts';
import { photoRefusalWords } from '../photo/words.ts';
import { CaptureNote } from './CaptureNote.tsx';
import { ClaimFields } from './ClaimFields.tsx';
import { captureTime } from './captureTime.ts';
import type { CatchDraft } from './draft.ts';
import { useClaim, type Claimed } from './useClaim.ts';

interface Props {
  draft: CatchDraft;
  sheet: RuleSheet;
  entrantId: string;
  /** The code on the entrant's card today. */
  code: string | null;
  change: (part: Partial<CatchDraft>) => void;
  putAway: () => void;
  onClaimed: (claimed: Claimed) => void;
}

/** A photograph on the bench: opened, measured by hand, claimed. */
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

function OpenBench({
  draft,
  sheet,
  entrantId,
  code,
  change,
  putAway,
  onClaimed,
  bench,
  photo,
}: Props & { bench: Bench | null; photo: OpenedPhoto }) {
  const { event } = useInEvent();
  const src = useObjectUrl(draft.photo);
  const [chosen, setChosen] = useState<HandleId | null>('zero-far');
  const [history, setHistory] = useState<readonly BoardMarks[]>([]);
  const [initial] = useState(() => firstMarks(photo.widthPx, photo.heightPx));
  const marks = draft.marks ?? initial;
  const board = findBoard(draft.boardId) ?? SHIPPED_BOARDS[0];
  const { reading, isCurrent } = useReading(bench, photo, draft.boardId, marks);
  const size = { width: photo.widthPx, height: photo.heightPx };
  const [sizeKept] = useState(size);
  const setMarks = (next: BoardMarks): void => {
    setHistory((former) => [...former.slice(-200), marks]);
    change({ marks: next });
  };
  const last = history.at(-1);
  const undo = last
    ? () => {
        setHistory(history.slice(0, -1));
        change({ marks: last });
      }
    : null;

  const read = reading?.ok ? reading.value : null;
  const reached = read ? stepsReached(sheet.measure, read.apparentMm) : null;
  const claimedSteps = draft.claimedSteps ?? reached;
  const capture = captureTime(photo.exif, draft.chosenAt, event.zone);
  const { claim, stop, isBusy, progress, error } = useClaim({
    draft,
    photo,
    entrantId,
    capture,
    code,
    marks,
    onClaimed,
  });
  const canClaim = isCurrent && read !== null && draft.marks !== null && claimedSteps !== null && !isBusy;
  if (!src || !board) return <Loading what="Opening the photograph" />;
  const onBoard = { bench, photo, board, marks, measure: sheet.measure };
  return (
    <div className="grid gap-4 lg:grid-cols-[minmax(0,1fr)_18.5rem] lg:gap-x-6">
      <PhotoView
        src={src}
        alt="The photograph on the bench"
        size={sizeKept}
        marks={marks}
        onMarks={setMarks}
        chosen={chosen}
        onChosen={setChosen}
        className="h-[60vw] max-h-[46vh] min-h-64 lg:h-[44vh]"
      />
      <div className="lg:col-start-2 lg:row-start-2">
        <HandlePad marks={marks} onMarks={setMarks} chosen={chosen} onChosen={setChosen} undo={undo} />
      </div>
      <div className="grid content-start gap-3 lg:col-start-2 lg:row-start-1">
        {draft.marks === null ? (
          <p role="status">
            Set the handles: four corners of the ruled face, then the nose and the tail’s farthest point.
          </p>
        ) : (
          <ReadingFigure reading={reading} measure={sheet.measure} />
        )}
        {read && draft.marks && <TailCloseUp {...onBoard} reading={read} />}
      </div>
      <div className="min-w-0">
        <Strip {...onBoard} reading={read} />
      </div>
      <ClaimFields
        draft={draft}
        sheet={sheet}
        code={code}
        reached={reached}
        claimedSteps={claimedSteps}
        change={change}
      />
      <CaptureNote
        draft={draft}
        sheet={sheet}
        at={capture.at}
        source={capture.source}
        claimedSteps={claimedSteps}
      />
      <div className="lg:col-span-2">
        <ProblemNote error={error} />
        {isBusy && <progress className="progress w-full" value={progress} max={1} aria-label="Sending" />}
      </div>
      <div className="bg-base-100 border-base-300 sticky bottom-16 z-10 -mx-4 flex gap-2 border-t px-4 py-3 sm:-mx-7 sm:px-7 lg:-bottom-8 lg:col-span-2 lg:-mb-8">
        <button type="button" className="btn h-16" onClick={isBusy ? stop : putAway}>
          {isBusy ? 'Stop' : 'Put away'}
        </button>
        <button
          type="button"
          className="btn btn-primary main-action grow"
          disabled={!canClaim}
          onClick={() => void claim(claimedSteps ?? 0)}
        >
          {isBusy
            ? 'Sending …'
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
