import { useRef, useState } from 'react';
import { Link } from 'react-router';
import type { CatchView } from '@lauta/contract';
import { findBoard } from '@lauta/core/photo';
import { stepsReached, type Infraction, type RuleSheet } from '@lauta/core/rules';
import { LENGTH_STEPS, formatMeasured, formatSteps } from '@lauta/core/units';
import { clockTime, dayAndTime } from '../../clock/words.ts';
import { Field } from '../../frame/Field.tsx';
import { Keys, useKeys, type PageKey } from '../../frame/Keys.tsx';
import { Signal } from '../../frame/Signal.tsx';
import { eventPath, useInEvent } from '../../frame/inEvent.ts';
import { ProblemNote } from '../../problem/ProblemNote.tsx';
import { VerdictRecord } from '../catch/VerdictRecord.tsx';
import { WithCatch } from '../catch/WithCatch.tsx';
import { INFRACTION_WORDS, MARK_WORDS, NOT_COUNTING_WORDS, speciesName } from '../catch/words.ts';
import { CatchBench } from '../photo/CatchBench.tsx';
import { CodeSignal } from './CodeSignal.tsx';
import { Penalties } from './Penalties.tsx';
import { JustDecided } from './justDecided.tsx';
import { previewScore, standingDecision } from './preview.ts';
import { useDecide, useRound } from './useDecide.ts';

export function JudgePage() {
  return (
    <WithCatch>
      {(caught, sheet) => (
        // A fresh desk for each catch and after each decision on it.
        <Desk key={`${caught.catchId} ${caught.verdicts.length}`} caught={caught} sheet={sheet} />
      )}
    </WithCatch>
  );
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
