import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import type { CatchView } from '@lauta/contract';
import type { Point } from '@lauta/vision';
import type { LengthSheet } from '@lauta/core/rules';
import { LENGTH_STEPS, formatMeasured, formatSteps } from '@lauta/core/units';
import { clockTime, dayAndTime } from '@lauta/words/clock';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { Field } from '../../ui/Field.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { outbox } from '../../outbox/outbox.ts';
import type { OutboxFile } from '../../outbox/outboxStore.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { LiftSignal } from '../../catch/LiftSignal.tsx';
import { HandlingRecord } from '../../care/HandlingRecord.tsx';
import { useBoards } from '../../queries/boards.ts';
import { CatchBench } from '../../bench/CatchBench.tsx';
import { FindingsList } from '../../bench/FindingsList.tsx';
import { useServerReading } from '../../bench/ServerReading.tsx';
import { useBenchWorker } from '../../bench/useBench.ts';
import { photoRefusalWords } from '../../bench/words.ts';
import { ClipSender } from '../../clip/ClipSender.tsx';
import { OtherPhotographs } from '../../catch/OtherPhotographs.tsx';
import { WithCatch } from '../../catch/WithCatch.tsx';
import { VerdictRecord } from '../../catch/VerdictRecord.tsx';
import {
  INFRACTION_WORDS,
  MARK_WORDS,
  NOT_COUNTING_WORDS,
  STATE_WORDS,
  speciesName,
} from '@lauta/words/catch';
import type { VerdictId } from '@lauta/core/ids';

/** One's own catch: what was claimed, what was decided and why, and the answer to a request. */
export function CatchPage() {
  return <WithCatch>{(caught, sheet) => <CatchDetails caught={caught} sheet={sheet} />}</WithCatch>;
}

function CatchDetails({ caught, sheet }: { caught: CatchView; sheet: LengthSheet }) {
  const { event } = useInEvent();
  const boards = useBoards(event.eventId);
  const { step } = sheet.measure;
  const { unit } = LENGTH_STEPS[step];
  const { reading } = caught.measurement;
  const state = STATE_WORDS[caught.state];
  const server = useServerReading(caught, reading.kind === 'board' && (caught.mayJudge || caught.isOwn));
  const [focus, setFocus] = useState<{ place: Point } | null>(null);
  const open = caught.state === 'sent-back' ? caught.verdicts.at(-1) : undefined;
  return (
    <div className="grid gap-4 lg:grid-cols-[minmax(0,1fr)_18.5rem] lg:gap-x-6">
      <div className="lg:col-span-2">
        <Link
          to={eventPath(event.eventId, caught.isOwn ? 'water' : 'standings')}
          className="linklike inline-flex min-h-11 items-center"
        >
          {caught.isOwn ? 'Back to the water' : 'Back to the standings'}
        </Link>
        <h1>
          {caught.isOwn ? '' : `${caught.entrant.name}: `}
          {speciesName(sheet, caught.speciesId)}, {dayAndTime(caught.capturedAt, event.zone)}
        </h1>
      </div>
      <CatchBench caught={caught} measure={sheet.measure} focus={focus} />
      <div className="grid content-start gap-3">
        <Signal tone={state.tone}>{caught.isOwn ? state.word : state.word.replace(' to you', '')}</Signal>
        <dl className="ruled border-base-300 border-y">
          <Line term="scores">
            <b className="num text-3xl">{caught.notCounting ? '0' : formatSteps(caught.scoreSteps, step)}</b>
          </Line>
          <Line term="claimed">
            <span className="num">{formatSteps(caught.claimedSteps, step)}</span>
          </Line>
          <Line term="read">
            <span className="num">
              {formatMeasured(reading.apparentMm, unit)} {unit}
            </span>
          </Line>
          {caught.deductionSteps > 0 && (
            <Line term="deducted">
              <span className="num text-error">{formatSteps(-caught.deductionSteps, step)}</span>
            </Line>
          )}
          <Line term="measured with">
            {reading.kind === 'tape' ? 'a tape in the water' : boards.nameOf(reading.boardId)}
          </Line>
          <Line term="code on the card">
            <span className="num">{caught.identifierCode ?? '–'}</span>
          </Line>
          <Line term="received">
            <span className="num">{clockTime(caught.receivedAt, event.zone, true)}</span>
          </Line>
        </dl>
        {caught.infractions.map((infraction) => (
          <Signal key={infraction} tone="fault">
            {INFRACTION_WORDS[infraction]}
          </Signal>
        ))}
        <LiftSignal limitSeconds={sheet.airSeconds} handling={caught.handling} />
        {caught.notCounting && <Signal tone="fault">{NOT_COUNTING_WORDS[caught.notCounting]}</Signal>}
        {caught.marks.map((mark) => (
          <Signal key={mark} tone="look">
            {MARK_WORDS[mark]}
          </Signal>
        ))}
        {server.data && (
          <FindingsList
            findings={server.data.analysis.findings}
            step={step}
            onShow={({ place }) => setFocus(place && { place })}
          />
        )}
        {caught.handling && <HandlingRecord handling={caught.handling} zone={event.zone} step={step} />}
        {caught.isOwn && <Withdrawal caught={caught} />}
      </div>
      <div className="grid gap-4 lg:col-span-2">
        {open && caught.isOwn && <AnswerForm caught={caught} verdictId={open.verdictId} />}
        <OtherPhotographs caught={caught} />
        {caught.isOwn && !caught.clip && (
          <ClipSender catchId={caught.catchId} eventId={caught.eventId} takesFiles />
        )}
        <VerdictRecord caught={caught} step={step} />
      </div>
    </div>
  );
}

function Line({ term, children }: { term: string; children: React.ReactNode }) {
  return (
    <div className="flex min-h-9 items-baseline justify-between gap-3 py-1">
      <dt className="text-quiet">{term}</dt>
      <dd>{children}</dd>
    </div>
  );
}

function Withdrawal({ caught }: { caught: CatchView }) {
  const [error, setError] = useState<unknown>(null);
  const isWithdrawn = caught.state === 'withdrawn';
  const turn = async (): Promise<void> => {
    setError(null);
    try {
      const kind = isWithdrawn ? 'catch.restore' : 'catch.withdraw';
      await outbox.submit(kind, caught.eventId, { catchId: caught.catchId });
    } catch (problem) {
      setError(problem);
    }
  };
  return (
    <div>
      <button type="button" className="btn" onClick={() => void turn()}>
        {isWithdrawn ? 'Undo the withdrawal' : 'Withdraw this catch'}
      </button>
      <ProblemNote error={error} />
    </div>
  );
}

/** Answers a judge's request with words, another photograph, or both. */
function AnswerForm({ caught, verdictId }: { caught: CatchView; verdictId: VerdictId }) {
  const bench = useBenchWorker();
  const [words, setWords] = useState('');
  const [photo, setPhoto] = useState<File | null>(null);
  const [error, setError] = useState<unknown>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const [isKept, setKept] = useState(false);
  const ids = useRef({ answerId: uuidv7(), photographId: uuidv7() });
  const send = async (): Promise<void> => {
    if (isBusy || !bench) return;
    setBusy(true);
    setError(null);
    setRefused(null);
    try {
      const { answerId, photographId } = ids.current;
      const files: OutboxFile[] = [];
      if (photo) {
        const opened = await bench.call('open', { photo });
        if (!opened.ok) {
          setRefused(photoRefusalWords(opened.code));
          return;
        }
        const { sha256 } = opened.value;
        files.push({ fileId: photographId, blob: photo, sha256, mediaType: 'image/jpeg' });
      }
      const done = await outbox.submit(
        'catch.answer',
        caught.eventId,
        {
          catchId: caught.catchId,
          answerId,
          verdictId,
          words,
          photographId: photo ? photographId : null,
        },
        { files },
      );
      setKept(done === 'waiting');
    } catch (problem) {
      setError(problem);
    } finally {
      setBusy(false);
    }
  };
  if (isKept)
    return (
      <p role="status">
        <Signal tone="look">the answer is kept on this device and on its way</Signal>
      </p>
    );
  return (
    <section aria-labelledby="answer" className="border-warning grid max-w-2xl gap-3 border-l-4 pl-4">
      <h2 id="answer">Answer the judge</h2>
      <Field label="Words">
        {(field) => (
          <textarea
            {...field}
            className="textarea w-full text-base"
            rows={3}
            maxLength={500}
            value={words}
            onChange={(e) => setWords(e.target.value)}
          />
        )}
      </Field>
      <Field label="Another photograph" hint="A JPEG, as the camera stored it." error={refused ?? undefined}>
        {(field) => (
          <input
            {...field}
            type="file"
            accept="image/jpeg,.jpg,.jpeg"
            className="file-input h-12 w-full"
            onChange={(e) => {
              ids.current.photographId = uuidv7();
              setPhoto(e.target.files?.[0] ?? null);
            }}
          />
        )}
      </Field>
      <ProblemNote error={error} />
      <button
        type="button"
        className="btn btn-primary h-14"
        disabled={isBusy || (words.trim() === '' && !photo)}
        onClick={() => void send()}
      >
        {isBusy ? 'Sending …' : 'Send the answer'}
      </button>
    </section>
  );
}
