import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import {
  boardMap,
  faceLengthMm,
  mmPerUnit,
  stripFrame,
  type BoardLens,
  type BoardMarks,
  type BoardReading,
  type MeasuringBoard,
  type StripFrame,
} from '@lauta/vision';
import type { LengthMeasure } from '@lauta/core/rules';
import { LENGTH_STEPS, formatMeasured, formatSteps, mmFromSteps } from '@lauta/core/units';
import type { OpenedPhoto } from './benchCalls.ts';
import { useStrip, type Bench } from './useBench.ts';

interface Props {
  bench: Bench | null;
  photo: OpenedPhoto;
  board: MeasuringBoard;
  marks: BoardMarks;
  /** As the bench found it; null for a lens without distortion. */
  lens: BoardLens | null;
  reading: BoardReading | null;
  measure: LengthMeasure;
}

/** The board seen straight from above at a constant scale, with one line where the tail is read. */
export function Strip(props: Props) {
  const [element, width] = useWidth();
  const { board, reading, measure } = props;
  const lengthMm = faceLengthMm(board) + 35;
  const pxPerMm = Math.min(2.4, Math.max(0.5, (width * Math.min(2, devicePixelRatio)) / lengthMm));
  const frame = stripFrame(board, pxPerMm);
  return (
    <figure ref={element} className="grid gap-0.5">
      <StripPicture {...props} frame={frame} label="The board, seen straight from above">
        {reading && (
          <ReadingLine
            atMm={reading.apparentMm}
            frame={frame}
            text={formatMeasured(reading.apparentMm, LENGTH_STEPS[measure.step].unit)}
          />
        )}
      </StripPicture>
      <Scale board={board} frame={frame} />
    </figure>
  );
}

const AROUND_TAIL_MM = 34;
const HALF_HEIGHT_MM = 19;

/** The tail's end close by, over the steps of the rule sheet. */
export function TailCloseUp(props: Props & { reading: BoardReading }) {
  const { reading, measure } = props;
  const [element, width] = useWidth();
  const { board, marks, photo } = props;
  const [, tailYMm] = boardMap(board, marks.corners, reading.lens, photo).toBoard(marks.tail);
  // Whole steps of 5 mm, so that the window stands still while the tail's handle is moved a little.
  const inSteps = (mm: number): number => Math.round(mm / 5) * 5;
  const [atMm, atYMm] = [inSteps(reading.apparentMm), inSteps(tailYMm)];
  const frame: StripFrame = {
    fromMm: atMm - AROUND_TAIL_MM,
    toMm: atMm + AROUND_TAIL_MM,
    fromYMm: atYMm - HALF_HEIGHT_MM,
    toYMm: atYMm + HALF_HEIGHT_MM,
    pxPerMm: Math.min(8, (width * Math.min(2, devicePixelRatio)) / (2 * AROUND_TAIL_MM)),
  };
  const steps: number[] = [];
  const stepMm = mmFromSteps(1, measure.step);
  const every = Math.max(1, Math.round(5 / stepMm));
  for (
    let count = Math.ceil(frame.fromMm / stepMm / every) * every;
    count * stepMm < frame.toMm;
    count += every
  ) {
    if (count >= 0) steps.push(count);
  }
  return (
    <figure ref={element}>
      <StripPicture {...props} frame={frame} label="The tail, close by, over the steps that score">
        {steps.map((count) => (
          <g key={count} transform={`translate(${place(mmFromSteps(count, measure.step), frame)} 0)`}>
            <line y1="0" y2="100%" stroke="#ffffff" strokeWidth="3" strokeOpacity="0.7" />
            <line y1="0" y2="100%" stroke="#101513" strokeWidth="1" />
          </g>
        ))}
        <ReadingLine atMm={reading.apparentMm} frame={frame} text="" />
      </StripPicture>
      <div className="relative h-5" aria-hidden="true">
        {steps.map((count) => (
          <span
            key={count}
            className="num absolute -translate-x-1/2 text-xs"
            style={{
              left: `${(100 * (mmFromSteps(count, measure.step) - frame.fromMm)) / (frame.toMm - frame.fromMm)}%`,
            }}
          >
            {formatSteps(count, measure.step)}
          </span>
        ))}
      </div>
    </figure>
  );
}

function useWidth() {
  const element = useRef<HTMLElement>(null);
  const [width, setWidth] = useState(600);
  useLayoutEffect(() => {
    const current = element.current;
    if (!current) return;
    const observer = new ResizeObserver(() => setWidth(Math.max(50, Math.round(current.clientWidth))));
    observer.observe(current);
    return () => observer.disconnect();
  }, []);
  return [element, width] as const;
}

const VIEW_WIDTH = 1000;
const place = (xMm: number, { fromMm, toMm }: StripFrame): number =>
  ((xMm - fromMm) / (toMm - fromMm)) * VIEW_WIDTH;

function StripPicture({
  bench,
  photo,
  board,
  marks,
  lens,
  frame,
  label,
  children,
}: Props & { frame: StripFrame; label: string; children: React.ReactNode }) {
  const picture = useStrip(bench, photo, board, marks.corners, lens, frame);
  const canvas = useRef<HTMLCanvasElement>(null);
  const aspect = (frame.toMm - frame.fromMm) / (frame.toYMm - frame.fromYMm);
  useEffect(() => {
    if (!canvas.current || !picture) return;
    canvas.current.width = picture.width;
    canvas.current.height = picture.height;
    canvas.current.getContext('2d')?.drawImage(picture, 0, 0);
  }, [picture]);
  return (
    <div
      className="border-base-content bg-base-200 relative w-full overflow-hidden border"
      style={{ aspectRatio: aspect }}
    >
      <canvas
        ref={canvas}
        role="img"
        aria-label={label}
        className={`absolute inset-0 size-full ${picture ? '' : 'hidden'}`}
      />
      {!picture && (
        <p className="text-quiet p-3 text-sm">Once the board is found it is shown here from above.</p>
      )}
      <svg
        viewBox={`0 0 ${VIEW_WIDTH} ${VIEW_WIDTH / aspect}`}
        className="absolute inset-0 size-full"
        aria-hidden="true"
      >
        {children}
      </svg>
    </div>
  );
}

function ReadingLine({ atMm, frame, text }: { atMm: number; frame: StripFrame; text: string }) {
  const x = place(atMm, frame);
  return (
    <g>
      <line x1={x} x2={x} y1="0" y2="100%" stroke="#ffffff" strokeWidth="4" strokeOpacity="0.6" />
      <line x1={x} x2={x} y1="0" y2="100%" stroke="#c2330f" strokeWidth="2" />
      {text && (
        <g transform={`translate(${Math.min(x + 6, VIEW_WIDTH - 76)} 6)`}>
          <rect width="70" height="26" fill="#f4efe3" stroke="#c2330f" strokeWidth="1.5" />
          <text
            x="35"
            y="19"
            textAnchor="middle"
            fontSize="18"
            fontWeight="700"
            fill="#1f2d28"
            className="font-mono"
          >
            {text}
          </text>
        </g>
      )}
    </g>
  );
}

/** The strip's own scale, in the board's unit. */
function Scale({ board, frame }: { board: MeasuringBoard; frame: StripFrame }) {
  const every = board.unit === 'in' ? 2 : 5;
  const values = Array.from({ length: Math.floor(board.scaleLength / every) + 1 }, (_, i) => i * every);
  const share = (xMm: number): string => `${(100 * (xMm - frame.fromMm)) / (frame.toMm - frame.fromMm)}%`;
  return (
    <div className="relative h-6" aria-hidden="true">
      <i
        className="bg-base-content absolute top-0 h-px"
        style={{ left: share(0), right: `calc(100% - ${share(faceLengthMm(board))})` }}
      />
      {values.map((value) => (
        <span
          key={value}
          className="absolute top-0 -translate-x-1/2 text-center"
          style={{ left: share(value * mmPerUnit(board)) }}
        >
          <i className="bg-base-content mx-auto block h-1.5 w-px" />
          <span className="num text-quiet text-[0.6875rem] leading-none">{value}</span>
        </span>
      ))}
    </div>
  );
}
