import { lazy, Suspense, useRef, useState } from 'react';
import { Link } from 'react-router';
import { areasOf, watersSchema, type Waters } from '@lauta/contract';
import { placeOnWaters, watersTrouble, type PlaceOnWaters } from '@lauta/core/waters';
import { CommandNote } from '../../outbox/CommandNote.tsx';
import { OutboxPanel } from '../../outbox/OutboxPanel.tsx';
import { useCommand } from '../../outbox/useCommand.ts';
import { FileInput } from '../../ui/FileInput.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { hasFailed } from '../../ui/hasFailed.ts';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { useWho } from '../../session/who.ts';
import { PositionNote } from '../../position/PositionNote.tsx';
import { usePosition, useReceiverChoice } from '../../position/usePosition.ts';
import { useWaters } from '../../queries/waters.ts';
import { TROUBLE_WORDS, placeWords } from '@lauta/words/waters';
import type { EventId } from '@lauta/core/ids';

const WatersMap = lazy(() => import('../../map/WatersMap.tsx'));
const MOST_BYTES = 1_000_000;

/** Where one may fish in this event, and where not; an entrant sees the own place on it. */
export function WatersPage() {
  const { event, place } = useInEvent();
  const waters = useWaters(event.eventId);
  const isDirector = place.may('edit-event');
  const [chosen, setChosen] = useState<Waters | null>(null);
  if (hasFailed(waters)) return <Failed error={waters.error} retry={() => void waters.refetch()} />;
  if (waters.isPending) return <Loading what="Fetching the waters" />;
  const shown = chosen ?? waters.data?.waters ?? null;
  return (
    <div className="grid max-w-4xl gap-4">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h1>Where to fish{waters.data && !chosen ? `, version ${waters.data.version}` : ''}</h1>
        <Link className="linklike inline-flex min-h-11 items-center" to={eventPath(event.eventId)}>
          The event
        </Link>
      </div>
      <OutboxPanel />
      {shown ? (
        <Shown waters={shown} isDraft={chosen !== null} isEntrant={place.entrantId !== null} />
      ) : (
        <Empty title="Nobody has drawn them yet">
          {isDirector
            ? 'Open a GeoJSON file of the areas; until then no catch is compared with them.'
            : 'Until the director does, no catch is compared with them.'}
        </Empty>
      )}
      {isDirector && <Publish eventId={event.eventId} chosen={chosen} choose={setChosen} />}
      {waters.data && (
        <p>
          <a
            className="linklike inline-flex min-h-11 items-center"
            href={`data:application/geo+json,${encodeURIComponent(JSON.stringify(waters.data.waters))}`}
            download="waters.geojson"
          >
            GeoJSON
          </a>
        </p>
      )}
    </div>
  );
}

function Shown({ waters, isDraft, isEntrant }: { waters: Waters; isDraft: boolean; isEntrant: boolean }) {
  const who = useWho();
  const receiver = useReceiverChoice(who.data?.isDemo ?? false);
  const state = usePosition(isEntrant ? receiver : 'none');
  const fix = state?.kind === 'fix' ? state.fix : null;
  const own = fix && placeOnWaters(areasOf(waters), fix);
  return (
    <>
      {isDraft && <Signal tone="look">not published yet</Signal>}
      {isEntrant && own && <Own place={own} />}
      {isEntrant && <PositionNote choice={receiver} state={state} />}
      <Suspense fallback={<Loading what="Drawing the waters" />}>
        <WatersMap
          waters={waters}
          places={fix ? [{ ...fix, name: 'you' }] : []}
          className="h-[60vw] max-h-[60vh] min-h-72"
        />
      </Suspense>
      <ul className="flex flex-wrap gap-x-6">
        {waters.features.map(({ properties: { name, use } }, i) => (
          <li key={i}>
            <Signal tone={use === 'open' ? 'clear' : 'fault'}>
              {name || 'unnamed'}: {use === 'open' ? 'open' : 'closed, nobody fishes there'}
            </Signal>
          </li>
        ))}
      </ul>
    </>
  );
}

function Own({ place }: { place: PlaceOnWaters }) {
  return (
    <p role="status" className="text-lg">
      <Signal tone={place.where === 'open' ? 'clear' : 'fault'}>{placeWords(place)}</Signal>
    </p>
  );
}

function Publish({
  eventId,
  chosen,
  choose,
}: {
  eventId: EventId;
  chosen: Waters | null;
  choose: (waters: Waters | null) => void;
}) {
  const command = useCommand();
  const input = useRef<HTMLInputElement>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const open = async (file: File): Promise<void> => {
    choose(null);
    const found = await readWaters(file);
    setRefused(found.ok ? null : found.why);
    if (found.ok) choose(found.waters);
  };
  return (
    <section aria-label="Publish" className="grid gap-2">
      <p className="text-quiet">
        A GeoJSON file (RFC 7946) of polygons. An area whose property <code>use</code> is <code>closed</code>{' '}
        is closed, every other is open; <code>name</code> is shown.
      </p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn h-12" onClick={() => input.current?.click()}>
          Open a GeoJSON file
        </button>
        {chosen && (
          <>
            <button
              type="button"
              className="btn btn-primary h-12"
              disabled={command.isBusy}
              onClick={() =>
                void command.send('waters.publish', eventId, { waters: chosen }, () => choose(null))
              }
            >
              {command.isBusy ? 'Publishing …' : 'Publish these waters'}
            </button>
            <button type="button" className="btn h-12" onClick={() => choose(null)}>
              Discard
            </button>
          </>
        )}
      </div>
      {refused && (
        <p role="alert">
          <Signal tone="fault">{refused}</Signal>
        </p>
      )}
      <CommandNote command={command} />
      <FileInput
        ref={input}
        label="GeoJSON file of the waters"
        accept=".geojson,.json,application/geo+json,application/json"
        onFile={(file) => void open(file)}
      />
    </section>
  );
}

async function readWaters(file: File): Promise<{ ok: true; waters: Waters } | { ok: false; why: string }> {
  if (file.size > MOST_BYTES)
    return { ok: false, why: 'The file is larger than 1 MB: draw the shore with fewer points.' };
  let parsed: unknown;
  try {
    parsed = JSON.parse(await file.text());
  } catch {
    return { ok: false, why: 'The file is not JSON.' };
  }
  const read = watersSchema.safeParse(parsed);
  if (!read.success) {
    const [issue] = read.error.issues;
    return { ok: false, why: `No areas that can be used: ${issue?.path.join('.')} ${issue?.message ?? ''}.` };
  }
  const trouble = watersTrouble(areasOf(read.data));
  return trouble
    ? { ok: false, why: `${TROUBLE_WORDS[trouble.trouble]}${trouble.name ? ` (${trouble.name})` : ''}` }
    : { ok: true, waters: read.data };
}
