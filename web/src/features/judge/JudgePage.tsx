import { useState } from 'react';
import { Link } from 'react-router';
import type { CatchView } from '@lauta/contract';
import type { Finding, Point } from '@lauta/vision';
import type { LengthSheet } from '@lauta/core/rules';
import { dayAndTime } from '@lauta/words/clock';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { OtherPhotographs } from '../../catch/OtherPhotographs.tsx';
import { VerdictRecord } from '../../catch/VerdictRecord.tsx';
import { WithCatch } from '../../catch/WithCatch.tsx';
import { speciesName } from '@lauta/words/catch';
import { CustodyPanel } from './CustodyPanel.tsx';
import { CatchBench } from '../../bench/CatchBench.tsx';
import { useReadAhead, useServerReading } from '../../bench/ServerReading.tsx';
import { SchoolLines } from '../../care/SchoolLines.tsx';
import { AlikeList } from './AlikeList.tsx';
import { DecisionPanel, type DecisionProps } from './DecisionPanel.tsx';
import { DeskFindings } from './DeskFindings.tsx';
import { EvidenceSummary } from './EvidenceSummary.tsx';
import { JustDecided } from './justDecided.tsx';
import { useRound } from './useDecide.ts';
import { useInfractions } from './useInfractions.ts';

export function JudgePage() {
  return (
    <WithCatch>{(caught, sheet) => <Desk key={caught.catchId} caught={caught} sheet={sheet} />}</WithCatch>
  );
}

function Desk({ caught, sheet }: { caught: CatchView; sheet: LengthSheet }) {
  const { event } = useInEvent();
  const { followingId } = useRound(caught);
  const server = useServerReading(
    caught,
    caught.measurement.reading.kind === 'board' && (caught.mayJudge || caught.isOwn),
  );
  useReadAhead(followingId, server.isSuccess);
  const [infractions, toggle] = useInfractions(caught);
  const isReading = server.isPending && server.fetchStatus !== 'idle';
  const [focus, setFocus] = useState<{ place: Point } | null>(null);
  const show = ({ place }: Finding): void => setFocus(place && { place });
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
        <CatchBench
          caught={caught}
          measure={sheet.measure}
          focus={focus}
          className="h-[58vw] min-h-64 lg:h-[47vh]"
        />
        <OtherPhotographs caught={caught} />
        <VerdictRecord caught={caught} step={sheet.measure.step} />
        <details>
          <summary className="linklike inline-flex min-h-11 items-center text-sm">
            Where opinions differ
          </summary>
          <SchoolLines place="judging" />
        </details>
      </div>
      <div className="grid content-start gap-2">
        <EvidenceSummary
          caught={caught}
          sheet={sheet}
          found={server.data}
          isReading={isReading}
          onShow={show}
        />
        <CustodyPanel caught={caught} />
        <AlikeList caught={caught} found={server.data} />
        <DeskFindings
          found={server.data}
          isPending={isReading}
          sheet={sheet}
          infractions={infractions}
          toggle={caught.mayJudge ? toggle : null}
          onShow={show}
        />
        <Decision caught={caught} sheet={sheet} infractions={infractions} toggle={toggle} />
      </div>
    </div>
  );
}

function Decision({ caught, sheet, ...chosen }: DecisionProps) {
  const why =
    caught.state === 'withdrawn'
      ? 'The angler has withdrawn this catch.'
      : caught.isOwn
        ? 'Your own catch, or a partner’s: another judge decides it.'
        : caught.mayJudge
          ? null
          : 'Only a judge of this event decides.';
  if (why !== null) return <p className="border-warning border-l-4 pl-3">{why}</p>;
  return <DecisionPanel caught={caught} sheet={sheet} {...chosen} />;
}
