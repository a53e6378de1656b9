import { useRef, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { Handling } from '@lauta/core/care';
import { hashHex } from '@lauta/core/ledger';
import { readExif } from '@lauta/vision';
import { stepsReached, type LengthSheet } from '@lauta/core/rules';
import { readTape, type TapeMark, type TapeRefusal } from '@lauta/core/tape';
import {
  LENGTH_STEPS,
  formatMeasured,
  formatSteps,
  mmFromSteps,
  parseSteps,
  type LengthStepId,
} from '@lauta/core/units';
import { appNow } from '../../clock/appClock.ts';
import { custody } from '../../custody/custody.ts';
import { useSigning } from '../../custody/useSigning.ts';
import { FileInput } from '../../ui/FileInput.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { useInEvent } from '../../event/inEvent.ts';
import { useObjectUrl } from '../../ui/useObjectUrl.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { useFrames, type Frame } from '../../camera/frames.ts';
import { captureTime } from './captureTime.ts';
import { claimExtras } from './useClaim.ts';
import { useSending, type Claimed } from './useSending.ts';
import type { TapeDraft } from './tapeDraft.ts';

const REFUSAL_WORDS: Record<TapeRefusal, string> = {
  'one-reading': 'Measure again: two readings must agree.',
  'readings-differ': 'The readings differ by more than a quarter inch. Measure once more.',
  'offset-too-long': 'That is too long for the way from the grip to the nose.',
};

/** A tape is read finer than the rules round: by the eighth of an inch, or by the millimetre. */
function tapeStep(step: LengthStepId): LengthStepId {
  return LENGTH_STEPS[step].unit === 'in' ? 'eighth-inch' : 'millimetre';
}

/** A fish too large for a board: tape along it in the water, a photograph of each reading, two that agree. */
export function TapeBench({
  catchId,
  draft,
  put,
  sheet,
  speciesId,
  entrantId,
  code,
  handling,
  onClaimed,
}: {
  catchId: string;
  draft: TapeDraft;
  put: (next: TapeDraft | null) => void;
  sheet: LengthSheet;
  speciesId: string;
  entrantId: string;
  code: string | null;
  handling: Handling | null;
  onClaimed: (claimed: Claimed) => void;
}) {
  const { event } = useInEvent();
  const { frames, add, replace } = useFrames(`tape ${catchId}`);
  const sign = useSigning({ eventId: event.eventId, entrantId, catchId, identifierCode: code });
  const input = useRef<HTMLInputElement>(null);
  const { send, isBusy, error } = useSending((claimed) => {
    void replace([]);
    put(null);
    onClaimed(claimed);
  });
  const { step } = sheet.measure;
  const fine = tapeStep(step);
  const { unit } = LENGTH_STEPS[fine];
  const mmOf = (typed: string): number | null => {
    const parsed = parseSteps(typed, fine);
    return parsed.ok ? mmFromSteps(parsed.steps, fine) : null;
  };
  const offsetMm = draft.offset.trim() === '' ? 0 : mmOf(draft.offset);
  const marks = draft.readings.flatMap(({ typed, photographId }): TapeMark[] => {
    const tapeMm = mmOf(typed);
    return tapeMm === null || tapeMm === 0 ? [] : [{ tapeMm, photographId }];
  });
  const isWhole = marks.length === draft.readings.length;
  const read = offsetMm === null ? null : readTape(marks, offsetMm);
  const taken = read?.ok && isWhole ? read.value : null;
  const claimedSteps = taken ? stepsReached(sheet.measure, taken.apparentMm) : null;

  const photograph = async (photo: File): Promise<void> => {
    const chosen = appNow();
    const frameId = uuidv7();
    await sign({ photo, kind: 'file', atMs: chosen.getTime(), monotonicMs: performance.now(), frameId });
    const frame = await add(photo, chosen, 'board', frameId);
    void custody.tell();
    put({
      ...draft,
      readings: [...draft.readings, { frameId: frame.frameId, photographId: uuidv7(), typed: '' }],
    });
  };
  const claim = async (steps: number): Promise<void> => {
    const sent = draft.readings.flatMap(({ frameId, photographId }) => {
      const frame = frames?.find((one) => one.frameId === frameId);
      return frame ? [{ photographId, frame }] : [];
    });
    const last = sent.at(-1);
    if (!last) return;
    const exif = await readExif(new Uint8Array(await last.frame.photo.arrayBuffer()));
    await send({
      commandId: draft.commandId,
      files: () =>
        Promise.all(
          sent.map(async ({ photographId, frame: { photo } }) => ({
            fileId: photographId,
            blob: photo,
            sha256: hashHex(new Uint8Array(await photo.arrayBuffer())),
            mediaType: 'image/jpeg' as const,
          })),
        ),
      claim: {
        catchId,
        entrantId,
        speciesId,
        captured: captureTime(exif, last.frame.takenAt, event.zone),
        photographs: sent.map(({ photographId }) => ({
          photographId,
          role: 'fish' as const,
          isFromOutside: true,
        })),
        measurement: {
          kind: 'tape',
          measurementId: draft.measurementId,
          photographId: last.photographId,
          marks,
          gripOffsetMm: offsetMm ?? 0,
        },
        claimedSteps: steps,
        identifierCode: code,
        ...claimExtras(handling),
      },
    });
  };
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
        {draft.readings.map((reading, i) => (
          <Reading
            key={reading.frameId}
            number={i + 1}
            unit={unit}
            typed={reading.typed}
            frame={frames?.find((one) => one.frameId === reading.frameId) ?? null}
            isTaken={taken?.taken.includes(i) ?? false}
            isWrong={reading.typed !== '' && mmOf(reading.typed) === null}
            change={(typed) =>
              put({
                ...draft,
                readings: draft.readings.map((one) =>
                  one.frameId === reading.frameId ? { ...one, typed } : one,
                ),
              })
            }
            remove={() =>
              put({
                ...draft,
                readings: draft.readings.filter((one) => one.frameId !== reading.frameId),
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
