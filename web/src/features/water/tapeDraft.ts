import { useCallback } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import {
  AS_TEXT,
  forgetStored,
  jsonOf,
  readStored,
  useStored,
  writeStored,
  type Preference,
} from '../../device/stored.ts';
import type { CatchId, CommandId, FileId, MeasurementId } from '@lauta/core/ids';

/** Readings of a tape as they are being written down; it stays on the device until it is claimed or put away. */
export interface TapeDraft {
  measurementId: MeasurementId;
  commandId: CommandId;
  /** As typed, from the grip to the nose. */
  offset: string;
  readings: readonly { frameId: FileId; photographId: FileId; typed: string }[];
}

const schema = z.object({
  measurementId: z.uuid(),
  commandId: z.uuid(),
  offset: z.string().max(20),
  readings: z
    .array(z.object({ frameId: z.uuid(), photographId: z.uuid(), typed: z.string().max(20) }))
    .max(6),
});

const OFFSET: Preference<string> = { key: 'lauta-grip-offset', ...AS_TEXT };

function freshTape(): TapeDraft {
  return {
    measurementId: uuidv7(),
    commandId: uuidv7(),
    // The same grip as last time.
    offset: readStored(OFFSET),
    readings: [],
  };
}

const draftOf = (catchId: CatchId): Preference<TapeDraft | null> => ({
  key: `lauta-tape-${catchId}`,
  parse: (text) => schema.nullable().catch(null).parse(jsonOf(text)),
});

/** Null as long as this catch is not measured with a tape. */
export function useTapeDraft(catchId: CatchId) {
  const draft = useStored(draftOf(catchId));
  const put = useCallback(
    (next: TapeDraft | null) => {
      if (next) {
        writeStored(draftOf(catchId), next);
        writeStored(OFFSET, next.offset);
      } else forgetStored(draftOf(catchId));
    },
    [catchId],
  );
  return { draft, put, begin: () => put(freshTape()) };
}
