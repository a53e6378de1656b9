import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { useCallback, useEffect, useRef, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { BoardMarks } from '@lauta/core/photo';

/**
 * A catch that is being claimed. Its ids are made when the photograph is chosen, so that however often it is sent,
 * from however many tabs, it stays one catch.
 */
export interface CatchDraft {
  catchId: string;
  photographId: string;
  measurementId: string;
  commandId: string;
  photo: Blob;
  chosenAt: string;
  marks: BoardMarks | null;
  boardId: string;
  speciesId: string;
  identifierCode: string | null;
  /** Null as long as it follows the reading. */
  claimedSteps: number | null;
}

interface Schema extends DBSchema {
  drafts: { key: string; value: CatchDraft };
}

let opened: Promise<IDBPDatabase<Schema>> | null = null;

function database(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>('lauta-water', 1, { upgrade: (db) => void db.createObjectStore('drafts') });
  return opened;
}

export function newDraft(
  photo: Blob,
  chosenAt: Date,
  choices: Pick<CatchDraft, 'boardId' | 'speciesId'>,
): CatchDraft {
  return {
    catchId: uuidv7(),
    photographId: uuidv7(),
    measurementId: uuidv7(),
    commandId: uuidv7(),
    photo,
    chosenAt: chosenAt.toISOString(),
    marks: null,
    identifierCode: null,
    claimedSteps: null,
    ...choices,
  };
}

/** The draft of an event, kept in the browser until it is claimed or put away. Undefined while it is being fetched. */
export function useDraft(eventId: string) {
  const [draft, setDraft] = useState<CatchDraft | null | undefined>(undefined);
  const latest = useRef<CatchDraft | null>(null);
  useEffect(() => {
    let isHere = true;
    database()
      .then((db) => db.get('drafts', eventId))
      .catch(() => undefined)
      .then((kept) => {
        if (!isHere) return;
        latest.current = kept ?? null;
        setDraft(kept ?? null);
      });
    return () => {
      isHere = false;
    };
  }, [eventId]);

  const put = useCallback(
    (next: CatchDraft | null) => {
      latest.current = next;
      setDraft(next);
      // The screen goes by memory; a browser that refuses to store only loses the draft with the page.
      const store = async (): Promise<void> => {
        const db = await database();
        if (next) await db.put('drafts', next, eventId);
        else await db.delete('drafts', eventId);
      };
      store().catch(() => undefined);
    },
    [eventId],
  );
  const change = useCallback(
    (part: Partial<CatchDraft>) => {
      if (latest.current) put({ ...latest.current, ...part });
    },
    [put],
  );
  return { draft, put, change };
}
