import { v7 as uuidv7 } from 'uuid';
import type { Handling } from '@lauta/core/care';
import { hashHex } from '@lauta/core/ledger';
import { readExif } from '@lauta/vision';
import { stepsReached, type LengthSheet } from '@lauta/core/rules';
import { readTape, type TapeMark } from '@lauta/core/tape';
import { LENGTH_STEPS, mmFromSteps, parseSteps, type LengthStepId } from '@lauta/core/units';
import { appNow } from '../../clock/appClock.ts';
import { custody } from '../../custody/custody.ts';
import { useSigning } from '../../custody/useSigning.ts';
import { useInEvent } from '../../event/inEvent.ts';
import { useFrames, type Frame } from '../../camera/frames.ts';
import { captureTime } from '@lauta/core/catch';
import { claimExtras } from './useClaim.ts';
import { useSending, type Claimed } from './useSending.ts';
import type { TapeDraft } from './tapeDraft.ts';
import type { CatchId, EntrantId, FileId, SpeciesId } from '@lauta/core/ids';

/** A tape is read finer than the rules round: by the eighth of an inch, or by the millimetre. */
function tapeStep(step: LengthStepId): LengthStepId {
  return LENGTH_STEPS[step].unit === 'in' ? 'eighth-inch' : 'millimetre';
}

export interface TapeOf {
  catchId: CatchId;
  draft: TapeDraft;
  put: (next: TapeDraft | null) => void;
  sheet: LengthSheet;
  speciesId: SpeciesId;
  entrantId: EntrantId;
  code: string | null;
  handling: Handling | null;
  onClaimed: (claimed: Claimed) => void;
}

/** What the readings say together: the length where two agree, and what is still wanting. */
export function tapeReading(draft: TapeDraft, sheet: LengthSheet) {
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
  return { offsetMm, marks, isWhole, read, taken, claimedSteps, unit, mmOf };
}

export type TapeFigures = ReturnType<typeof tapeReading>;

/** Photographs of a tape and what is typed of them, up to the claim. */
export function useTapeBench({
  catchId,
  draft,
  put,
  sheet,
  speciesId,
  entrantId,
  code,
  handling,
  onClaimed,
}: TapeOf) {
  const { event } = useInEvent();
  const { frames, add, replace } = useFrames(`tape ${catchId}`);
  const sign = useSigning({ eventId: event.eventId, entrantId, catchId, identifierCode: code });
  const { send, isBusy, error } = useSending((claimed) => {
    void replace([]);
    put(null);
    onClaimed(claimed);
  });
  const reading = tapeReading(draft, sheet);
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
      files: () => Promise.all(sent.map(fileOf)),
      claim: {
        catchId,
        entrantId,
        speciesId,
        captured: captureTime(exif, last.frame.takenAt, event.zone),
        photographs: sent.map(({ photographId }) => ({ photographId, role: 'fish', isFromOutside: true })),
        measurement: {
          kind: 'tape',
          measurementId: draft.measurementId,
          photographId: last.photographId,
          marks: reading.marks,
          gripOffsetMm: reading.offsetMm ?? 0,
        },
        claimedSteps: steps,
        identifierCode: code,
        ...claimExtras(handling),
      },
    });
  };
  return { reading, frames, photograph, claim, isBusy, error };
}

async function fileOf({ photographId, frame: { photo } }: { photographId: FileId; frame: Frame }) {
  const sha256 = hashHex(new Uint8Array(await photo.arrayBuffer()));
  return { fileId: photographId, blob: photo, sha256, mediaType: 'image/jpeg' as const };
}
