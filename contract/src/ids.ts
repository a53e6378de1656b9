import { z } from 'zod';
import type {
  AccountId,
  CaptureId,
  CatchId,
  CommandId,
  DayId,
  DeviceId,
  EntrantId,
  EventId,
  FileId,
  MeasurementId,
  PairingId,
  VerdictId,
} from '@lauta/core/ids';

/** Ids as they come in: a UUID, and from there on one of its kind. */
export const ID = {
  account: z.uuid().transform((id): AccountId => id),
  capture: z.uuid().transform((id): CaptureId => id),
  catch: z.uuid().transform((id): CatchId => id),
  command: z.uuid().transform((id): CommandId => id),
  day: z.uuid().transform((id): DayId => id),
  device: z.uuid().transform((id): DeviceId => id),
  entrant: z.uuid().transform((id): EntrantId => id),
  event: z.uuid().transform((id): EventId => id),
  file: z.uuid().transform((id): FileId => id),
  measurement: z.uuid().transform((id): MeasurementId => id),
  pairing: z.uuid().transform((id): PairingId => id),
  verdict: z.uuid().transform((id): VerdictId => id),
};
