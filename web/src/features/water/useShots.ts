import { useCallback, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { FrameRole, useFrames } from '../../camera/frames.ts';
import type { TakenFrame } from '../../camera/takeBurst.ts';
import { appNow } from '../../clock/appClock.ts';
import { custody } from '../../custody/custody.ts';
import { useSigning } from '../../custody/useSigning.ts';
import type { CatchId, EntrantId, EventId } from '@lauta/core/ids';

/** Takes what the camera shoots and what is chosen as a file: each is signed on this device as it comes. */
export function useShots(
  of: { eventId: EventId; entrantId: EntrantId; catchId: CatchId; identifierCode: string | null },
  add: ReturnType<typeof useFrames>['add'],
) {
  const sign = useSigning(of);
  const [isBursting, setBursting] = useState(false);
  const take = useCallback(
    ({ jpeg, takenAtMs, monotonicMs }: TakenFrame, role: FrameRole) => {
      const frameId = uuidv7();
      // Signed before it is stored: a frame that is there has its signature.
      void sign({ photo: jpeg, kind: 'frame', atMs: takenAtMs, monotonicMs, frameId }).then(() =>
        add(jpeg, new Date(takenAtMs), role, frameId),
      );
    },
    [add, sign],
  );
  const burst = useCallback((isTaking: boolean) => {
    setBursting(isTaking);
    if (!isTaking) void custody.tell();
  }, []);
  /** Signs a file that was chosen; the instant at which it was. */
  const choose = (photo: Blob): Date => {
    const at = appNow();
    void sign({
      photo,
      kind: 'file',
      atMs: at.getTime(),
      monotonicMs: performance.now(),
      frameId: null,
    }).then(() => custody.tell());
    return at;
  };
  return { take, burst, isBursting, choose };
}
