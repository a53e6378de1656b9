import { useRef, useState } from 'react';
import { type TapeRefusal } from '@lauta/core/tape';
import { LENGTH_STEPS, formatMeasured, formatSteps } from '@lauta/core/units';
import { FileInput } from '../../ui/FileInput.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { useObjectUrl } from '../../ui/useObjectUrl.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { type Frame } from '../../camera/frames.ts';
import { type TapeOf, useTapeBench, type TapeFigures } from './useTapeBench.ts';

const REFUSAL_WORDS: Record<TapeRefusal, string> = {
  'one-reading': 'Measure again: two readings must agree.',
  'readings-differ': 'The readings differ by more than a quarter inch. Measure once more.',
  'offset-too-long': 'That is too long for the way from the grip to the nose.',
};

/** A fish too large for a board: tape along it in the water, a photograph of each reading, two that agree. */
export function TapeBench(props: TapeOf) {
  const input = useRef<HTMLInputElement>(null);
  const { draft, put, sheet } = props;
  const { reading, frames, photograph, claim, isBusy, error } = useTapeBench(props);
  const { offsetMm, taken, claimedSteps, unit, mmOf } = reading;
  const { step } = sheet.measure;
  return (
    <section aria-label="With a tape" className="grid gap-4 max-lg:pb-24">
      <div>
        <h1>With a tape, in the water</h1>
        <p className="text-quiet">
          Lock the grip on the jaw, lay the tape along to the tail, finger on the end. Photograph the reading,
          then do it again.
        </p>
      </div>
      <label className="flex items-center justify-between gap-3">
        <span>
          From the grip to the nose, {unit}
          <span className="text-quiet block text-sm">It is subtracted: a tape reads long by it.</span>
        </span>
        <input
          className="input num h-16 w-32 text-2xl"
          inputMode="decimal"
          value={draft.offset}
          maxLength={20}
          aria-invalid={offsetMm === null}
          onChange={({ currentTarget }) => put({ ...draft, offset: currentTarget.value })}
        />
      </label>
      <ol className="grid gap-3">
        {draft.readings.map((one, i) => (
          <Reading
            key={one.frameId}
            number={i + 1}
            unit={unit}
            typed={one.typed}
            frame={frames?.find(({ frameId }) => frameId === one.frameId) ?? null}
            isTaken={taken?.taken.includes(i) ?? false}
            isWrong={one.typed !== '' && mmOf(one.typed) === null}
            change={(typed) =>
              put({
                ...draft,
                readings: draft.readings.map((other) =>
                  other.frameId === one.frameId ? { ...other, typed } : other,
                ),
              })
            }
            remove={() =>
              put({
                ...draft,
                readings: draft.readings.filter(({ frameId }) => frameId !== one.frameId),
              })
            }
          />
        ))}
      </ol>
      {draft.readings.length < 6 && (
        <button type="button" className="btn h-16" onClick={() => input.current?.click()}>
          Photograph reading {draft.readings.length + 1}
        </button>
      )}
      <FileInput
        ref={input}
        label="Photograph of a reading"
        accept="image/jpeg"
        isCamera
        onFile={(photo) => void photograph(photo)}
      />
      <TapeFigure reading={reading} />
      <ProblemNote error={error} />
      <div className="bg-base-100 border-base-300 z-10 flex gap-2 border-t px-4 py-3 max-lg:fixed max-lg:inset-x-0 max-lg:bottom-[calc(4rem+2px+env(safe-area-inset-bottom))] lg:sticky lg:bottom-0">
        <button type="button" className="btn h-16" disabled={isBusy} onClick={() => put(null)}>
          No tape
        </button>
        <button
          type="button"
          className="btn btn-primary main-action grow"
          disabled={claimedSteps === null || isBusy}
          onClick={() => void claim(claimedSteps ?? 0)}
        >
          {isBusy
            ? 'Keeping it …'
            : claimedSteps === null
              ? 'Two readings first'
              : `Claim ${formatSteps(claimedSteps, step)} ${LENGTH_STEPS[step].unit}`}
        </button>
      </div>
    </section>
  );
}

function TapeFigure({ reading: { offsetMm, isWhole, read, taken, unit } }: { reading: TapeFigures }) {
  return (
    <p role="status" aria-live="polite">
      {taken ? (
        <>
          <Signal tone="clear">two readings agree</Signal>{' '}
          <b className="num text-4xl">{formatMeasured(taken.apparentMm, unit)}</b> {unit}
        </>
      ) : offsetMm === null ? (
        <Signal tone="fault">the way from the grip to the nose is no length</Signal>
      ) : !isWhole ? (
        <Signal tone="look">Type what the tape reads.</Signal>
      ) : read && !read.ok ? (
        <Signal tone="look">{REFUSAL_WORDS[read.code]}</Signal>
      ) : null}
    </p>
  );
}

function Reading({
  number,
  unit,
  typed,
  frame,
  isTaken,
  isWrong,
  change,
  remove,
}: {
  number: number;
  unit: string;
  typed: string;
  frame: Frame | null;
  isTaken: boolean;
  isWrong: boolean;
  change: (typed: string) => void;
  remove: () => void;
}) {
  const src = useObjectUrl(frame?.photo);
  const [wasTyped, setTyped] = useState(typed !== '');
  return (
    <li className="border-base-300 flex items-center gap-3 border p-2">
      {src ? (
        <img src={src} alt="" className="size-16 flex-none object-cover" />
      ) : (
        <span className="size-16" />
      )}
      <label className="grid grow">
        <span className="text-quiet text-sm">
          reading {number}, {unit}
        </span>
        <input
          className="input num h-16 w-full text-2xl"
          inputMode="decimal"
          maxLength={20}
          // The eye is on the tape: what comes next is its number.
          autoFocus={!wasTyped}
          value={typed}
          aria-invalid={isWrong}
          onChange={({ currentTarget }) => {
            setTyped(true);
            change(currentTarget.value);
          }}
        />
      </label>
      {isTaken && <Signal tone="clear">taken</Signal>}
      <button type="button" className="btn h-16" aria-label={`Remove reading ${number}`} onClick={remove}>
        Out
      </button>
    </li>
  );
}
