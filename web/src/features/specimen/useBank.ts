import { useMemo } from 'react';
import type { SpecimenView } from '@lauta/contract';
import type { RuleSheet } from '@lauta/core/rules';
import { G_PER_OUNCE, massUnitOf } from '@lauta/core/units';
import { useFrames } from '../../camera/frames.ts';
import { freshCatch } from '../../fish-clock/runningCatch.ts';
import { useRunningCatch } from '../../fish-clock/useRunningCatch.ts';
import { freshDraft, useSpecimenDraft, type SpecimenDraft } from './specimenDraft.ts';
import type { EventId } from '@lauta/core/ids';

const METRIC_STEP_G = 10;

/** The specimen on the bank in an event: its clock, what was told of it, and its photographs, all kept on the device. */
export function useBank(eventId: EventId, sheet: RuleSheet) {
  // A fish of its own beside the one on the water page.
  const { isKnown, running, change, begin } = useRunningCatch(`specimen ${eventId}`);
  const { draft: kept, put } = useSpecimenDraft(eventId);
  const { frames, add, replace } = useFrames(`specimen ${running.catchId}`);
  const stepG = massUnitOf(sheet.measure.step) === 'kg' ? METRIC_STEP_G : G_PER_OUNCE;
  // The fish on the clock becomes the specimen, under the same id.
  const specimenId: string = running.catchId;
  const blank = useMemo(() => freshDraft(specimenId, stepG), [specimenId, stepG]);
  const draft = kept?.specimenId === specimenId ? kept : blank;
  /** Nothing was told, tapped or photographed yet: another may take its place. */
  const isBlank = draft === blank && running.events.length === 0 && frames?.length === 0;
  const putAway = (): void => {
    void replace([]);
    put(null);
    begin(freshCatch());
  };
  const correct = (record: SpecimenView): void => {
    const next = freshCatch();
    begin(next);
    put(correctionOf(record, next.catchId));
  };
  return { isKnown, isBlank, running, change, draft, put, frames, add, replace, putAway, correct };
}
export type Bank = ReturnType<typeof useBank>;

/** A former record as the beginning of the one that puts it right. */
function correctionOf(
  { specimen, specimenId, weighedAt, weighedHow, note }: SpecimenView,
  id: string,
): SpecimenDraft {
  const { weighing } = specimen;
  const noted = weighing.tare.kind === 'noted' ? weighing.tare : null;
  return {
    ...freshDraft(id, weighing.divisionG),
    speciesId: specimen.speciesId,
    lengthMm: specimen.lengthMm,
    tare: weighing.tare.kind,
    slingG: noted?.slingG ?? null,
    standG: noted?.standG ?? null,
    grossG: weighing.grossG,
    weighedHow,
    weighedAt,
    emptyAfterG: weighing.emptyAfterG,
    divisionG: weighing.divisionG,
    care: specimen.care,
    wounds: specimen.wounds,
    note,
    corrects: {
      specimenId,
      reason: '',
      specimen: {
        ...specimen,
        photographs: [...specimen.photographs],
        handling: specimen.handling && { ...specimen.handling, events: [...specimen.handling.events] },
      },
    },
  };
}
