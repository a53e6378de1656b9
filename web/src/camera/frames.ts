import { useCallback, useEffect, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { deviceDatabase } from '../device/database.ts';
import type { CatchId, FileId } from '@lauta/core/ids';

/** A photograph of the fish that is on, before one is chosen for the claim. */
export interface Frame {
  /** Grows with time. */
  frameId: FileId;
  catchId: CatchId;
  photo: Blob;
  takenAt: string;
  /** What it shows; absent in frames of the version without portraits. */
  role?: FrameRole;
}

export type FrameRole = 'board' | 'person' | 'clip';

declare module '../device/deviceStores.ts' {
  interface DeviceStores {
    frames: { key: string; value: Frame; indexes: { catchId: CatchId } };
  }
}

/** A frame by its id; null where it is not on this device any more. */
export async function readFrame(frameId: FileId): Promise<Frame | null> {
  return (await (await deviceDatabase()).get('frames', frameId)) ?? null;
}

/** Removes frames by their ids; what is not there is passed over. */
export async function removeFrames(frameIds: readonly FileId[]): Promise<void> {
  if (frameIds.length === 0) return;
  const db = await deviceDatabase();
  const change = db.transaction('frames', 'readwrite');
  for (const frameId of frameIds) await change.store.delete(frameId);
  await change.done;
}

/** The frames of the fish that is on, kept in the browser: a page that is left in mid-catch loses none. */
export function useFrames(catchId: CatchId) {
  const [held, setHeld] = useState<{ of: string; frames: readonly Frame[] } | null>(null);
  useEffect(() => {
    let isHere = true;
    void deviceDatabase()
      .then((db) => db.getAllFromIndex('frames', 'catchId', catchId))
      .catch((): Frame[] => [])
      .then((frames) => isHere && setHeld({ of: catchId, frames }));
    return () => {
      isHere = false;
    };
  }, [catchId]);
  const add = useCallback(
    async (photo: Blob, takenAt: Date, role: FrameRole = 'board', frameId = uuidv7()) => {
      const frame: Frame = { frameId, catchId, photo, takenAt: takenAt.toISOString(), role };
      // A browser that refuses to store loses the frame with the page, not before.
      await deviceDatabase()
        .then((db) => db.put('frames', frame))
        .catch(() => undefined);
      setHeld((former) => ({
        of: catchId,
        frames: [...(former?.of === catchId ? former.frames : []), frame],
      }));
      return frame;
    },
    [catchId],
  );
  const replace = useCallback(
    async (next: readonly Frame[]) => {
      setHeld({ of: catchId, frames: next });
      const db = await deviceDatabase();
      const change = db.transaction('frames', 'readwrite');
      for (const key of await change.store.index('catchId').getAllKeys(catchId))
        await change.store.delete(key);
      for (const frame of next) await change.store.put(frame);
      await change.done;
    },
    [catchId],
  );
  return { frames: held?.of === catchId ? held.frames : null, add, replace };
}
