import { useQueryClient } from '@tanstack/react-query';
import QRCode from 'qrcode';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { PAIRED_JOBS, type PairedJob, type PairingView } from '@lauta/contract';
import { sendJson } from '../../door/ask.ts';
import { Signal } from '../../ui/Signal.tsx';
import { useOnce } from '../../ui/useOnce.ts';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { Empty } from '../../ui/states.tsx';
import { useWho } from '../../session/who.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { useOwnPairings } from '../../queries/pairing.ts';
import type { PairingId } from '@lauta/core/ids';

const JOB_WORDS: Record<PairedJob, { name: string; says: string }> = {
  camera: { name: 'Camera', says: 'It photographs, measures and claims; this phone times.' },
  timer: { name: 'Timer', says: 'It times; this phone photographs, measures and claims.' },
};

/** Pairs a partner's phone: it becomes camera or timer for this entrant, and nothing else. */
export function PairPage() {
  const { event, place } = useInEvent();
  const who = useWho();
  const isPartner = Boolean(who.data?.account?.pairing);
  const [offered, setOffered] = useState<{ job: PairedJob; url: string } | null>(null);
  const { run, error } = useOnce();
  const pairings = useOwnPairings(event.eventId, place.entrantId !== null && !isPartner);
  const client = useQueryClient();
  if (!place.entrantId || isPartner) {
    return (
      <Empty title={isPartner ? 'This phone is paired' : 'For entrants'}>
        {isPartner
          ? 'It acts for its entrant; pair more from the entrant’s own phone.'
          : 'Sign in as an angler of this event to pair a phone.'}
      </Empty>
    );
  }
  const { entrantId } = place;
  const refresh = () => client.invalidateQueries({ queryKey: ['event', event.eventId, 'own-pairings'] });
  const offer = async (job: PairedJob): Promise<void> => {
    const body = { pairingId: uuidv7(), eventId: event.eventId, entrantId, job };
    const { path } = await sendJson<{ path: string }>('POST', '/api/pairings', body);
    setOffered({ job, url: new URL(path, location.origin).href });
    await refresh();
  };
  const end = async (pairingId: PairingId): Promise<void> => {
    await sendJson('POST', `/api/own-pairings/${pairingId}/end`, {});
    await refresh();
  };
  const used = pairings.data?.filter(({ usedAt }) => usedAt !== null) ?? [];
  return (
    <div className="grid max-w-2xl gap-5">
      <div>
        <h1>Partner’s phone</h1>
        <p className="text-quiet">
          Pair it ashore, where there is a network. Afloat neither phone needs one: fish have numbers, and
          what both tell of fish 7 becomes one catch.
        </p>
      </div>
      <div className="grid grid-cols-2 gap-2">
        {PAIRED_JOBS.map((job) => (
          <button
            key={job}
            type="button"
            className="btn h-auto min-h-20 flex-col gap-0 px-2 py-2"
            aria-pressed={offered?.job === job}
            onClick={() => void run(() => offer(job))}
          >
            <b className="text-lg">{JOB_WORDS[job].name}</b>
            <span className="text-sm font-normal">{JOB_WORDS[job].says}</span>
          </button>
        ))}
      </div>
      <ProblemNote error={error} />
      {offered && <Code url={offered.url} />}
      {used.length > 0 && (
        <section aria-labelledby="paired">
          <h2 id="paired">Paired</h2>
          <ul className="ruled border-base-300 mt-1 border-y">
            {used.map((pairing) => (
              <Paired key={pairing.pairingId} pairing={pairing} end={(id) => void run(() => end(id))} />
            ))}
          </ul>
        </section>
      )}
      <p>
        <Link className="btn h-16 lg:h-12" to={eventPath(event.eventId, 'water')}>
          To the water
        </Link>
      </p>
    </div>
  );
}

function Code({ url }: { url: string }) {
  const [picture, setPicture] = useState<{ of: string; data: string } | null>(null);
  useEffect(() => {
    let isHere = true;
    void QRCode.toDataURL(url, { errorCorrectionLevel: 'M', margin: 4, width: 640 }).then(
      (data) => isHere && setPicture({ of: url, data }),
    );
    return () => {
      isHere = false;
    };
  }, [url]);
  return (
    <section aria-label="Code to pair" className="grid justify-items-center gap-2">
      {picture?.of === url && (
        <img
          src={picture.data}
          alt="Code that the partner’s phone reads with its camera"
          className="w-full max-w-80"
        />
      )}
      <p role="status" className="text-center">
        Read it with the other phone’s camera, within a quarter of an hour. It works once.
      </p>
      <p className="text-quiet text-sm break-all">{url}</p>
    </section>
  );
}

function Paired({ pairing, end }: { pairing: PairingView; end: (pairingId: PairingId) => void }) {
  return (
    <li className="flex min-h-16 items-center justify-between gap-3 py-2">
      <Signal tone="clear">{JOB_WORDS[pairing.job].name.toLowerCase()}, paired</Signal>
      <button type="button" className="btn h-16 lg:h-12" onClick={() => end(pairing.pairingId)}>
        End it
      </button>
    </li>
  );
}
