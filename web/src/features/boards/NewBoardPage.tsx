import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import {
  isSameKind,
  type BoardMarks,
  type Learning,
  type LearnTrouble,
  type LearnWish,
  type MeasuringBoard,
} from '@lauta/core/photo';
import { boardSchema } from '@lauta/contract';
import { sendCommand } from '../../door/door.ts';
import { Field } from '../../frame/Field.tsx';
import { Signal } from '../../frame/Signal.tsx';
import { eventPath, useInEvent } from '../../frame/inEvent.ts';
import { Empty, Loading } from '../../frame/states.tsx';
import { useObjectUrl } from '../../frame/useObjectUrl.ts';
import { useWho } from '../../people/queries.ts';
import { ProblemNote } from '../../problem/ProblemNote.tsx';
import { HandlePad } from '../photo/HandlePad.tsx';
import { PhotoSource } from '../photo/PhotoSource.tsx';
import { PhotoView } from '../photo/PhotoView.tsx';
import { SimulatedCamera } from '../photo/SimulatedCamera.tsx';
import type { OpenedPhoto } from '../photo/benchProtocol.ts';
import type { HandleId, HandleWords } from '../photo/handles.ts';
import { useBenchWorker, useOpenedPhoto, type Bench } from '../photo/useBench.ts';
import { photoRefusalWords } from '../photo/words.ts';
import { BoardDrawing } from './BoardDrawing.tsx';
import { useBoards } from './queries.ts';
import { LEARN_TROUBLE_WORDS, keyOf, rulingWords } from './words.ts';

/** A director adds a kind of board: photograph it empty, mark two lines, look at what came of it, add it. */
export function NewBoardPage() {
  const { event, place } = useInEvent();
  const who = useWho();
  const [photo, setPhoto] = useState<Blob | null>(null);
  const bench = useBenchWorker();
  const opened = useOpenedPhoto(bench, photo);
  if (!place.roles.includes('director')) return <Empty title="Only the director adds kinds of board" />;
  const back = (
    <Link className="linklike inline-flex min-h-11 items-center" to={eventPath(event.eventId, 'boards')}>
      Back to the boards
    </Link>
  );
  if (photo && opened.kind === 'open') {
    return (
      <>
        {back}
        <MarkedBoard bench={bench} file={photo} photo={opened.photo} putAway={() => setPhoto(null)} />
      </>
    );
  }
  return (
    <div className="grid max-w-3xl gap-5">
      <div>
        {back}
        <h1>A new kind of board</h1>
      </div>
      <ol className="ruled border-base-300 border-y [&>li]:py-2">
        <li>Lay the empty board flat, in even light; no fish, no card, nobody’s shadow on it.</li>
        <li>
          Photograph it from straight above, stop at the left, so that it nearly fills the picture and the
          foot of the stop, the end, and both long edges of the ruled face are seen.
        </li>
        <li>Then mark two lines and tell their numbers. The rest is read from the picture.</li>
      </ol>
      {photo && opened.kind === 'opening' && <Loading what="Opening the photograph" />}
      {photo && opened.kind === 'refused' && (
        <div role="alert" className="grid gap-1">
          <Signal tone="fault">not a photograph that can be read</Signal>
          <p>{photoRefusalWords(opened.code)}</p>
        </div>
      )}
      <PhotoSource onPhoto={setPhoto} takeLabel="Photograph the board">
        {who.data?.isDemo && (
          <SimulatedCamera
            zone={event.zone}
            onPhoto={setPhoto}
            shoot={(camera, time, seed, signal, onProgress) =>
              camera.call('photographUnknownBoard', { ...time, seed }, signal, onProgress)
            }
          />
        )}
      </PhotoSource>
    </div>
  );
}

const MARKS: readonly HandleId[] = ['zero-far', 'end-far', 'end-near', 'zero-near'];
const NOT_USED = { short: '', where: '' };
const MARK_WORDS: HandleWords = {
  'zero-far': { short: 'Lower, far', where: 'where the lower line meets the edge away from you' },
  'end-far': { short: 'Higher, far', where: 'where the higher line meets the edge away from you' },
  'end-near': { short: 'Higher, near', where: 'where the higher line meets the edge near you' },
  'zero-near': { short: 'Lower, near', where: 'where the lower line meets the edge near you' },
  nose: NOT_USED,
  tail: NOT_USED,
};

function firstMarks({ widthPx, heightPx }: OpenedPhoto): BoardMarks {
  const at = (x: number, y: number): readonly [number, number] => [
    Math.round(x * widthPx),
    Math.round(y * heightPx),
  ];
  return {
    corners: [at(0.2, 0.4), at(0.8, 0.4), at(0.8, 0.6), at(0.2, 0.6)],
    nose: [0, 0],
    tail: [0, 0],
  };
}

/** What the director tells of the board, as typed. */
interface Told {
  unit: 'in' | 'cm';
  lower: string;
  higher: string;
  widthMm: string;
  hasWall: boolean;
}

function wishOf(told: Told, { corners }: BoardMarks, photo: OpenedPhoto): LearnWish | null {
  const numberOf = (typed: string): number => (typed.trim() === '' ? NaN : Number(typed.replace(',', '.')));
  const [lower, higher, widthMm] = [told.lower, told.higher, told.widthMm].map(numberOf) as [
    number,
    number,
    number,
  ];
  if (!Number.isFinite(lower) || !Number.isFinite(higher)) return null;
  if (told.widthMm.trim() !== '' && !(widthMm >= 30 && widthMm <= 600)) return null;
  return {
    unit: told.unit,
    lines: [
      { value: lower, far: corners[0], near: corners[3] },
      { value: higher, far: corners[1], near: corners[2] },
    ],
    focal35Mm: photo.exif.focal35Mm,
    hasWall: told.hasWall,
    widthMm: Number.isFinite(widthMm) ? widthMm : null,
  };
}

type Outcome = { ok: true; value: Learning } | { ok: false; code: LearnTrouble | 'broken-off' };

function MarkedBoard({
  bench,
  file,
  photo,
  putAway,
}: {
  bench: Bench | null;
  file: Blob;
  photo: OpenedPhoto;
  putAway: () => void;
}) {
  const src = useObjectUrl(file);
  const [marks, setMarks] = useState(() => firstMarks(photo));
  const [former, setFormer] = useState<readonly BoardMarks[]>([]);
  const [chosen, setChosen] = useState<HandleId | null>('zero-far');
  const [told, setTold] = useState<Told>({ unit: 'in', lower: '2', higher: '', widthMm: '', hasWall: false });
  const [share, setShare] = useState<number | null>(null);
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const abort = useRef<AbortController | null>(null);
  const size = useMemo(() => ({ width: photo.widthPx, height: photo.heightPx }), [photo]);
  const wish = wishOf(told, marks, photo);
  const change = (next: BoardMarks): void => {
    setFormer([...former.slice(-100), marks]);
    setMarks(next);
    setOutcome(null);
  };
  const tell = (part: Partial<Told>): void => {
    setTold({ ...told, ...part });
    setOutcome(null);
  };
  const learn = async (): Promise<void> => {
    if (!bench || !wish || share !== null) return;
    const stopping = new AbortController();
    abort.current = stopping;
    setShare(0);
    setOutcome(null);
    try {
      setOutcome(await bench.call('learn', { wish }, stopping.signal, setShare));
    } catch {
      if (!stopping.signal.aborted) setOutcome({ ok: false, code: 'broken-off' });
    } finally {
      setShare(null);
    }
  };
  if (!src) return <Loading what="Opening the photograph" />;
  const learnt = outcome?.ok ? outcome.value : null;
  return (
    <div className="grid gap-4 lg:grid-cols-[minmax(0,1fr)_18.5rem] lg:gap-x-6">
      <h1 className="lg:col-span-2">Mark two lines</h1>
      <PhotoView
        src={src}
        alt="The photograph of the empty board"
        size={size}
        marks={marks}
        onMarks={change}
        chosen={chosen}
        onChosen={setChosen}
        shown={MARKS}
        words={MARK_WORDS}
        {...(learnt ? { drawn: learnt.drawn } : {})}
        className="h-[60vw] max-h-[50vh] min-h-64 lg:h-[64vh] lg:max-h-[64vh]"
      />
      <div className="grid content-start gap-3">
        <HandlePad
          marks={marks}
          onMarks={change}
          chosen={chosen}
          onChosen={setChosen}
          handles={MARKS}
          words={MARK_WORDS}
          undo={
            former.length === 0
              ? null
              : () => {
                  setMarks(former.at(-1) ?? marks);
                  setFormer(former.slice(0, -1));
                  setOutcome(null);
                }
          }
        />
        <ToldFields told={told} tell={tell} />
        <div className="flex gap-2">
          <button type="button" className="btn h-14" onClick={putAway}>
            Put away
          </button>
          <button
            type="button"
            className="btn btn-primary h-14 grow"
            disabled={!wish && share === null}
            onClick={() => (share === null ? void learn() : abort.current?.abort())}
          >
            {share === null ? 'Read the board' : `Reading ${Math.round(share * 100)} %: stop`}
          </button>
        </div>
        {outcome && !outcome.ok && (
          <div role="alert" className="grid gap-1">
            <Signal tone="fault">no profile came of it</Signal>
            <p>
              {outcome.code === 'broken-off'
                ? 'The bench broke off. Try again, or take another photograph.'
                : LEARN_TROUBLE_WORDS[outcome.code]}
            </p>
          </div>
        )}
      </div>
      {learnt && <LearntBoardForm key={JSON.stringify(learnt.corners)} learnt={learnt} />}
    </div>
  );
}

function ToldFields({ told, tell }: { told: Told; tell: (part: Partial<Told>) => void }) {
  return (
    <div className="grid grid-cols-2 items-start gap-x-3 gap-y-2">
      <Field label="Lower number">
        {(field) => (
          <input
            {...field}
            inputMode="decimal"
            className="input num h-12 w-full"
            value={told.lower}
            onChange={(e) => tell({ lower: e.target.value })}
          />
        )}
      </Field>
      <Field label="Higher number">
        {(field) => (
          <input
            {...field}
            inputMode="decimal"
            className="input num h-12 w-full"
            value={told.higher}
            onChange={(e) => tell({ higher: e.target.value })}
          />
        )}
      </Field>
      <Field label="Numbers in">
        {(field) => (
          <select
            {...field}
            className="select h-12 w-full"
            value={told.unit}
            onChange={(e) => tell({ unit: e.target.value === 'cm' ? 'cm' : 'in' })}
          >
            <option value="in">inches</option>
            <option value="cm">centimetres</option>
          </select>
        )}
      </Field>
      <Field label="Breadth, mm" hint="By a ruler, if at hand.">
        {(field) => (
          <input
            {...field}
            inputMode="decimal"
            className="input num h-12 w-full"
            value={told.widthMm}
            onChange={(e) => tell({ widthMm: e.target.value })}
          />
        )}
      </Field>
      <label className="col-span-2 flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={told.hasWall}
          onChange={(e) => tell({ hasWall: e.target.checked })}
        />
        a wall stands along the far edge
      </label>
    </div>
  );
}

/** What was read, what it rests on, and the few things that a photograph cannot tell. */
function LearntBoardForm({ learnt }: { learnt: Learning }) {
  const { event } = useInEvent();
  const boards = useBoards(event.eventId);
  const navigate = useNavigate();
  const client = useQueryClient();
  const [name, setName] = useState('');
  const [stopMm, setStopMm] = useState(String(learnt.board.stop.heightMm));
  const [wallMm, setWallMm] = useState(String(learnt.board.wall?.heightMm ?? 0));
  const [issue, setIssue] = useState<string | null>(null);
  const [error, setError] = useState<unknown>(null);
  const isSending = useRef(false);
  const heading = useRef<HTMLHeadingElement>(null);
  // It comes in below what was worked on.
  useEffect(() => {
    void heading.current?.scrollIntoView({ block: 'start' });
  }, []);
  const { wall } = learnt.board;
  const board: MeasuringBoard = {
    ...learnt.board,
    id: keyOf(name) || 'board',
    name: name.trim() || 'new kind',
    stop: { ...learnt.board.stop, heightMm: Number(stopMm) },
    wall: wall && { ...wall, heightMm: Number(wallMm) },
  };
  const twin = boards.all.find((one) => isSameKind(one, board));
  const add = async (): Promise<void> => {
    if (isSending.current) return;
    if (!keyOf(name)) {
      setIssue('Give it a name with letters or figures.');
      return;
    }
    const checked = boardSchema.safeParse(board);
    setIssue(checked.success ? null : 'The heights must be figures between 0 and 300 mm.');
    if (!checked.success) return;
    isSending.current = true;
    setError(null);
    try {
      await sendCommand('board.add', event.eventId, { board: checked.data });
      await client.invalidateQueries({ queryKey: ['event', event.eventId] });
      void navigate(eventPath(event.eventId, 'boards'));
    } catch (problem) {
      setError(problem);
    } finally {
      isSending.current = false;
    }
  };
  return (
    <section aria-labelledby="learnt" className="grid gap-3 lg:col-span-2">
      <h2 id="learnt" ref={heading}>
        What was read
      </h2>
      <BoardDrawing board={board} />
      <p role="status">{rulingWords(board)}</p>
      <ul className="grid gap-0.5">
        <li>
          <Signal tone={learnt.seenShare > 0.85 ? 'clear' : 'look'}>
            {Math.round(100 * learnt.seenShare)} % of these lines are seen in their places
          </Signal>
        </li>
        <li>
          <Signal tone={learnt.isFoundAgain ? 'clear' : 'look'}>
            {learnt.isFoundAgain
              ? 'told only this, the bench finds the board in the photograph by itself'
              : 'told only this, the bench does not find the board by itself: take another photograph'}
          </Signal>
        </li>
        {twin && (
          <li>
            <Signal tone="look">
              the same lines as the {twin.name}: the two could not be told from each other
            </Signal>
          </li>
        )}
      </ul>
      <form
        noValidate
        className="grid gap-3 sm:grid-cols-[minmax(0,2fr)_1fr_1fr] sm:items-start"
        onSubmit={(e) => {
          e.preventDefault();
          void add();
        }}
      >
        <Field label="What it is called" hint={name ? `Its key is ${board.id}.` : undefined}>
          {(field) => (
            <input
              {...field}
              className="input h-12 w-full"
              maxLength={80}
              value={name}
              onChange={(e) => setName(e.target.value)}
            />
          )}
        </Field>
        <Field label="Height of the stop, mm" hint="Guessed; better by a ruler.">
          {(field) => (
            <input
              {...field}
              inputMode="decimal"
              className="input num h-12 w-full"
              value={stopMm}
              onChange={(e) => setStopMm(e.target.value)}
            />
          )}
        </Field>
        {learnt.board.wall && (
          <Field label="Height of the wall, mm" hint="Guessed; better by a ruler.">
            {(field) => (
              <input
                {...field}
                inputMode="decimal"
                className="input num h-12 w-full"
                value={wallMm}
                onChange={(e) => setWallMm(e.target.value)}
              />
            )}
          </Field>
        )}
        <div className="grid gap-2 sm:col-span-full">
          {issue && (
            <p role="alert" className="text-error font-semibold">
              {issue}
            </p>
          )}
          <ProblemNote error={error} />
          <button type="submit" className="btn btn-primary h-14 justify-self-start">
            Add it to this event
          </button>
          <p className="text-quiet text-sm">
            It counts once a rule sheet approves it. Until then claims on it are marked for the judge.
          </p>
        </div>
      </form>
    </section>
  );
}
