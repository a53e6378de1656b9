import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import type { CatchView, DecisionInput } from '@lauta/contract';
import { findBoard } from '@lauta/core/photo';
import { INFRACTIONS, stepsReached, type Infraction, type RuleSheet } from '@lauta/core/rules';
import { LENGTH_STEPS, formatMeasured, formatSteps } from '@lauta/core/units';
import { clockTime, dayAndTime } from '../../clock/words.ts';
import { sendCommand } from '../../door/door.ts';
import { eventPath, useInEvent } from '../../frame/inEvent.ts';
import { Field } from '../../frame/Field.tsx';
import { Keys, useKeys, type PageKey } from '../../frame/Keys.tsx';
import { Signal } from '../../frame/Signal.tsx';
import { Failed, Loading } from '../../frame/states.tsx';
import { ProblemNote } from '../../problem/ProblemNote.tsx';
import { useCatch } from '../catch/queries.ts';
import { VerdictRecord } from '../catch/VerdictRecord.tsx';
import {
  INFRACTION_WORDS,
  MARK_WORDS,
  NOT_COUNTING_WORDS,
  penaltyWords,
  speciesName,
} from '../catch/words.ts';
import { useRules } from '../event/queries.ts';
import { CatchBench } from '../photo/CatchBench.tsx';
import { JustDecided, useJustDecided } from './justDecided.tsx';
import { previewScore, standingDecision } from './preview.ts';
import { useQueue } from './queries.ts';

export function JudgePage() {
  const { event } = useInEvent();
  const { catchId = '' } = useParams();
  const caught = useCatch(event.eventId, catchId);
  const rules = useRules(event.eventId);
  if (caught.isError) return <Failed error={caught.error} retry={() => void caught.refetch()} />;
  if (rules.isError) return <Failed error={rules.error} retry={() => void rules.refetch()} />;
  if (caught.isPending || rules.isPending) return <Loading what="Fetching the catch" />;
  const sheet = rules.data.find((one) => one.version === caught.data.ruleVersion)?.sheet;
  if (!sheet) return <Failed error={new Error('no sheet')} />;
  // A fresh desk for each catch and after each decision on it.
  return <Desk key={`${catchId} ${caught.data.verdicts.length}`} caught={caught.data} sheet={sheet} />;
}

type Writing = 'refuse' | 'send-back' | null;

function Desk({ caught, sheet }: { caught: CatchView; sheet: RuleSheet }) {
  const { event } = useInEvent();
  const { step } = sheet.measure;
  const { unit } = LENGTH_STEPS[step];
  const { reading } = caught.measurement;
  const readSteps = stepsReached(sheet.measure, reading.apparentMm);
  const standing = standingDecision(caught);
  const [steps, setSteps] = useState(
    standing?.kind === 'accepted' ? standing.steps : Math.min(readSteps, caught.claimedSteps),
  );
  const [infractions, setInfractions] = useState<readonly Infraction[]>(
    standing && 'infractions' in standing ? standing.infractions : [],
  );
  const [writing, setWriting] = useState<Writing>(null);
  const [words, setWords] = useState('');
  const text = useRef<HTMLTextAreaElement>(null);
  const { decide, isBusy, error } = useDecide(caught, sheet);
  const preview = previewScore(sheet, caught, steps, infractions);
  const listed = sheet.penalties.map((rule) => rule.infraction);
  const mayDecide = caught.mayJudge && caught.state !== 'withdrawn';

  const toggle = (infraction: Infraction): void =>
    setInfractions((former) =>
      former.includes(infraction) ? former.filter((one) => one !== infraction) : [...former, infraction],
    );
  const accept = (): void =>
    void decide({ kind: 'accepted', steps, infractions: [...infractions], note: '' });
  const write = (what: Writing): void => {
    setWriting(what);
    requestAnimationFrame(() => text.current?.focus());
  };
  const sendWords = (): void => {
    if (words.trim() === '') return;
    if (writing === 'refuse')
      void decide({ kind: 'refused', infractions: [...infractions], reason: words.trim() });
    if (writing === 'send-back') void decide({ kind: 'sent-back', request: words.trim() });
  };
  const { next, undoLast } = useRound(caught);
  const keys: PageKey[] = [
    { key: 'A', what: 'accept', act: () => mayDecide && accept() },
    { key: 'R', what: 'refuse, with a reason', act: () => mayDecide && write('refuse') },
    { key: 'S', what: 'send back, with a request', act: () => mayDecide && write('send-back') },
    { key: '+', what: 'one step longer', act: () => setSteps((former) => former + 1) },
    { key: '-', what: 'one step shorter', act: () => setSteps((former) => Math.max(0, former - 1)) },
    ...listed.slice(0, 9).map((infraction, i) => ({
      key: String(i + 1),
      what: INFRACTION_WORDS[infraction],
      act: () => toggle(infraction),
    })),
    { key: 'N', what: 'next without deciding', act: next },
    { key: 'Z', what: 'take the last decision back', act: undoLast },
  ];
  useKeys(keys);

  return (
    <div className="grid gap-x-6 gap-y-2 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6 lg:col-span-2">
        <h1 className="text-xl">
          {caught.entrant.name}{' '}
          <span className="text-quiet text-base font-normal">
            no. {caught.entrant.number}, {speciesName(sheet, caught.speciesId)},{' '}
            {dayAndTime(caught.capturedAt, event.zone)}
          </span>
        </h1>
        <Link className="linklike inline-flex min-h-11 items-center" to={eventPath(event.eventId, 'judge')}>
          The queue
        </Link>
      </div>
      <JustDecided />
      <div className="min-w-0">
        <CatchBench caught={caught} measure={sheet.measure} className="h-[58vw] min-h-64 lg:h-[47vh]" />
        <VerdictRecord caught={caught} step={step} />
      </div>
      <div className="grid content-start gap-2">
        <dl className="grid grid-cols-2 gap-x-4">
          <div>
            <dt className="text-quiet">claimed</dt>
            <dd className="num text-3xl leading-tight">{formatSteps(caught.claimedSteps, step)}</dd>
          </div>
          <div>
            <dt className="text-quiet">read</dt>
            <dd className="num text-3xl leading-tight">{formatSteps(readSteps, step)}</dd>
          </div>
        </dl>
        <p className="text-quiet -mt-2 text-sm">
          <span className="num">
            {formatMeasured(reading.apparentMm, unit)} {unit} ± {reading.sigmaMm.toFixed(1)} mm
          </span>
          , by hand, {findBoard(reading.boardId)?.name}
          {reading.tiltDeg === null ? '' : `, tilt ${reading.tiltDeg.toFixed(0)}°`}
        </p>
        <ul className="grid gap-0.5">
          {caught.claimedSteps > readSteps && (
            <li>
              <Signal tone="look">claimed over the reading</Signal>
            </li>
          )}
          <li>
            <CodeSignal caught={caught} />
          </li>
          <li>
            <Signal tone={caught.capturedSource === 'photograph' ? 'clear' : 'look'}>
              {clockTime(caught.capturedAt, event.zone, true)},{' '}
              {caught.capturedSource === 'photograph' ? 'the file’s own time' : 'not from the file'}
            </Signal>
          </li>
          {caught.marks.map((mark) => (
            <li key={mark}>
              <Signal tone="look">{MARK_WORDS[mark]}</Signal>
            </li>
          ))}
        </ul>
        {caught.state === 'withdrawn' ? (
          <p className="border-warning border-l-4 pl-3">The angler has withdrawn this catch.</p>
        ) : !caught.mayJudge ? (
          <p className="border-warning border-l-4 pl-3">
            {caught.isOwn
              ? 'Your own catch, or a partner’s: another judge decides it.'
              : 'Only a judge of this event decides.'}
          </p>
        ) : (
          <>
            <Penalties sheet={sheet} infractions={infractions} toggle={toggle} />
            <div
              className="border-base-content flex items-center justify-between gap-2 border-y py-2"
              aria-live="polite"
            >
              <div className="flex items-center gap-1">
                <button
                  type="button"
                  aria-label="One step shorter"
                  className="btn btn-square size-9"
                  onClick={() => setSteps(Math.max(0, steps - 1))}
                >
                  −
                </button>
                <span className="num min-w-14 text-center text-xl">{formatSteps(steps, step)}</span>
                <button
                  type="button"
                  aria-label="One step longer"
                  className="btn btn-square size-9"
                  onClick={() => setSteps(steps + 1)}
                >
                  +
                </button>
              </div>
              <p className="text-right leading-tight">
                <span className="text-quiet text-sm">would score</span>{' '}
                <b className="num text-2xl">
                  {preview.notCounting ? '0' : formatSteps(preview.scoreSteps, step)}
                </b>
                {preview.notCounting && (
                  <span className="text-error block text-sm">{NOT_COUNTING_WORDS[preview.notCounting]}</span>
                )}
              </p>
            </div>
            <ProblemNote error={error} />
            {writing === null ? (
              <div className="grid gap-2">
                <button
                  type="button"
                  className="btn btn-primary h-13 justify-between text-lg"
                  disabled={isBusy}
                  onClick={accept}
                >
                  Accept{infractions.length > 0 ? ' with penalties' : ''} <kbd className="key">A</kbd>
                </button>
                <div className="grid grid-cols-2 gap-2">
                  <button
                    type="button"
                    className="btn h-11 justify-between"
                    disabled={isBusy}
                    onClick={() => write('refuse')}
                  >
                    Refuse <kbd className="key">R</kbd>
                  </button>
                  <button
                    type="button"
                    className="btn h-11 justify-between"
                    disabled={isBusy}
                    onClick={() => write('send-back')}
                  >
                    Send back <kbd className="key">S</kbd>
                  </button>
                </div>
              </div>
            ) : (
              <form
                className="grid gap-2"
                onSubmit={(event_) => {
                  event_.preventDefault();
                  sendWords();
                }}
              >
                <Field
                  label={writing === 'refuse' ? 'Reason for the refusal' : 'What the angler should send'}
                >
                  {(field) => (
                    <textarea
                      {...field}
                      ref={text}
                      rows={3}
                      maxLength={500}
                      className="textarea w-full text-base"
                      value={words}
                      onChange={(e) => setWords(e.target.value)}
                      onKeyDown={(e) => {
                        if (e.key === 'Escape') setWriting(null);
                        if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) sendWords();
                      }}
                    />
                  )}
                </Field>
                <div className="grid grid-cols-2 gap-2">
                  <button type="button" className="btn" onClick={() => setWriting(null)}>
                    Not now <kbd className="key">Esc</kbd>
                  </button>
                  <button type="submit" className="btn btn-primary" disabled={isBusy || words.trim() === ''}>
                    {writing === 'refuse' ? 'Refuse' : 'Send back'}
                  </button>
                </div>
              </form>
            )}
          </>
        )}
        <Keys keys={keys} />
      </div>
    </div>
  );
}

function CodeSignal({ caught }: { caught: CatchView }) {
  const { identifierCode, expectedCode } = caught;
  if (identifierCode === null)
    return <Signal tone="look">no code given; expected {expectedCode ?? 'none'}</Signal>;
  return identifierCode === expectedCode ? (
    <Signal tone="clear">code {identifierCode}, as issued</Signal>
  ) : (
    <Signal tone="fault">
      code {identifierCode}, expected {expectedCode ?? 'none'}
    </Signal>
  );
}

/** The sheet's own table of infractions; others can be noted without effect on the score. */
function Penalties({
  sheet,
  infractions,
  toggle,
}: {
  sheet: RuleSheet;
  infractions: readonly Infraction[];
  toggle: (infraction: Infraction) => void;
}) {
  const listed = sheet.penalties.map((rule) => rule.infraction);
  const others = INFRACTIONS.filter((one) => !listed.includes(one));
  return (
    <fieldset>
      <legend className="font-semibold">Infractions</legend>
      <ul>
        {sheet.penalties.map(({ infraction, penalty }, i) => (
          <li key={infraction}>
            <label className="hover:bg-base-200 flex min-h-6.5 items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={infractions.includes(infraction)}
                onChange={() => toggle(infraction)}
              />
              <span className="grow">{INFRACTION_WORDS[infraction]}</span>
              <span className="num text-quiet text-sm">{penaltyWords(penalty, sheet.measure.step)}</span>
              {i < 9 && <kbd className="key">{i + 1}</kbd>}
            </label>
          </li>
        ))}
      </ul>
      <details>
        <summary className="linklike min-h-7 cursor-pointer text-sm">
          Note another, without effect on the score
        </summary>
        {others.map((infraction) => (
          <label key={infraction} className="flex min-h-7 items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={infractions.includes(infraction)}
              onChange={() => toggle(infraction)}
            />
            {INFRACTION_WORDS[infraction]}
          </label>
        ))}
      </details>
    </fieldset>
  );
}

/** The way through the queue: the next one that waits, and back. */
function useRound(caught: CatchView) {
  const { event } = useInEvent();
  const queue = useQueue(event.eventId, false, 1);
  const navigate = useNavigate();
  const { undo } = useJustDecided();
  const others = (queue.data?.items ?? []).filter((one) => one.catchId !== caught.catchId);
  const at = (queue.data?.items ?? []).findIndex((one) => one.catchId === caught.catchId);
  const following = others[at === -1 || at >= others.length ? 0 : at];
  return {
    next: () => void navigate(eventPath(event.eventId, 'judge', ...(following ? [following.catchId] : []))),
    undoLast: () => void undo(),
  };
}

function useDecide(caught: CatchView, sheet: RuleSheet) {
  const client = useQueryClient();
  const { setJustDecided } = useJustDecided();
  const { next } = useRound(caught);
  const [isBusy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const isSending = useRef(false);
  const decide = async (decision: DecisionInput): Promise<void> => {
    if (isSending.current) return;
    isSending.current = true;
    setBusy(true);
    setError(null);
    const verdictId = uuidv7();
    const { catchId, eventId } = caught;
    const former = caught.verdicts.at(-1);
    try {
      await sendCommand('catch.judge', eventId, {
        catchId,
        verdictId,
        replaces: former?.verdictId ?? null,
        decision,
      });
      setJustDecided({
        catchId,
        eventId,
        verdictId,
        entrant: caught.entrant.name,
        decision,
        former: standingDecision(caught),
        step: sheet.measure.step,
      });
      next();
      await client.invalidateQueries({ queryKey: ['event', eventId] });
    } catch (problem) {
      setError(problem);
      await client.invalidateQueries({ queryKey: ['event', eventId, 'catch', catchId] });
    } finally {
      isSending.current = false;
      setBusy(false);
    }
  };
  return { decide, isBusy, error };
}
