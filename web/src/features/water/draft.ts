import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { BoardMarks, MarkName, PhotoAnalysis } from '@lauta/vision';
import { deviceDatabase } from '../../device/database.ts';
import type { BoardId, CatchId, CommandId, EventId, FileId, MeasurementId, SpeciesId } from '@lauta/core/ids';

/**
 * A catch that is being claimed. Its ids are made when the photograph is chosen, so that however often it is sent,
 * from however many tabs, it stays one catch.
 */
export interface CatchDraft {
  catchId: CatchId;
  photographId: FileId;
  measurementId: MeasurementId;
  commandId: CommandId;
  photo: Blob;
  chosenAt: string;
  /** The frame of the page's own camera that it is; null for a file. */
  frameId: FileId | null;
  /** Taken by another camera than the page's own. */
  isFromOutside: boolean;
  marks: BoardMarks | null;
  /** What the bench found by itself; null before it has looked (and in drafts of versions without it). */
  analysis: PhotoAnalysis | null;
  /** Marks that a person has moved since. */
  byHand: readonly MarkName[];
  boardId: BoardId;
  speciesId: SpeciesId;
  identifierCode: string | null;
  /** Null as long as it follows the reading. */
  claimedSteps: number | null;
}

/** The photograph is written once and by itself: handles move many times a second, megabytes must not. */
type Fields = Omit<CatchDraft, 'photo'>;

/** As some landed version stored it. */
type StoredFields = Omit<Fields, 'analysis' | 'byHand' | 'frameId' | 'isFromOutside'> &
  Partial<Pick<Fields, 'analysis' | 'byHand' | 'frameId' | 'isFromOutside'>>;

declare module '../../device/deviceStores.ts' {
  interface DeviceStores {
    /** Both by event. */
    drafts: { key: string; value: StoredFields };
    'draft-photographs': { key: string; value: Blob };
  }
}

async function readDraft(eventId: EventId): Promise<CatchDraft | null> {
  const db = await deviceDatabase();
  const [fields, photo] = await Promise.all([
    db.get('drafts', eventId),
    db.get('draft-photographs', eventId),
  ]);
  // A draft of the version without a bench has neither field: its marks, if any, were set by hand.
  return fields && photo
    ? {
        ...fields,
        analysis: fields.analysis ?? null,
        byHand: fields.byHand ?? [],
        frameId: fields.frameId ?? null,
        isFromOutside: fields.isFromOutside ?? (fields.frameId ?? null) === null,
        photo,
      }
    : null;
}

async function writeDraft(eventId: EventId, draft: CatchDraft | null, withPhoto: boolean): Promise<void> {
  const db = await deviceDatabase();
  const change = db.transaction(['drafts', 'draft-photographs'], 'readwrite');
  const drafts = change.objectStore('drafts');
  const photographs = change.objectStore('draft-photographs');
  if (draft) {
    const { photo, ...fields } = draft;
    await drafts.put(fields, eventId);
    if (withPhoto) await photographs.put(photo, eventId);
  } else {
    await drafts.delete(eventId);
    await photographs.delete(eventId);
  }
  await change.done;
}

export function newDraft(
  catchId: CatchId,
  photo: Blob,
  chosenAt: Date,
  choices: Pick<CatchDraft, 'boardId' | 'speciesId'>,
): CatchDraft {
  return {
    catchId,
    photographId: uuidv7(),
    measurementId: uuidv7(),
    commandId: uuidv7(),
    photo,
    chosenAt: chosenAt.toISOString(),
    frameId: null,
    isFromOutside: true,
    marks: null,
    analysis: null,
    byHand: [],
    identifierCode: null,
    claimedSteps: null,
    ...choices,
  };
}

/** Writes one after the other; what changes while one is on its way is written once, as it stands then. */
function draftWriter(eventId: EventId) {
  let isWriting = false;
  let waiting: { draft: CatchDraft | null } | null = null;
  let written: Blob | null = null;
  const write = async (): Promise<void> => {
    isWriting = true;
    while (waiting) {
      const { draft } = waiting;
      waiting = null;
      const photo = draft?.photo ?? null;
      // The screen goes by memory: a browser that refuses to store only loses the draft with the page.
      await writeDraft(eventId, draft, photo !== written).catch(() => undefined);
      written = photo;
    }
    isWriting = false;
  };
  return {
    /** The photograph that is stored already. */
    knows: (photo: Blob) => {
      written = photo;
    },
    put: (draft: CatchDraft | null) => {
      waiting = { draft };
      if (!isWriting) void write();
    },
  };
}

/** The draft of an event, kept in the browser until it is claimed or put away. Undefined while it is being fetched. */
export function useDraft(eventId: EventId) {
  const [draft, setDraft] = useState<CatchDraft | null | undefined>(undefined);
  const latest = useRef<CatchDraft | null>(null);
  const writer = useMemo(() => draftWriter(eventId), [eventId]);
  useEffect(() => {
    let isHere = true;
    void readDraft(eventId)
      .catch(() => null)
      .then((kept) => {
        if (!isHere) return;
        if (kept) writer.knows(kept.photo);
        latest.current = kept;
        setDraft(kept);
      });
    return () => {
      isHere = false;
    };
  }, [eventId, writer]);

  const put = useCallback(
    (next: CatchDraft | null) => {
      latest.current = next;
      setDraft(next);
      writer.put(next);
    },
    [writer],
  );
  const change = useCallback(
    (part: Partial<CatchDraft>) => {
      if (latest.current) put({ ...latest.current, ...part });
    },
    [put],
  );
  return { draft, put, change };
}
