import { useCallback, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';

/** Readings of a tape as they are being written down; it stays on the device until it is claimed or put away. */
export interface TapeDraft {
  measurementId: string;
  commandId: string;
  /** As typed, from the grip to the nose. */
  offset: string;
  readings: readonly { frameId: string; photographId: string; typed: string }[];
}

const schema = z.object({
  measurementId: z.uuid(),
  commandId: z.uuid(),
  offset: z.string().max(20),
  readings: z
    .array(z.object({ frameId: z.uuid(), photographId: z.uuid(), typed: z.string().max(20) }))
    .max(6),
});

const OFFSET_KEY = 'lauta-grip-offset';

function freshTape(): TapeDraft {
  return {
    measurementId: uuidv7(),
    commandId: uuidv7(),
    // The same grip as last time.
    offset: localStorage.getItem(OFFSET_KEY) ?? '',
    readings: [],
  };
}

const keyOf = (catchId: string): string => `lauta-tape-${catchId}`;

function readTapeDraft(catchId: string): TapeDraft | null {
  try {
    const found = schema.safeParse(JSON.parse(localStorage.getItem(keyOf(catchId)) ?? 'null'));
    return found.success ? found.data : null;
  } catch {
    return null;
  }
}

/** Null as long as this catch is not measured with a tape. */
export function useTapeDraft(catchId: string) {
  const [held, setHeld] = useState(() => ({ catchId, draft: readTapeDraft(catchId) }));
  const draft = held.catchId === catchId ? held.draft : readTapeDraft(catchId);
  const put = useCallback(
    (next: TapeDraft | null) => {
      if (next) {
        localStorage.setItem(keyOf(catchId), JSON.stringify(next));
        localStorage.setItem(OFFSET_KEY, next.offset);
      } else localStorage.removeItem(keyOf(catchId));
      setHeld({ catchId, draft: next });
    },
    [catchId],
  );
  return { draft, put, begin: () => put(freshTape()) };
}
