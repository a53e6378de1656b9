import { useState } from 'react';
import type { CatchView } from '@lauta/contract';
import { stepsReached, type Infraction, type LengthSheet } from '@lauta/core/rules';
import { Keys, useKeys, type PageKey } from '../../ui/Keys.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { INFRACTION_WORDS, decisionWords } from '@lauta/words/catch';
import { Penalties } from './Penalties.tsx';
import { ScorePreview } from './ScorePreview.tsx';
import { WordsForm, type Writing } from './WordsForm.tsx';
import { previewScore, standingDecision } from './preview.ts';
import { useDecide, useRound } from './useDecide.ts';

const latestVerdict = (caught: CatchView): string | null => caught.verdicts.at(-1)?.verdictId ?? null;

export interface DecisionProps {
  caught: CatchView;
  sheet: LengthSheet;
  /** What the judge has confirmed so far. */
  infractions: readonly Infraction[];
  toggle: (infraction: Infraction) => void;
}

/** Where a judge decides: infractions, length, and one of three answers, each with its key. */
export function DecisionPanel({ caught, sheet, infractions, toggle }: DecisionProps) {
  const { step } = sheet.measure;
  const standing = standingDecision(caught);
  const readSteps = stepsReached(sheet.measure, caught.measurement.reading.apparentMm);
  const [steps, setSteps] = useState(
    standing?.kind === 'accepted' ? standing.steps : Math.min(readSteps, caught.claimedSteps),
  );
  const [writing, setWriting] = useState<Writing | null>(null);
  const [words, setWords] = useState('');
  // What this judge has seen: a verdict that comes in meanwhile is not replaced unseen.
  const [seen, setSeen] = useState(() => latestVerdict(caught));
  const hasMovedOn = latestVerdict(caught) !== seen;
  const { decide, isBusy, error } = useDecide(caught, sheet, seen);
  const { next, undoLast } = useRound(caught);

  const accept = (): void =>
    void decide({ kind: 'accepted', steps, infractions: [...infractions], note: '' });
  const sendWords = (): void => {
    const said = words.trim();
    if (said === '') return;
    void decide(
      writing === 'refuse'
        ? { kind: 'refused', infractions: [...infractions], reason: said }
        : { kind: 'sent-back', request: said },
    );
  };
  const keys: PageKey[] = [
    { key: 'A', what: 'accept', act: () => !hasMovedOn && accept() },
    { key: 'R', what: 'refuse, with a reason', act: () => setWriting('refuse') },
    { key: 'S', what: 'send back, with a request', act: () => setWriting('send-back') },
    { key: '+', what: 'one step longer', act: () => setSteps((former) => former + 1) },
    { key: '-', what: 'one step shorter', act: () => setSteps((former) => Math.max(0, former - 1)) },
    ...sheet.penalties.slice(0, 9).map(({ infraction }, i) => ({
      key: String(i + 1),
      what: INFRACTION_WORDS[infraction],
      act: () => toggle(infraction),
    })),
    { key: 'N', what: 'next without deciding', act: next },
    { key: 'Z', what: 'take the last decision back', act: undoLast },
  ];
  useKeys(keys);

  return (
    <>
      <Penalties sheet={sheet} infractions={infractions} toggle={toggle} />
      {/* However much was found, the answer stays in sight. */}
      <div className="bg-base-100 grid gap-2 lg:sticky lg:-bottom-8 lg:z-10">
        <ScorePreview
          steps={steps}
          step={step}
          preview={previewScore(sheet, caught, steps, infractions)}
          onSteps={setSteps}
        />
        <ProblemNote error={error} />
        {hasMovedOn && (
          <MovedOn caught={caught} sheet={sheet} onSeen={() => setSeen(latestVerdict(caught))} />
        )}
        {writing ? (
          <WordsForm
            writing={writing}
            words={words}
            onWords={setWords}
            isBusy={isBusy || hasMovedOn}
            send={sendWords}
            close={() => setWriting(null)}
          />
        ) : (
          <Answers
            isBusy={isBusy || hasMovedOn}
            hasInfractions={infractions.length > 0}
            accept={accept}
            write={setWriting}
          />
        )}
      </div>
      <Keys keys={keys} />
    </>
  );
}

/** Another judge has decided while this one was looking. */
function MovedOn({ caught, sheet, onSeen }: { caught: CatchView; sheet: LengthSheet; onSeen: () => void }) {
  const last = caught.verdicts.at(-1);
  if (!last) return null;
  const { word, tone, says } = decisionWords(last.decision, sheet.measure.step);
  return (
    <div role="alert" className="border-warning border-l-4 pl-3">
      <p>
        {last.judge} decided meanwhile: <Signal tone={tone}>{word}</Signal> {says && `“${says}”`}
      </p>
      <button type="button" className="btn btn-sm my-1" onClick={onSeen}>
        Seen; I decide all the same
      </button>
    </div>
  );
}

function Answers({
  isBusy,
  hasInfractions,
  accept,
  write,
}: {
  isBusy: boolean;
  hasInfractions: boolean;
  accept: () => void;
  write: (what: Writing) => void;
}) {
  return (
    <div className="grid gap-2">
      <button
        type="button"
        className="btn btn-primary h-13 justify-between text-lg"
        disabled={isBusy}
        onClick={accept}
      >
        Accept{hasInfractions ? ' with penalties' : ''} <kbd className="key">A</kbd>
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
  );
}
