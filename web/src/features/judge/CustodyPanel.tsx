import { lazy, Suspense, useState } from 'react';
import type { CatchView, CustodyView } from '@lauta/contract';
import { clockTime } from '@lauta/words/clock';
import { Signal } from '../../ui/Signal.tsx';
import { useOnce } from '../../ui/useOnce.ts';
import { useInEvent } from '../../event/inEvent.ts';
import { outbox, useOutbox } from '../../outbox/outbox.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { useWaters } from '../../queries/waters.ts';
import { useCustody } from '../../queries/custody.ts';
import { CUSTODY_WORDS, FRAME_WORDS } from '@lauta/words/custody';
import { custodyReason } from '@lauta/words/custodyReason';
import { countWords } from '@lauta/words/count';

const WatersMap = lazy(() => import('../../map/WatersMap.tsx'));

/** How a catch came from its capture to the server: what is doubtful first, the rest on demand. */
export function CustodyPanel({ caught }: { caught: CatchView }) {
  const custody = useCustody(caught.eventId, caught.catchId, caught.mayJudge);
  if (!custody.data) return null;
  const { findings } = custody.data;
  const doubts = findings.filter(({ tone }) => tone !== 'clear');
  const clear = findings.filter(({ tone }) => tone === 'clear');
  return (
    <section aria-label="From capture to server" className="grid gap-0.5">
      {doubts.length > 0 && (
        <ul className="grid gap-0.5">
          {doubts.map((finding) => (
            <li key={finding.check}>
              <Signal tone={finding.tone}>{CUSTODY_WORDS[finding.check]}</Signal>
              <p className="text-quiet pl-5 text-sm">{custodyReason(finding)}</p>
            </li>
          ))}
        </ul>
      )}
      <details>
        <summary className="linklike min-h-6.5">
          <Signal tone="clear">
            from phone to server: clear in {countWords(clear.length, 'check', 'checks')}
          </Signal>
        </summary>
        <ul className="text-quiet grid gap-1 pl-5 text-sm">
          {clear.map((finding) => (
            <li key={finding.check}>{custodyReason(finding)}</li>
          ))}
        </ul>
        <Frames caught={caught} custody={custody.data} />
        <Place custody={custody.data} />
      </details>
    </section>
  );
}

/** What else was signed of this catch: frames stay on the device until a judge asks. */
function Frames({ caught, custody }: { caught: CatchView; custody: CustodyView }) {
  const { event } = useInEvent();
  const { entries } = useOutbox();
  const { run, error } = useOnce();
  const others = custody.captures.filter(
    ({ isClaimed, photographId }) => !isClaimed || photographId === null,
  );
  if (others.length === 0) return null;
  const kept = others.filter(({ frame }) => frame === 'on-device').map(({ captureId }) => captureId);
  const isAsking = entries.some(
    ({ command }) => command.kind === 'frames.ask' && command.body.catchId === caught.catchId,
  );
  const ask = async (): Promise<void> => {
    await outbox.keep('frames.ask', caught.eventId, { catchId: caught.catchId, captureIds: kept });
  };
  return (
    <details>
      <summary className="linklike min-h-6.5 text-sm">
        {others.length} more signed of this catch
        {others.some(({ frame }) => frame === 'asked') || isAsking ? ', asked for' : ''}
      </summary>
      <ul className="grid gap-0.5 pl-5 text-sm">
        {others.map(({ captureId, at, frame, photographId }) => (
          <li key={captureId} className="flex justify-between gap-3">
            <span className="num">{clockTime(at, event.zone, true)}</span>
            {photographId ? (
              <a
                className="linklike"
                href={`/api/photographs/${photographId}/screen`}
                target="_blank"
                rel="noreferrer"
              >
                {FRAME_WORDS[frame]}
              </a>
            ) : (
              <span className="text-quiet">{FRAME_WORDS[frame]}</span>
            )}
          </li>
        ))}
      </ul>
      {kept.length > 0 && (
        <button type="button" className="btn mt-1" disabled={isAsking} onClick={() => void run(ask)}>
          Ask for {kept.length === 1 ? 'it' : `these ${kept.length}`}
        </button>
      )}
      <ProblemNote error={error} />
    </details>
  );
}

function Place({ custody }: { custody: CustodyView }) {
  const { event } = useInEvent();
  const waters = useWaters(event.eventId);
  const [isOpen, setOpen] = useState(false);
  const { position } = custody;
  if (!position || !waters.data) return null;
  return (
    <details onToggle={({ currentTarget }) => setOpen(currentTarget.open)}>
      <summary className="linklike min-h-6.5 text-sm">Where it was taken; for judges alone</summary>
      {isOpen && (
        <Suspense fallback={<p className="text-quiet">Drawing the waters …</p>}>
          <WatersMap
            waters={waters.data.waters}
            places={[{ ...position, name: 'taken here' }]}
            className="h-56"
          />
        </Suspense>
      )}
      <p className="num text-quiet text-sm">
        {position.latitude.toFixed(5)}, {position.longitude.toFixed(5)} ± {Math.round(position.accuracyM)} m
      </p>
    </details>
  );
}
