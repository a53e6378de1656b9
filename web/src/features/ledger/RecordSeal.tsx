import { useQuery } from '@tanstack/react-query';
import type { LedgerKeyView } from '@lauta/contract';
import { getJson } from '../../door/ask.ts';
import { Signal } from '../../ui/Signal.tsx';
import { useToldHeads } from '../../live/toldHeads.ts';
import type { EventId } from '@lauta/core/ids';

/** Where the record ends, by whose key that is signed, and whether what this device was told still stands. */
export function RecordSeal({ eventId, head }: { eventId: EventId; head: { seq: number; hash: string } }) {
  const keys = useQuery({
    queryKey: ['ledger-keys'],
    queryFn: ({ signal }) => getJson<LedgerKeyView[]>('/api/ledger-keys', signal),
  });
  const { told, broken } = useToldHeads(eventId);
  const current = keys.data?.find(({ retiredAt }) => retiredAt === null);
  const last = told.at(-1);
  return (
    <details className="mb-4">
      <summary className="min-h-11 cursor-pointer content-center">
        Where it ends, and who vouches for it
      </summary>
      <dl className="grid gap-x-4 text-sm sm:grid-cols-[12rem_1fr]">
        <dt className="text-quiet">ends with</dt>
        <dd className="break-all">
          entry {head.seq}, <code>{head.hash}</code>
        </dd>
        <dt className="text-quiet">signed by key</dt>
        <dd>
          <code className="num">{current ? (current.keyId.match(/.{4}/g) ?? []).join(' ') : '…'}</code>
        </dd>
        <dt className="text-quiet">this device was told</dt>
        <dd>
          {last
            ? `${told.length === 1 ? 'one end' : `${told.length} ends`} of it, the last at entry ${last.seq}`
            : 'nothing yet'}
        </dd>
      </dl>
      <p className="text-quiet mt-1 text-sm">
        Whoever has written a head down, on a ticket or on another device, can compare it with the entry of
        that number: it must hold the same hash for ever.
      </p>
      {broken && <Signal tone="fault">entry {broken.seq} is not what this device was told</Signal>}
    </details>
  );
}
