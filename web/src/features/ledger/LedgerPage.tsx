import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import type { RuleSheet } from '@lauta/core/rules';
import type { LedgerCheckView, LedgerEntryView, LedgerView } from '@lauta/contract';
import { dayAndTime } from '@lauta/words/clock';
import { getJson } from '../../door/ask.ts';
import { useInEvent } from '../../event/inEvent.ts';
import { Pager } from '../../ui/Pager.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { useRules } from '../../queries/event.ts';
import { RecordSeal } from './RecordSeal.tsx';
import { FAULT_WORDS, KIND_WORDS, entryWords } from '@lauta/words/entryWords';
import { hasFailed } from '../../ui/hasFailed.ts';

interface Entry {
  kind: string;
  at: string;
  body: Record<string, unknown>;
}

/** The event's record: every change in its order, each bound to the one before by its hash. */
export function LedgerPage() {
  const { event } = useInEvent();
  const [page, setPage] = useState(1);
  const [wanted, setWanted] = useState('');
  const search = useDeferredValue(wanted.trim());
  const ledger = useQuery({
    queryKey: ['event', event.eventId, 'ledger', page, search],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      getJson<LedgerView>(
        `/api/events/${event.eventId}/ledger?page=${page}&search=${encodeURIComponent(search)}`,
        signal,
      ),
  });
  const sheet = useRules(event.eventId).data?.at(-1)?.sheet;
  return (
    <div>
      <div className="mb-3 flex flex-wrap items-end justify-between gap-3">
        <div>
          <h1>Records</h1>
          <p className="text-quiet">the ledger: each entry holds the hash of the one before</p>
        </div>
        <div className="flex flex-wrap gap-2">
          <input
            type="search"
            aria-label="Find entries by kind, catch or any other part of their text"
            placeholder="kind, catch, …"
            className="input h-10 w-44"
            value={wanted}
            onChange={(event_) => {
              setPage(1);
              setWanted(event_.target.value);
            }}
          />
          <a className="btn" href={`/api/events/${event.eventId}/ledger.jsonl`} download>
            Export
          </a>
        </div>
      </div>
      <Check />
      {ledger.data && <RecordSeal eventId={event.eventId} head={ledger.data.head} />}
      {hasFailed(ledger) && <Failed error={ledger.error} retry={() => void ledger.refetch()} />}
      {ledger.isPending && <Loading what="Opening the ledger" />}
      {ledger.data && ledger.data.items.length === 0 && (
        <Empty title={search ? 'No entry holds that' : 'Nothing has happened yet'} />
      )}
      {ledger.data && ledger.data.items.length > 0 && (
        <>
          <ol className="ruled border-base-300 border-y">
            {ledger.data.items.map((entry) => (
              <EntryLine key={entry.seq} entry={entry} zone={event.zone} sheet={sheet} />
            ))}
          </ol>
          <Pager {...ledger.data} onPage={setPage} />
        </>
      )}
    </div>
  );
}

function EntryLine({
  entry,
  zone,
  sheet,
}: {
  entry: LedgerEntryView;
  zone: string;
  sheet: RuleSheet | undefined;
}) {
  const { kind, at, body } = JSON.parse(entry.text) as Entry;
  return (
    <li>
      <details>
        <summary className="grid min-h-11 cursor-pointer grid-cols-[3.5rem_1fr] items-center gap-x-3 py-1 md:grid-cols-[3.5rem_12rem_1fr_11rem_auto]">
          <span className="num text-quiet">{entry.seq}</span>
          <b>{KIND_WORDS[kind] ?? kind}</b>
          <span className="max-md:col-start-2">{entryWords(kind, body, sheet)}</span>
          <span className="text-quiet max-md:col-start-2">{dayAndTime(at, zone)}</span>
          <code className="num text-quiet text-xs max-md:col-start-2">{entry.hash.slice(0, 16)}…</code>
        </summary>
        <pre className="bg-base-200 mb-2 max-h-96 overflow-auto p-3 text-xs whitespace-pre-wrap">
          {JSON.stringify(body, null, 2)}
        </pre>
        <p className="mb-2 text-xs break-all">
          <span className="text-quiet">SHA-256 of the entry’s bytes: </span>
          <code>{entry.hash}</code>
        </p>
      </details>
    </li>
  );
}

function Check() {
  const { event } = useInEvent();
  const [result, setResult] = useState<LedgerCheckView | null>(null);
  const [error, setError] = useState<unknown>(null);
  const [isBusy, setBusy] = useState(false);
  const check = async (): Promise<void> => {
    setBusy(true);
    setError(null);
    try {
      setResult(await getJson<LedgerCheckView>(`/api/events/${event.eventId}/ledger/check`));
    } catch (problem) {
      setError(problem);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="mb-4 flex min-h-12 flex-wrap items-center gap-4">
      <button type="button" className="btn btn-primary" disabled={isBusy} onClick={() => void check()}>
        {isBusy ? 'Checking …' : 'Check the whole record'}
      </button>
      <div role="status">{result && <CheckResult result={result} />}</div>
      <ProblemNote error={error} />
    </div>
  );
}

const MOST_SHOWN = 12;

function CheckResult({ result }: { result: LedgerCheckView }) {
  const { ok, entries, faults, faultCount, erased, untold, head, tookMs } = result;
  const more = faultCount - Math.min(MOST_SHOWN, faults.length);
  return (
    <>
      {ok && (
        <>
          <Signal tone="clear">{entries} entries fit</Signal>{' '}
          <span className="text-quiet text-sm">
            all that they speak of is there, and nothing else is; the bytes of photographs are checked by the
            installation’s own command. Head <code>{head?.hash.slice(0, 16)}…</code>, {tookMs} ms
          </span>
        </>
      )}
      {faultCount > 0 && (
        <>
          <Signal tone="fault">
            {faultCount === 1 ? 'one difference' : `${faultCount} differences`} in {entries} entries
          </Signal>
          <ul className="mt-1 text-sm">
            {faults.slice(0, MOST_SHOWN).map(({ seq, fault, about }) => (
              <li key={`${seq} ${fault} ${about}`}>
                {seq === null ? 'no entry' : `entry ${seq}`}: {FAULT_WORDS[fault] ?? fault}{' '}
                <span className="text-quiet break-all">{about}</span>
              </li>
            ))}
            {more > 0 && <li>and {more} more</li>}
          </ul>
        </>
      )}
      {erased > 0 && (
        <Signal tone="look">
          {erased === 1 ? 'the words of one entry were' : `the words of ${erased} entries were`} erased and
          cannot be checked
        </Signal>
      )}
      {untold > 0 && (
        <p className="text-quiet text-sm">{untold} rows are of a version that entered nothing about them.</p>
      )}
    </>
  );
}
