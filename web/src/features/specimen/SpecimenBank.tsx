import { useRef, type ReactNode } from 'react';
import { clockOf, type ClockPhase, type CatchClock } from '@lauta/core/care';
import { findSpecies, type RuleSheet } from '@lauta/core/rules';
import { formatMass } from '@lauta/core/units';
import { useNow } from '../../clock/appClock.ts';
import { FileInput } from '../../ui/FileInput.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { useInEvent } from '../../event/inEvent.ts';
import { useObjectUrl } from '../../ui/useObjectUrl.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import type { Frame } from '../../camera/frames.ts';
import { FishClock } from '../../fish-clock/FishClock.tsx';
import { AfterFields, BeforeFields, ScaleFields } from './SpecimenFields.tsx';
import type { Bank } from './useBank.ts';
import { useSpecimenRecord } from './useSpecimenRecord.ts';
import type { EntrantId, FileId } from '@lauta/core/ids';

/** Where the fish is in its time on the bank: what is asked first. */
type BankStage = 'before' | 'scale' | 'after';
const STAGES: readonly BankStage[] = ['before', 'scale', 'after'];

function stageOf(isCorrection: boolean, { phase, lifts }: CatchClock): BankStage {
  if (isCorrection) return 'after';
  if (phase === 'air') return 'scale';
  return phase === 'over' || lifts.length > 0 ? 'after' : 'before';
}

function titleOf(stage: BankStage, isCorrection: boolean): string {
  if (stage === 'before') return 'Before the lift';
  if (stage === 'scale') return 'On the scale, then low over the mat';
  return isCorrection ? 'What was told' : 'Back in the water';
}

/** What is told of the specimen that is on the bank, with the clock of its time in air. */
export function SpecimenBank({
  sheet,
  entrantId,
  bank,
}: {
  sheet: RuleSheet;
  entrantId: EntrantId;
  bank: Bank;
}) {
  const { event } = useInEvent();
  const telling = useSpecimenRecord(sheet, entrantId, bank);
  const { isKnown, running, change, draft, frames, replace, putAway } = bank;
  const clock = clockOf(running.events, useNow(1000).getTime());
  const input = useRef<HTMLInputElement>(null);
  if (!isKnown || frames === null) return null;
  const { corrects } = draft;
  const { recorded, speciesId, tell, unit } = telling;
  const stage = stageOf(corrects !== null, clock);
  const fields = { draft, sheet, unit, tell };
  const shots = (
    <Photographs
      frames={frames}
      kept={corrects?.specimen.photographs ?? []}
      onAdd={telling.canAddPhotograph ? () => input.current?.click() : null}
      onRemove={(frameId) => void replace(frames.filter((one) => one.frameId !== frameId))}
    />
  );
  const parts: Record<BankStage, ReactNode> = {
    before: <BeforeFields key={draft.specimenId} {...fields} />,
    scale: (
      <>
        <ScaleFields key={draft.specimenId} {...fields} />
        {stage !== 'after' && shots}
      </>
    ),
    after: (
      <>
        {stage === 'after' && shots}
        <AfterFields key={draft.specimenId} {...fields} isCorrection={corrects !== null} />
      </>
    ),
  };
  const now = (
    <section aria-labelledby="stage" className="grid gap-3">
      <h2 id="stage">{titleOf(stage, corrects !== null)}</h2>
      {parts[stage]}
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
        onFile={(photo) => void telling.photograph(photo)}
      />
      {telling.fileTrouble && <Signal tone="fault">{telling.fileTrouble}</Signal>}
      {STAGES.filter((one) => one !== stage).map((one) => (
        <details key={one} className="border-base-300 border-t">
          <summary className="flex min-h-16 cursor-pointer items-center text-lg font-bold">
            {titleOf(one, corrects !== null)}
          </summary>
          <div className="grid gap-3 pb-3">{parts[one]}</div>
        </details>
      ))}
      <ProblemNote error={telling.error} />
      <RecordBar sheet={sheet} bank={bank} telling={telling} phase={clock.phase} />
    </div>
  );
}

/** The record itself, or what it still lacks; nothing is asked for while the fish is in the air. */
function RecordBar({
  sheet,
  bank,
  telling,
  phase,
}: {
  sheet: RuleSheet;
  bank: Bank;
  telling: ReturnType<typeof useSpecimenRecord>;
  phase: ClockPhase;
}) {
  const { isBlank, putAway } = bank;
  const { corrects } = bank.draft;
  const { isBusy, missing, record, speciesId, unit, weight } = telling;
  const isMain = phase === 'over' || corrects !== null;
  return (
    <div
      className={`bg-base-100 border-base-300 flex gap-2 ${isMain ? 'max-lg:sticky max-lg:bottom-16 max-lg:z-10 max-lg:-mx-4 max-lg:border-t max-lg:px-4 max-lg:py-3' : ''}`}
    >
      {(corrects || (phase === 'idle' && !isBlank)) && (
        <button type="button" className="btn h-16" onClick={putAway}>
          {corrects ? 'Leave it as it was' : 'Discard, no record'}
        </button>
      )}
      <button
        type="button"
        className={`btn h-16 grow text-lg ${isMain ? 'btn-primary' : ''}`}
        disabled={missing !== null || isBusy || phase === 'air'}
        onClick={() => void record()}
      >
        {phase === 'air'
          ? 'First back into the water'
          : (missing ??
            `Record ${formatMass(weight?.netG ?? 0, unit)} ${findSpecies(sheet, speciesId)?.name ?? ''}`)}
      </button>
    </div>
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
  kept: readonly { photographId: FileId }[];
  onAdd: (() => void) | null;
  onRemove: (frameId: FileId) => void;
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
