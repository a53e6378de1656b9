import { Link } from 'react-router';
import { useToldHeads } from '../live/toldHeads.ts';
import { Signal } from '../ui/Signal.tsx';
import type { EventId } from '@lauta/core/ids';

/** On every page of an event whose record is not the one that this device was told. */
export function BrokenRecord({ eventId }: { eventId: EventId }) {
  const { broken } = useToldHeads(eventId);
  if (!broken) return null;
  return (
    <div role="alert" className="border-error mb-4 border-l-4 py-2 pl-3">
      <Signal tone="fault">The record is not the one that this device was told</Signal>
      <p className="text-sm">
        Entry {broken.seq} {broken.now === null ? 'is gone' : 'is another'}: the record was cut off, restored
        from an older copy, or written anew. Tell the director and the judges;{' '}
        <Link className="linklike" to={`/events/${eventId}/records`}>
          look at the record
        </Link>
        .
      </p>
    </div>
  );
}
