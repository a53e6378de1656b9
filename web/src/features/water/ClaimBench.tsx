import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import type { CatchMark } from '@lauta/contract';
import type { BoardMarks } from '@lauta/core/photo';
import { SHIPPED_BOARDS, findBoard } from '@lauta/core/photo';
import { findSpecies, stepsReached, type RuleSheet } from '@lauta/core/rules';
import { placeInSchedule } from '@lauta/core/schedule';
import { formatSteps, LENGTH_STEPS } from '@lauta/core/units';
import { clockTime } from '../../clock/words.ts';
import { sendCommand } from '../../door/door.ts';
import { ApiProblem } from '../../door/http.ts';
import { uploadPhotograph } from '../../door/uploadPhotograph.ts';
import { Field } from '../../frame/Field.tsx';
import { Signal } from '../../frame/Signal.tsx';
import { Loading } from '../../frame/states.tsx';
import { useInEvent } from '../../frame/inEvent.ts';
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
import type { Claimed } from './WaterPage.tsx';
import { captureTime } from './captureTime.ts';
import type { CatchDraft } from './draft.ts';

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
  const reading = useReading(bench, photo, draft.boardId, marks);
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
  const canClaim = read !== null && draft.marks !== null && claimedSteps !== null && !isBusy;
  if (!src || !board) return <Loading what="Opening the photograph" />;
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
        {read && draft.marks && (
          <TailCloseUp
            bench={bench}
            photo={photo}
            board={board}
            marks={marks}
            reading={read}
            measure={sheet.measure}
          />
        )}
      </div>
      <div className="min-w-0">
        <Strip
          bench={bench}
          photo={photo}
          board={board}
          marks={marks}
          reading={read}
          measure={sheet.measure}
        />
      </div>
      <div className="grid gap-3 sm:grid-cols-2 lg:col-span-2 lg:grid-cols-4">
        <Field label="Species">
          {(field) => (
            <select
              {...field}
              className="select h-12 w-full"
              value={draft.speciesId}
              onChange={(e) => change({ speciesId: e.target.value })}
            >
              {sheet.species.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
              <option value="other">Another kind</option>
            </select>
          )}
        </Field>
        <Field label="Board">
          {(field) => (
            <select
              {...field}
              className="select h-12 w-full"
              value={draft.boardId}
              onChange={(e) => change({ boardId: e.target.value })}
            >
              {SHIPPED_BOARDS.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                  {sheet.boards.includes(one.id) ? '' : ' (not approved)'}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Field label="Code on the card" hint={code ? `Yours today: ${code}` : 'None is issued for today.'}>
          {(field) => (
            <input
              {...field}
              className="input num h-12 w-full uppercase"
              maxLength={12}
              autoCapitalize="characters"
              autoComplete="off"
              value={draft.identifierCode ?? code ?? ''}
              onChange={(e) => change({ identifierCode: e.target.value.toUpperCase() })}
            />
          )}
        </Field>
        <div className="grid content-start gap-1">
          <span className="font-semibold">Claim</span>
          <div className="flex items-center gap-2">
            <button
              type="button"
              aria-label="One step less"
              className="btn btn-square size-12 text-xl"
              disabled={!claimedSteps}
              onClick={() => change({ claimedSteps: Math.max(0, (claimedSteps ?? 0) - 1) })}
            >
              −
            </button>
            <output className="num min-w-16 text-center text-2xl">
              {claimedSteps === null ? '–' : formatSteps(claimedSteps, sheet.measure.step)}
            </output>
            <button
              type="button"
              aria-label="One step more"
              className="btn btn-square size-12 text-xl"
              disabled={claimedSteps === null}
              onClick={() => change({ claimedSteps: (claimedSteps ?? 0) + 1 })}
            >
              +
            </button>
            {draft.claimedSteps !== null && draft.claimedSteps !== reached && (
              <button
                type="button"
                className="linklike min-h-11 text-sm"
                onClick={() => change({ claimedSteps: null })}
              >
                as read
              </button>
            )}
          </div>
          {draft.claimedSteps !== null && reached !== null && draft.claimedSteps > reached && (
            <p className="text-warning text-sm font-semibold">More than is read: the judge will see both.</p>
          )}
        </div>
      </div>
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

/** When it was caught, and what of that the judge will find marked. */
function CaptureNote({
  draft,
  sheet,
  at,
  source,
  claimedSteps,
}: {
  draft: CatchDraft;
  sheet: RuleSheet;
  at: string;
  source: 'photograph' | 'device';
  claimedSteps: number | null;
}) {
  const { event } = useInEvent();
  const sessions = event.sessions.map((session) => ({
    sessionId: session.sessionId,
    dayId: session.dayId,
    linesInMs: Date.parse(session.linesInAt),
    linesOutMs: Date.parse(session.linesOutAt),
  }));
  const place = placeInSchedule(sessions, Date.parse(at));
  const species = findSpecies(sheet, draft.speciesId);
  const notes: string[] = [];
  if (place.kind === 'before-lines-in') notes.push('Caught before lines-in: the claim is kept and marked.');
  if (place.kind === 'after-lines-out') notes.push('Caught after lines-out: the claim is kept and marked.');
  if (!species) notes.push('This kind is not in the rule sheet: the claim is kept and marked.');
  else if (!species.counts) notes.push(`${species.name} does not count in this event.`);
  else if (species.minimumSteps !== null && claimedSteps !== null && claimedSteps < species.minimumSteps) {
    notes.push(`Under the minimum of ${formatSteps(species.minimumSteps, sheet.measure.step)}.`);
  }
  if (!sheet.boards.includes(draft.boardId))
    notes.push('This board is not approved: the claim is kept and marked.');
  return (
    <div className="lg:col-span-2">
      <p className="text-quiet">
        Caught at <b className="num text-base-content">{clockTime(at, event.zone, true)}</b>,{' '}
        {source === 'photograph'
          ? 'by the photograph’s own time.'
          : 'by this device’s clock: the file tells no time.'}
      </p>
      {notes.map((note) => (
        <p key={note}>
          <Signal tone="look">{note}</Signal>
        </p>
      ))}
    </div>
  );
}

function useClaim({
  draft,
  photo,
  entrantId,
  capture,
  code,
  marks: boardMarks,
  onClaimed,
}: {
  draft: CatchDraft;
  photo: OpenedPhoto;
  entrantId: string;
  capture: { at: string; source: 'photograph' | 'device' };
  code: string | null;
  marks: BoardMarks;
  onClaimed: (claimed: Claimed) => void;
}) {
  const { event } = useInEvent();
  const client = useQueryClient();
  const [isBusy, setBusy] = useState(false);
  const [progress, setProgress] = useState(0);
  const [error, setError] = useState<unknown>(null);
  const isSending = useRef(false);
  const abort = useRef<AbortController | null>(null);
  const isHere = useRef(true);
  useEffect(() => {
    isHere.current = true;
    return () => {
      isHere.current = false;
    };
  }, []);
  const claim = async (claimedSteps: number): Promise<void> => {
    // State comes too late for a double click.
    if (isSending.current) return;
    isSending.current = true;
    const stopping = new AbortController();
    abort.current = stopping;
    setBusy(true);
    setError(null);
    const { photographId, catchId, measurementId, speciesId, boardId } = draft;
    try {
      await uploadPhotograph({
        photographId,
        eventId: event.eventId,
        photo: draft.photo,
        sha256: photo.sha256,
        onProgress: setProgress,
        signal: stopping.signal,
      });
      stopping.signal.throwIfAborted();
      const receipt = await sendCommand(
        'catch.claim',
        event.eventId,
        {
          catchId,
          entrantId,
          speciesId,
          captured: capture,
          photographs: [{ photographId, role: 'board' }],
          measurement: { kind: 'board', measurementId, photographId, boardId, marks: boardMarks },
          claimedSteps,
          identifierCode: (draft.identifierCode ?? code)?.trim() || null,
        },
        draft.commandId,
      );
      const marks = (receipt.result['marks'] ?? []) as CatchMark[];
      onClaimed({ catchId, claimedSteps, seq: receipt.seq, marks });
      await client.invalidateQueries({ queryKey: ['event', event.eventId] });
    } catch (problem) {
      if (isClaimedAlready(problem)) onClaimed({ catchId, claimedSteps, seq: null, marks: [] });
      else if (isHere.current && !stopping.signal.aborted) setError(problem);
    } finally {
      isSending.current = false;
      setBusy(false);
    }
  };
  return { claim, stop: () => abort.current?.abort(), isBusy, progress, error };
}

/** The draft's ids were sent before, with an answer that never arrived, or from another tab. */
function isClaimedAlready(problem: unknown): boolean {
  return (
    problem instanceof ApiProblem &&
    ['catch-exists', 'idempotency-key-reused', 'photograph-taken'].includes(problem.type)
  );
}
