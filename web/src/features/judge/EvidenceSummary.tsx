import type { BenchReadingView, CatchView } from '@lauta/contract';
import type { FileFinding } from '@lauta/core/file-evidence';
import type { Finding } from '@lauta/vision';
import { stepsReached, type LengthSheet } from '@lauta/core/rules';
import { LENGTH_STEPS, formatMeasured, formatSmallLength, formatSteps } from '@lauta/core/units';
import { clockTime } from '@lauta/words/clock';
import { Signal } from '../../ui/Signal.tsx';
import { useInEvent } from '../../event/inEvent.ts';
import { LiftSignal } from '../../catch/LiftSignal.tsx';
import { FILE_CHECK_WORDS, MARK_WORDS } from '@lauta/words/catch';
import { fileReason } from '@lauta/words/fileReason';
import { useBoards } from '../../queries/boards.ts';
import { madeWords } from '../../bench/words.ts';
import { CodeSignal } from './CodeSignal.tsx';

/** Claimed and read length side by side, and what else speaks for or against the catch. */
export function EvidenceSummary({
  caught,
  sheet,
  found,
  isReading,
  onShow,
}: {
  caught: CatchView;
  sheet: LengthSheet;
  /** What the server reads by itself. */
  found: BenchReadingView | undefined;
  isReading: boolean;
  onShow: (finding: Finding) => void;
}) {
  const evidence: readonly FileFinding[] = found?.evidence ?? [];
  const doubts = evidence.filter(({ tone }) => tone !== 'clear');
  const { event } = useInEvent();
  const boards = useBoards(event.eventId);
  const { step } = sheet.measure;
  const { unit } = LENGTH_STEPS[step];
  const { reading } = caught.measurement;
  const readSteps = stepsReached(sheet.measure, reading.apparentMm);
  const isOwnTime = caught.capturedSource === 'photograph';
  return (
    <>
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
          {formatMeasured(reading.apparentMm, unit)} {unit} ± {formatSmallLength(reading.sigmaMm, step)}
        </span>
        {reading.kind === 'tape' ? (
          ', two readings of a tape that agree'
        ) : (
          <>
            , {madeWords(reading)}, {boards.nameOf(reading.boardId)}
            {reading.tiltDeg === null ? '' : `, tilt ${reading.tiltDeg.toFixed(0)}°`}
          </>
        )}
      </p>
      <ul className="grid gap-0.5">
        {caught.claimedSteps > readSteps && (
          <li>
            <Signal tone="look">claimed longer than read</Signal>
          </li>
        )}
        <li>
          <CodeSignal caught={caught} found={found} isReading={isReading} onShow={onShow} />
        </li>
        <li>
          <Signal tone={isOwnTime ? 'clear' : 'look'}>
            {clockTime(caught.capturedAt, event.zone, true)},{' '}
            {isOwnTime ? 'the file’s own time' : 'not from the file'}
          </Signal>
        </li>
        {sheet.airSeconds !== undefined && (
          <li>
            <LiftSignal limitSeconds={sheet.airSeconds} handling={caught.handling} />
          </li>
        )}
        {caught.marks.map((mark) => (
          <li key={mark}>
            <Signal tone="look">{MARK_WORDS[mark]}</Signal>
          </li>
        ))}
        {doubts.map((finding) => (
          <li key={finding.check}>
            <Signal tone={finding.tone}>{FILE_CHECK_WORDS[finding.check]}</Signal>
            <p className="text-quiet pl-5 text-sm">{fileReason(finding)}</p>
          </li>
        ))}
        {evidence.length > 0 && doubts.length === 0 && (
          <li>
            <Signal tone="clear">all {evidence.length} checks of the file are clear</Signal>
          </li>
        )}
      </ul>
    </>
  );
}
