import { useMemo, useState } from 'react';
import type { CatchView } from '@lauta/contract';
import type { BoardReading, Point } from '@lauta/vision';
import type { LengthMeasure } from '@lauta/core/rules';
import { useInEvent } from '../event/inEvent.ts';
import { Failed, Loading } from '../ui/states.tsx';
import { useObjectUrl } from '../ui/useObjectUrl.ts';
import { useBoards } from '../queries/boards.ts';
import { useEvidence } from '../queries/catches.ts';
import { scaleMarks } from './handles.ts';
import { PhotoView } from './PhotoView.tsx';
import { ServerReading, useServerReading } from './ServerReading.tsx';
import { Strip } from './Strip.tsx';
import { TapeRecord } from './TapeRecord.tsx';
import { useBenchWorker, useOpenedPhoto } from './useBench.ts';
import { hasFailed } from '../ui/hasFailed.ts';

interface Props {
  caught: CatchView;
  measure: LengthMeasure;
  /** A finding's place to go to, px of the original. */
  focus?: { place: Point } | null;
  className?: string;
}

/** The evidence of a catch, by the way in which it was measured. */
export function CatchBench(props: Props) {
  const { reading } = props.caught.measurement;
  return reading.kind === 'tape' ? (
    <TapeRecord caught={props.caught} reading={reading} measure={props.measure} />
  ) : (
    <BoardBench {...props} reading={reading} />
  );
}

/** The evidence of a catch on a board: the original with the angler's handles on it, and the board seen from above. */
function BoardBench({
  caught,
  measure,
  focus = null,
  className,
  reading,
}: Props & { reading: BoardReading }) {
  const bench = useBenchWorker();
  const { photographId } = caught.measurement;
  const measured = caught.photographs.find((one) => one.photographId === photographId);
  const original = useEvidence(photographId, measured?.sha256);
  const src = useObjectUrl(original.data);
  const opened = useOpenedPhoto(bench, original.data ?? null);
  const { event } = useInEvent();
  const board = useBoards(event.eventId).find(reading.boardId);
  const [isMarked, setMarked] = useState(true);
  const server = useServerReading(caught, caught.mayJudge || caught.isOwn);
  const size = useMemo(
    () => ({ width: measured?.widthPx ?? 1, height: measured?.heightPx ?? 1 }),
    [measured?.widthPx, measured?.heightPx],
  );
  // A copy is smaller than the original that the handles were set on.
  const ratio = opened.kind === 'open' && measured ? opened.photo.widthPx / measured.widthPx : 1;
  const stripMarks = useMemo(() => scaleMarks(reading.marks, ratio), [reading.marks, ratio]);
  const stripLens = useMemo(
    () => reading.lens && { ...reading.lens, focalPx: reading.lens.focalPx * ratio },
    [reading.lens, ratio],
  );
  if (hasFailed(original)) return <Failed error={original.error} retry={() => void original.refetch()} />;
  return (
    <div className="grid min-w-0 content-start gap-3">
      {src ? (
        <PhotoView
          src={src}
          alt="The original photograph"
          size={size}
          marks={isMarked ? reading.marks : null}
          outline={server.data?.analysis.outline ?? null}
          focus={focus}
          chosen={null}
          onChosen={() => undefined}
          className={className ?? 'h-[52vw] min-h-64 max-h-[44vh]'}
        />
      ) : (
        <Loading what="Fetching the original" />
      )}
      {opened.kind === 'open' && board && (
        <Strip
          bench={bench}
          photo={opened.photo}
          board={board}
          marks={stripMarks}
          lens={stripLens}
          reading={reading}
          measure={measure}
        />
      )}
      {(caught.mayJudge || caught.isOwn) && (
        <ServerReading found={server.data} isPending={server.isPending} measure={measure} />
      )}
      <label className="flex min-h-11 items-center gap-2 justify-self-start text-sm">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={isMarked}
          onChange={(e) => setMarked(e.target.checked)}
        />
        show what was marked
      </label>
    </div>
  );
}
