import { useMemo, useRef, useState } from 'react';
import type { BoardMarks, Learning, LearnTrouble } from '@lauta/vision';
import { Field } from '../../ui/Field.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { Loading } from '../../ui/states.tsx';
import { useObjectUrl } from '../../ui/useObjectUrl.ts';
import { HandlePad } from '../../bench/HandlePad.tsx';
import { PhotoView } from '../../bench/PhotoView.tsx';
import type { OpenedPhoto } from '../../bench/benchCalls.ts';
import { firstMarks, type HandleId } from '../../bench/handles.ts';
import type { Bench } from '../../bench/useBench.ts';
import { LearntBoardForm } from './LearntBoardForm.tsx';
import { MARKS, MARK_WORDS, wishOf, type Told } from './learnWish.ts';
import { LEARN_TROUBLE_WORDS } from '@lauta/words/boards';

type Outcome = { ok: true; value: Learning } | { ok: false; code: LearnTrouble | 'broken-off' };

/** The photograph of an empty board: two lines are marked, their numbers told, and the bench reads the rest. */
export function MarkedBoard({
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
  const [marks, setMarks] = useState(() => firstMarks(photo.widthPx, photo.heightPx));
  const [former, setFormer] = useState<readonly BoardMarks[]>([]);
  const [chosen, setChosen] = useState<HandleId | null>('zero-far');
  const [told, setTold] = useState<Told>({ unit: 'in', lower: '2', higher: '', widthMm: '', hasWall: false });
  const [share, setShare] = useState<number | null>(null);
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const abort = useRef<AbortController | null>(null);
  const size = useMemo(() => ({ width: photo.widthPx, height: photo.heightPx }), [photo]);
  const asked = wishOf(told, marks, photo.exif.focal35Mm);
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
    if (!bench || !asked.ok || share !== null) return;
    const stopping = new AbortController();
    abort.current = stopping;
    setShare(0);
    setOutcome(null);
    try {
      setOutcome(await bench.call('learn', { wish: asked.wish }, stopping.signal, setShare));
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
            Discard
          </button>
          <button
            type="button"
            className="btn btn-primary h-14 grow"
            disabled={!asked.ok && share === null}
            onClick={() => (share === null ? void learn() : abort.current?.abort())}
          >
            {share === null ? 'Read the board' : `Reading ${Math.round(share * 100)} %: stop`}
          </button>
        </div>
        {!asked.ok && <p className="text-quiet text-sm">{asked.missing}</p>}
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
      <Field label="Width, mm" hint="By a ruler, if at hand.">
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
