import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { OwnKeyView } from '@lauta/contract';
import { custody } from '../../custody/custody.ts';
import { dayAndTime } from '@lauta/words/clock';
import { sendJson } from '../../door/ask.ts';
import { Signal } from '../../ui/Signal.tsx';
import { useOnce } from '../../ui/useOnce.ts';
import { useInEvent } from '../../event/inEvent.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { OWN_KEYS, useOwnKeys } from '../../queries/custody.ts';
import { REVOKED_WORDS } from '@lauta/words/custody';

/** The phones that sign for an account; one that is lost or given away is struck off. */
export function OwnDevices() {
  const keys = useOwnKeys();
  const client = useQueryClient();
  const [ownKeyId, setOwnKeyId] = useState<string | null>(null);
  useEffect(() => {
    let isHere = true;
    void custody.ownKeyId().then((keyId) => {
      if (!isHere) return;
      setOwnKeyId(keyId);
      void client.invalidateQueries({ queryKey: OWN_KEYS });
    });
    return () => {
      isHere = false;
    };
  }, [client]);
  return (
    <section aria-labelledby="devices">
      <h2 id="devices">Devices that sign for you</h2>
      <p className="text-quiet">
        Each photograph is signed where it is taken. Remove a phone that you no longer have: what it signs
        afterwards is found.
      </p>
      {keys.data?.length === 0 && <p>None yet: this one is registered at its next connection.</p>}
      <ul className="ruled border-base-300 mt-1 border-y">
        {keys.data?.map((key) => (
          <Device key={key.keyId} device={key} isThis={key.keyId === ownKeyId} />
        ))}
      </ul>
      <ProblemNote error={keys.error} />
    </section>
  );
}

function Device({ device, isThis }: { device: OwnKeyView; isThis: boolean }) {
  const { event } = useInEvent();
  const client = useQueryClient();
  const [isSure, setSure] = useState(false);
  const { run, error } = useOnce();
  const strike = async (why: NonNullable<OwnKeyView['revokedWhy']>): Promise<void> => {
    await sendJson('POST', `/api/own-keys/${device.keyId}/revoke`, { why });
    await client.invalidateQueries({ queryKey: OWN_KEYS });
  };
  return (
    <li className="flex min-h-16 flex-wrap items-center justify-between gap-3 py-2">
      <span>
        <b className="num">{device.keyId.slice(0, 8)}</b>
        {isThis && <b>, this one</b>}
        <span className="text-quiet block text-sm">
          registered {dayAndTime(device.registeredAt, event.zone)}
        </span>
      </span>
      {device.revokedWhy && device.revokedAt ? (
        <Signal tone="look">
          struck off {dayAndTime(device.revokedAt, event.zone)}: {REVOKED_WORDS[device.revokedWhy]}
        </Signal>
      ) : isSure ? (
        <span className="flex flex-wrap gap-2">
          <button type="button" className="btn h-16 lg:h-12" onClick={() => void run(() => strike('lost'))}>
            It is lost
          </button>
          <button
            type="button"
            className="btn h-16 lg:h-12"
            onClick={() => void run(() => strike('given-away'))}
          >
            It was given away
          </button>
          <button type="button" className="btn h-16 lg:h-12" onClick={() => setSure(false)}>
            Keep it
          </button>
        </span>
      ) : (
        !isThis && (
          <button type="button" className="btn h-16 lg:h-12" onClick={() => setSure(true)}>
            Remove
          </button>
        )
      )}
      <ProblemNote error={error} />
    </li>
  );
}
