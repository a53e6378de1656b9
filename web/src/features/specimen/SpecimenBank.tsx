import { useRef, useState, type ReactNode } from 'react';
import type { RecordSpecimen } from '@lauta/contract';
import { clockOf, type Handling } from '@lauta/core/care';
import { hashHex } from '@lauta/core/ledger';
import { isJpeg } from '@lauta/vision';
import { findSpecies, type RuleSheet } from '@lauta/core/rules';
import { specimenWeight } from '@lauta/core/specimen';
import { formatMass, massUnitOf } from '@lauta/core/units';
import { appNow, useNow } from '../../clock/appClock.ts';
import { FileInput } from '../../ui/FileInput.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { useInEvent } from '../../event/inEvent.ts';
import { useObjectUrl } from '../../ui/useObjectUrl.ts';
import { useOnce } from '../../ui/useOnce.ts';
import { outbox } from '../../outbox/outbox.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import type { Frame } from '../../camera/frames.ts';
import { useCareChoices } from '../../care/careChoices.ts';
import { lastClockOffset } from '../../device/preparedness.ts';
import { FishClock } from '../../fish-clock/FishClock.tsx';
import { handlingOf } from '../../fish-clock/runningCatch.ts';
import { AfterFields, BeforeFields, ScaleFields } from './SpecimenFields.tsx';
import { weighingOf, type SpecimenDraft } from './specimenDraft.ts';
import type { Bank } from './useBank.ts';

const MOST_PHOTOGRAPHS = 4;

/** What is told of the specimen that is on the bank, with the clock of its time in air. */
export function SpecimenBank({
  sheet,
  entrantId,
  bank,
}: {
  sheet: RuleSheet;
  entrantId: string;
  bank: Bank;
}) {
  const { event } = useInEvent();
  const unit = massUnitOf(sheet.measure.step);
  const care = useCareChoices();
  const [recorded, setRecorded] = useState<string | null>(null);
  const [fileTrouble, setFileTrouble] = useState<string | null>(null);
  const { isKnown, isBlank, running, change, draft, put, frames, add, replace, putAway } = bank;
  const { run, isBusy, error } = useOnce();
  const tell = (part: Partial<SpecimenDraft>): void => {
    setRecorded(null);
    put({ ...draft, ...part });
  };
  const { corrects } = draft;
  const clock = clockOf(running.events, useNow(1000).getTime());
  const input = useRef<HTMLInputElement>(null);
  const speciesId = draft.speciesId ?? sheet.species[0]?.id ?? '';
  const photographs = [
    ...(corrects?.specimen.photographs ?? []),
    ...(frames ?? []).map(({ frameId }) => ({ photographId: frameId })),
  ];
  const handling = corrects
    ? corrects.specimen.handling
    : handlingOf(running, care, sheet.airSeconds ?? null);
  const specimen = specimenOf(draft, speciesId, photographs, handling ?? null);
  const weight = specimen && specimenWeight(specimen.weighing);
  const photograph = async (photo: File): Promise<void> => {
    const head = new Uint8Array(await photo.slice(0, 4).arrayBuffer());
    if (!isJpeg(head)) return setFileTrouble('This file is no JPEG photograph.');
    setFileTrouble(null);
    setRecorded(null);
    await add(photo, appNow(), 'board');
  };
  const record = (): Promise<void> =>
    run(async () => {
      if (!specimen || !weight) return;
      const body: RecordSpecimen = {
        specimenId: draft.specimenId,
        entrantId,
        weighedAt: draft.weighedAt ?? appNow().toISOString(),
        clockOffsetMs: lastClockOffset(),
        weighedHow: draft.weighedHow,
        specimen,
        note: draft.note.trim(),
        corrects: corrects && { specimenId: corrects.specimenId, reason: corrects.reason.trim() },
      };
      const files = await Promise.all(
        (frames ?? []).map(async ({ frameId, photo }) => ({
          fileId: frameId,
          blob: photo,
          sha256: hashHex(new Uint8Array(await photo.arrayBuffer())),
          mediaType: 'image/jpeg' as const,
        })),
      );
      await outbox.keep('specimen.record', event.eventId, body, { commandId: draft.commandId, files });
      putAway();
      setRecorded(formatMass(weight.netG, unit));
    });
  if (!isKnown || frames === null) return null;
  const fields = { draft, sheet, unit, tell };
  const isOver = clock.phase === 'over';
  const stage = corrects
    ? 'after'
    : clock.phase === 'air'
      ? 'scale'
      : isOver || clock.lifts.length > 0
        ? 'after'
        : 'before';
  const shots = (
    <Photographs
      frames={frames}
      kept={corrects?.specimen.photographs ?? []}
      onAdd={photographs.length < MOST_PHOTOGRAPHS ? () => input.current?.click() : null}
      onRemove={(frameId) => void replace(frames.filter((one) => one.frameId !== frameId))}
    />
  );
  const parts: Record<typeof stage, { title: string; fields: ReactNode }> = {
    before: { title: 'Before the lift', fields: <BeforeFields key={draft.specimenId} {...fields} /> },
    scale: {
      title: 'On the scale, then low over the mat',
      fields: (
        <>
          <ScaleFields key={draft.specimenId} {...fields} />
          {stage !== 'after' && shots}
        </>
      ),
    },
    after: {
      title: corrects ? 'What was told' : 'Back in the water',
      fields: (
        <>
          {stage === 'after' && shots}
          <AfterFields key={draft.specimenId} {...fields} isCorrection={corrects !== null} />
        </>
      ),
    },
  };
  const others = (['before', 'scale', 'after'] as const).filter((one) => one !== stage);
  const missing = !weight
    ? 'The weight is missing'
    : corrects && corrects.reason.trim() === ''
      ? 'The reason is missing'
      : null;
  const now = (
    <section aria-labelledby="stage" className="grid gap-3">
      <h2 id="stage">{parts[stage].title}</h2>
      {parts[stage].fields}
    </section>
  );
  return (
    <div className="grid gap-4">
      <div>
        <h1>{corrects ? 'Correct a record' : 'On the bank'}</h1>
        <p className="text-quiet">
          {corrects
            ? 'The former record stays; this one is put beside it, with a reason.'
            : 'A large fish, weighed in a wet sling: its clock runs, and nothing keeps it out of the water.'}
        </p>
      </div>
      {recorded && (
        <p role="status">
          <Signal tone="clear">recorded</Signal> <b className="num">{recorded}</b>: kept on this device, sent
          by itself.
        </p>
      )}
      {(corrects || clock.phase === 'idle') && now}
      {!corrects && (
        <FishClock
          running={running}
          change={change}
          begin={putAway}
          awayWords="Discard, no record"
          sheet={sheet}
          speciesId={speciesId}
          onSpecies={(chosen) => tell({ speciesId: chosen })}
          zone={event.zone}
          advises={clock.phase !== 'air'}
          underFace={clock.phase !== 'idle' && now}
        />
      )}
      <FileInput
        ref={input}
        label="Photograph of the specimen"
        accept="image/jpeg"
        isCamera
        onFile={(photo) => void photograph(photo)}
      />
      {fileTrouble && <Signal tone="fault">{fileTrouble}</Signal>}
      {others.map((one) => (
        <details key={one} className="border-base-300 border-t">
          <summary className="flex min-h-16 cursor-pointer items-center text-lg font-bold">
            {parts[one].title}
          </summary>
          <div className="grid gap-3 pb-3">{parts[one].fields}</div>
        </details>
      ))}
      <ProblemNote error={error} />
      <div
        className={`bg-base-100 border-base-300 flex gap-2 ${isOver || corrects ? 'max-lg:sticky max-lg:bottom-16 max-lg:z-10 max-lg:-mx-4 max-lg:border-t max-lg:px-4 max-lg:py-3' : ''}`}
      >
        {(corrects || (clock.phase === 'idle' && !isBlank)) && (
          <button type="button" className="btn h-16" onClick={putAway}>
            {corrects ? 'Leave it as it was' : 'Discard, no record'}
          </button>
        )}
        <button
          type="button"
          className={`btn h-16 grow text-lg ${isOver || corrects ? 'btn-primary' : ''}`}
          disabled={missing !== null || isBusy || clock.phase === 'air'}
          onClick={() => void record()}
        >
          {clock.phase === 'air'
            ? 'First back into the water'
            : (missing ??
              `Record ${formatMass(weight?.netG ?? 0, unit)} ${findSpecies(sheet, speciesId)?.name ?? ''}`)}
        </button>
      </div>
    </div>
  );
}

/** What is told so far, as a record; null as long as nothing was weighed or a tare is missing. */
function specimenOf(
  draft: SpecimenDraft,
  speciesId: string,
  photographs: readonly { photographId: string }[],
  handling: Handling | null,
): RecordSpecimen['specimen'] | null {
  const { lengthMm, care, wounds } = draft;
  const weighing = weighingOf(draft);
  return (
    weighing && {
      speciesId,
      lengthMm,
      weighing,
      care,
      wounds,
      photographs,
      ...(handling ? { handling: { ...handling, events: [...handling.events] } } : {}),
    }
  );
}

function Photographs({
  frames,
  kept,
  onAdd,
  onRemove,
}: {
  frames: readonly Frame[];
  /** Of the record that is put right. */
  kept: readonly { photographId: string }[];
  onAdd: (() => void) | null;
  onRemove: (frameId: string) => void;
}) {
  return (
    <div className="grid gap-2">
      {(frames.length > 0 || kept.length > 0) && (
        <ul className="flex flex-wrap gap-2" aria-label="Photographs of this fish">
          {kept.map(({ photographId }, i) => (
            <li key={photographId}>
              <img
                src={`/api/photographs/${photographId}/thumb`}
                alt={`Photograph ${i + 1} of the former record`}
                className="border-base-300 h-24 border object-contain"
              />
            </li>
          ))}
          {frames.map((frame, i) => (
            <li key={frame.frameId} className="grid gap-1">
              <Shot frame={frame} number={kept.length + i + 1} />
              <button type="button" className="btn h-16" onClick={() => onRemove(frame.frameId)}>
                Out
              </button>
            </li>
          ))}
        </ul>
      )}
      {onAdd && (
        <button type="button" className="btn h-16" onClick={onAdd}>
          {frames.length + kept.length === 0 ? 'Photograph, low over the mat' : 'One more photograph'}
        </button>
      )}
    </div>
  );
}

function Shot({ frame, number }: { frame: Frame; number: number }) {
  const src = useObjectUrl(frame.photo);
  return src ? (
    <img src={src} alt={`Photograph ${number}`} className="border-base-300 h-24 border object-contain" />
  ) : null;
}
