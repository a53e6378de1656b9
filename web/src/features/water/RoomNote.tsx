import { useEffect, useState } from 'react';
import { Signal } from '../../ui/Signal.tsx';
import { roomForCatches } from '../../offline/room.ts';
import type { CatchId } from '@lauta/core/ids';

/** Under so many more catches it is said, long before a fish would have to be refused. */
const FEW = 10;

/** Says early when room on the device runs short. */
export function RoomNote({ catchId }: { catchId: CatchId }) {
  const [room, setRoom] = useState<number | null>(null);
  // Each catch fills it further.
  useEffect(() => {
    let isHere = true;
    void roomForCatches().then((found) => isHere && setRoom(found));
    return () => {
      isHere = false;
    };
  }, [catchId]);
  if (room === null || room >= FEW) return null;
  return (
    <p role="status">
      <Signal tone="look">room for about {room} more catches</Signal> Let what waits be sent, and delete films
      from this device. Fish are taken all the same.
    </p>
  );
}
