import { useLayoutEffect, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { AlikeCatch, CatchView } from '@lauta/contract';
import { LENGTH_STEPS, formatMeasured } from '@lauta/core/units';
import type { LengthSheet } from '@lauta/core/rules';
import { dayAndTime } from '@lauta/words/clock';
import { chanceWords } from '@lauta/words/chance';
import { likenessReason } from '@lauta/words/likeness';
import { Signal } from '../../ui/Signal.tsx';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { useObjectUrl } from '../../ui/useObjectUrl.ts';
import { useEvidence } from '../../queries/catches.ts';
import { WithCatch } from '../../catch/WithCatch.tsx';
import { useServerReading } from '../../bench/ServerReading.tsx';
import { hasFailed } from '../../ui/hasFailed.ts';
import type { FileId } from '@lauta/core/ids';

/** Two photographs that may show one fish, the places that match joined by lines. */
export function AlikePage() {
  return <WithCatch>{(caught, sheet) => <Pair caught={caught} sheet={sheet} />}</WithCatch>;
}

function Pair({ caught, sheet }: { caught: CatchView; sheet: LengthSheet }) {
  const { event } = useInEvent();
  const { otherId } = useParams();
  const server = useServerReading(caught, true);
  const back = (
    <Link
      className="linklike inline-flex min-h-11 items-center"
      to={eventPath(event.eventId, 'judge', caught.catchId)}
    >
      Back to the desk
    </Link>
  );
  if (hasFailed(server)) return <Failed error={server.error} retry={() => void server.refetch()} />;
  if (server.isPending) return <Loading what="Comparing the two fish" />;
  const alike = server.data.alike.find(({ catchId }) => catchId === otherId);
  if (!alike)
    return (
      <div className="grid gap-3">
        {back}
        <h1 className="text-xl">The same fish?</h1>
        <Empty title="These two are not flagged as alike">
          The server finds no likeness between the two catches any more.
        </Empty>
      </div>
    );
  const { unit } = LENGTH_STEPS[sheet.measure.step];
  const lengthOf = (mm: number | null): string => (mm === null ? '–' : `${formatMeasured(mm, unit)} ${unit}`);
  return (
    <div className="grid gap-3">
      {back}
      <h1 className="text-xl">The same fish?</h1>
      <p>
        <Signal tone={alike.answer === 'same' ? 'fault' : 'look'}>
          {alike.answer === 'same' ? 'likely the same' : 'perhaps the same'}, {chanceWords(alike.score)}
        </Signal>{' '}
        {likenessReason(alike)} The machine compares; you decide.
      </p>
      {alike.places.length > 0 ? <Joined alike={alike} /> : <BothWhole alike={alike} />}
      <dl className="grid gap-x-6 gap-y-2 sm:grid-cols-2">
        <div>
          <dt className="text-quiet">above: this catch</dt>
          <dd>
            {caught.entrant.name}, no. {caught.entrant.number}, {dayAndTime(caught.capturedAt, event.zone)},{' '}
            <span className="num">{lengthOf(server.data.analysis.lengthMm)}</span>
          </dd>
        </div>
        <div>
          <dt className="text-quiet">below: the other</dt>
          <dd>
            <Link className="linklike" to={eventPath(event.eventId, 'judge', alike.catchId)}>
              {alike.entrant.name}, no. {alike.entrant.number}, {dayAndTime(alike.capturedAt, event.zone)}
            </Link>
            , <span className="num">{lengthOf(alike.lengthMm)}</span>
          </dd>
        </div>
      </dl>
    </div>
  );
}

/** Where nothing could be matched both photographs are shown as they are. */
function BothWhole({ alike }: { alike: AlikeCatch }) {
  return (
    <div className="grid gap-2">
      <Whole photographId={alike.ownPhotographId} alt="this catch" />
      <Whole photographId={alike.photographId} alt="the other catch" />
    </div>
  );
}

function Whole({ photographId, alt }: { photographId: FileId; alt: string }) {
  const original = useEvidence(photographId, undefined);
  const src = useObjectUrl(original.data);
  if (hasFailed(original)) return <p>The photograph could not be fetched.</p>;
  return src ? (
    <img
      src={src}
      alt={`The fish of ${alt}`}
      className="border-base-content max-h-[40vh] w-full border object-contain"
    />
  ) : null;
}

interface Placed {
  /** Px of the photograph over px of the box. */
  scale: number;
  leftPx: number;
  topPx: number;
}

/** Share of the matching places' extent that is shown around them. */
const MARGIN = 0.35;

/** Both photographs, cut to the fish, with lines from place to place. */
function Joined({ alike }: { alike: AlikeCatch }) {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  useLayoutEffect(() => {
    const element = box.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setWidth(element.clientWidth));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const height = Math.round(width * 0.19);
  const gap = 44;
  const [above, below] = ([0, 1] as const).map((side) => {
    const xs = alike.places.map((pair) => pair[side][0]);
    const ys = alike.places.map((pair) => pair[side][1]);
    const [x0, x1] = [Math.min(...xs), Math.max(...xs)];
    const [y0, y1] = [Math.min(...ys), Math.max(...ys)];
    const wide = Math.max(
      60,
      (x1 - x0) * (1 + 2 * MARGIN),
      ((y1 - y0) * (1 + 2 * MARGIN) * width) / Math.max(1, height),
    );
    const scale = width / wide;
    return { scale, leftPx: (x0 + x1) / 2 - wide / 2, topPx: (y0 + y1) / 2 - height / scale / 2 };
  }) as [Placed, Placed];
  const at = (placed: Placed, [x, y]: readonly [number, number], top: number): [number, number] => [
    (x - placed.leftPx) * placed.scale,
    (y - placed.topPx) * placed.scale + top,
  ];
  return (
    <div ref={box} className="relative" style={{ height: 2 * height + gap }}>
      {width > 0 && (
        <>
          <Cut
            photographId={alike.ownPhotographId}
            placed={above}
            width={width}
            height={height}
            top={0}
            alt="this catch"
          />
          <Cut
            photographId={alike.photographId}
            placed={below}
            width={width}
            height={height}
            top={height + gap}
            alt="the other catch"
          />
          <svg className="pointer-events-none absolute inset-0 size-full" aria-hidden="true">
            {alike.places.map(([own, other], i) => {
              const [x1, y1] = at(above, own, 0);
              const [x2, y2] = at(below, other, height + gap);
              return (
                <g key={i}>
                  <line
                    x1={x1}
                    y1={y1}
                    x2={x2}
                    y2={y2}
                    stroke="#101513"
                    strokeOpacity="0.6"
                    strokeWidth={3.5}
                  />
                  <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="#ffd34d" strokeWidth={1.5} />
                  <circle cx={x1} cy={y1} r={5} fill="none" stroke="#ffd34d" strokeWidth={2} />
                  <circle cx={x2} cy={y2} r={5} fill="none" stroke="#ffd34d" strokeWidth={2} />
                </g>
              );
            })}
          </svg>
        </>
      )}
    </div>
  );
}

function Cut({
  photographId,
  placed,
  width,
  height,
  top,
  alt,
}: {
  photographId: FileId;
  placed: Placed;
  width: number;
  height: number;
  top: number;
  alt: string;
}) {
  const original = useEvidence(photographId, undefined);
  const src = useObjectUrl(original.data);
  return (
    <div
      className="border-base-content bg-base-200 absolute left-0 overflow-hidden border"
      style={{ width, height, top }}
    >
      {hasFailed(original) && <p className="p-2">The photograph could not be fetched.</p>}
      {src && (
        <img
          src={src}
          alt={`The fish of ${alt}`}
          className="absolute top-0 left-0 max-w-none origin-top-left"
          style={{ transform: `scale(${placed.scale}) translate(${-placed.leftPx}px, ${-placed.topPx}px)` }}
        />
      )}
    </div>
  );
}
