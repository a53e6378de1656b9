import type { RecordSpecimen } from '@lauta/contract';
import type { Handling } from '@lauta/core/care';
import { hashHex } from '@lauta/core/ledger';
import type { RuleSheet } from '@lauta/core/rules';
import { specimenWeight } from '@lauta/core/specimen';
import { massUnitOf, formatMass } from '@lauta/core/units';
import { isJpeg } from '@lauta/vision';
import { useState } from 'react';
import type { Frame } from '../../camera/frames.ts';
import { useCareChoices } from '../../care/careChoices.ts';
import { appNow } from '../../clock/appClock.ts';
import { lastClockOffset } from '../../device/preparedness.ts';
import { useInEvent } from '../../event/inEvent.ts';
import { handlingOf } from '../../fish-clock/runningCatch.ts';
import { outbox } from '../../outbox/outbox.ts';
import { useOnce } from '../../ui/useOnce.ts';
import { type SpecimenDraft, weighingOf } from './specimenDraft.ts';
import type { Bank } from './useBank.ts';
import type { EntrantId, FileId, SpeciesId } from '@lauta/core/ids';

const MOST_PHOTOGRAPHS = 4;

/** What is told of the specimen on the bank, up to its record. */
export function useSpecimenRecord(sheet: RuleSheet, entrantId: EntrantId, bank: Bank) {
  const { event } = useInEvent();
  const unit = massUnitOf(sheet.measure.step);
  const care = useCareChoices();
  const [recorded, setRecorded] = useState<string | null>(null);
  const [fileTrouble, setFileTrouble] = useState<string | null>(null);
  const { running, draft, put, frames, add, putAway } = bank;
  const { run, isBusy, error } = useOnce();
  const { corrects } = draft;
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
      const body = recordOf(draft, entrantId, specimen);
      const files = await filesOf(frames ?? []);
      await outbox.keep('specimen.record', event.eventId, body, { commandId: draft.commandId, files });
      putAway();
      setRecorded(formatMass(weight.netG, unit));
    });
  return {
    unit,
    speciesId,
    weight,
    recorded,
    fileTrouble,
    canAddPhotograph: photographs.length < MOST_PHOTOGRAPHS,
    photograph,
    record,
    isBusy,
    error,
    tell: (part: Partial<SpecimenDraft>): void => {
      setRecorded(null);
      put({ ...draft, ...part });
    },
    missing: !weight
      ? 'The weight is missing'
      : corrects && corrects.reason.trim() === ''
        ? 'The reason is missing'
        : null,
  };
}

function recordOf(
  draft: SpecimenDraft,
  entrantId: EntrantId,
  specimen: RecordSpecimen['specimen'],
): RecordSpecimen {
  const { corrects } = draft;
  return {
    specimenId: draft.specimenId,
    entrantId,
    weighedAt: draft.weighedAt ?? appNow().toISOString(),
    clockOffsetMs: lastClockOffset(),
    weighedHow: draft.weighedHow,
    specimen,
    note: draft.note.trim(),
    corrects: corrects && { specimenId: corrects.specimenId, reason: corrects.reason.trim() },
  };
}

const filesOf = (frames: readonly Frame[]) =>
  Promise.all(
    frames.map(async ({ frameId, photo }) => ({
      fileId: frameId,
      blob: photo,
      sha256: hashHex(new Uint8Array(await photo.arrayBuffer())),
      mediaType: 'image/jpeg' as const,
    })),
  );

/** What is told so far, as a record; null as long as nothing was weighed or a tare is missing. */
function specimenOf(
  draft: SpecimenDraft,
  speciesId: SpeciesId,
  photographs: readonly { photographId: FileId }[],
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
