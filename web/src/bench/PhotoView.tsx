import type { KeyboardEvent } from 'react';
import type { BoardMarks, PhotoAnalysis, Point } from '@lauta/vision';
import {
  HANDLES,
  HANDLE_WORDS,
  handlePoint,
  keyStep,
  moveHandle,
  type HandleId,
  type HandleWords,
} from './handles.ts';
import { Loupe } from './Loupe.tsx';
import { REACH, useHandlePointers } from './useHandlePointers.ts';
import { useZoom } from './useZoom.ts';
import type { Size } from './view.ts';

interface Props {
  src: string;
  alt: string;
  size: Size;
  marks: BoardMarks | null;
  /** Given where the handles may be moved. */
  onMarks?: (marks: BoardMarks) => void;
  chosen: HandleId | null;
  onChosen: (id: HandleId | null) => void;
  className?: string;
  /** The fish as the bench sees it. */
  outline?: PhotoAnalysis['outline'];
  /** Handles to be drawn; the others are kept out of the way. */
  shown?: readonly HandleId[];
  /** What the handles are called where they mark something else. */
  words?: HandleWords;
  /** A place to go to and to ring, px of the picture; a new object each time that it is asked for. */
  focus?: { place: Point } | null;
  /** Lines drawn over the picture, px of it: where a profile says that they are. */
  drawn?: readonly (readonly [Point, Point])[];
}

/** The photograph with zoom and pan, and on it the board's outline, nose and tail. */
export function PhotoView({
  src,
  alt,
  size,
  marks,
  onMarks,
  chosen,
  onChosen,
  className = '',
  outline = null,
  shown = HANDLES,
  words = HANDLE_WORDS,
  drawn,
  focus = null,
}: Props) {
  const { frame, view, room, zoom, pan, showAll } = useZoom(size, focus);
  const { dragging } = useHandlePointers(
    { marks, onMarks, chosen, onChosen, shown },
    { frame, view, zoom, pan },
  );
  const onHandleKey = (event: KeyboardEvent, id: HandleId): void => {
    const step = keyStep(event.key, event.shiftKey);
    if (!step || !marks || !onMarks) return;
    event.preventDefault();
    const [x, y] = handlePoint(marks, id);
    onMarks(moveHandle(marks, id, [x + step[0], y + step[1]]));
  };
  const centre: Point = [room.width / 2, room.height / 2];
  return (
    <div className="relative self-start">
      <div className={`border-base-content bg-base-200 relative overflow-hidden border ${className}`}>
        <div ref={frame} className="absolute inset-0 touch-none select-none">
          <div
            className="absolute top-0 left-0 origin-top-left"
            style={{
              width: size.width,
              height: size.height,
              transform: `translate(${view.x}px, ${view.y}px) scale(${view.scale})`,
            }}
          >
            <img src={src} alt={alt} draggable={false} className="block size-full max-w-none" />
            {focus && (
              <svg
                viewBox={`0 0 ${size.width} ${size.height}`}
                className="pointer-events-none absolute inset-0 size-full overflow-visible"
              >
                <FocusRing place={focus.place} scale={view.scale} />
              </svg>
            )}
            {marks && (
              <svg
                viewBox={`0 0 ${size.width} ${size.height}`}
                className="absolute inset-0 size-full overflow-visible"
              >
                {drawn && <DrawnLines lines={drawn} scale={view.scale} />}
                {outline && <FishOutline outline={outline} scale={view.scale} />}
                <Outline marks={marks} scale={view.scale} />
                {shown.map((id) => (
                  <Handle
                    key={id}
                    id={id}
                    point={handlePoint(marks, id)}
                    scale={view.scale}
                    isChosen={chosen === id}
                    words={words}
                    isMovable={onMarks !== undefined}
                    onFocus={() => onChosen(id)}
                    onKeyDown={(event) => onHandleKey(event, id)}
                  />
                ))}
              </svg>
            )}
          </div>
          {dragging && marks && (
            <Loupe src={src} size={size} point={handlePoint(marks, dragging)} view={view} room={room} />
          )}
        </div>
      </div>
      <div className="mt-1 grid grid-cols-3 gap-1 lg:absolute lg:right-2 lg:bottom-2 lg:mt-0 lg:flex">
        <ZoomButton label="Zoom in" onClick={() => zoom(1.6, centre)}>
          +
        </ZoomButton>
        <ZoomButton label="Zoom out" onClick={() => zoom(1 / 1.6, centre)}>
          −
        </ZoomButton>
        <ZoomButton label="Whole picture" onClick={showAll}>
          ▭
        </ZoomButton>
      </div>
    </div>
  );
}

function ZoomButton({ label, onClick, children }: { label: string; onClick: () => void; children: string }) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className="btn bg-base-100! h-16 text-xl lg:size-11 lg:px-0"
      onClick={onClick}
    >
      {children}
    </button>
  );
}

/** The fish's upper and lower line. */
function FishOutline({ outline, scale }: { outline: NonNullable<PhotoAnalysis['outline']>; scale: number }) {
  const points = [...outline.upper, ...[...outline.lower].reverse()]
    .map((point) => point.join(','))
    .join(' ');
  return (
    <g fill="none" pointerEvents="none" strokeLinejoin="round">
      <polygon points={points} stroke="#101513" strokeOpacity="0.6" strokeWidth={3 / scale} />
      <polygon points={points} stroke="#ffd34d" strokeWidth={1.5 / scale} />
    </g>
  );
}

/** Where a finding lies. */
function FocusRing({ place: [x, y], scale }: { place: Point; scale: number }) {
  return (
    <g fill="none">
      <circle cx={x} cy={y} r={34 / scale} stroke="#101513" strokeOpacity="0.75" strokeWidth={5 / scale} />
      <circle cx={x} cy={y} r={34 / scale} stroke="#ff5a2b" strokeWidth={2.5 / scale} />
    </g>
  );
}

/** Where a profile says that the board's lines are. */
function DrawnLines({ lines, scale }: { lines: NonNullable<Props['drawn']>; scale: number }) {
  const path = lines.map(([from, to]) => `M${from.join(' ')}L${to.join(' ')}`).join('');
  return <path d={path} fill="none" pointerEvents="none" stroke="#ff5a2b" strokeWidth={1.2 / scale} />;
}

/** The ruled face's edge, light over dark so that it shows on any ground. */
function Outline({ marks, scale }: { marks: BoardMarks; scale: number }) {
  const points = marks.corners.map((corner) => corner.join(',')).join(' ');
  return (
    <g fill="none" pointerEvents="none">
      <polygon points={points} stroke="#101513" strokeOpacity="0.75" strokeWidth={3.5 / scale} />
      <polygon
        points={points}
        stroke="#ffffff"
        strokeWidth={1.8 / scale}
        strokeDasharray={`${7 / scale} ${5 / scale}`}
      />
    </g>
  );
}

interface HandleProps {
  id: HandleId;
  point: Point;
  scale: number;
  isChosen: boolean;
  words: HandleWords;
  isMovable: boolean;
  onFocus: () => void;
  onKeyDown: (event: KeyboardEvent) => void;
}

function Handle({ id, point, scale, isChosen, words: all, isMovable, onFocus, onKeyDown }: HandleProps) {
  const [x, y] = point;
  const px = (css: number): number => css / scale;
  const words = all[id];
  const ink = isChosen ? '#ff5a2b' : '#ffffff';
  const isTip = id === 'nose' || id === 'tail';
  return (
    <g
      role="button"
      tabIndex={isMovable ? 0 : -1}
      aria-label={`${words.short}: ${words.where}; at ${Math.round(x)}, ${Math.round(y)}`}
      data-handle={id}
      className="outline-none"
      // The window takes the pointer: a press must not move the focus, and with it the choice, to a neighbour.
      pointerEvents="none"
      onFocus={onFocus}
      onKeyDown={onKeyDown}
      transform={`translate(${x} ${y})`}
    >
      <circle r={px(REACH)} fill="transparent" />
      {[
        { stroke: '#101513', width: 5 },
        { stroke: ink, width: isChosen ? 3 : 2.2 },
      ].map(({ stroke, width }) => (
        <g key={stroke} stroke={stroke} strokeWidth={px(width)} fill="none">
          {isTip ? (
            <>
              <circle r={px(8)} />
              <path
                d={`M0 ${px(-26)}V${px(-11)}M0 ${px(11)}V${px(26)}M${px(-26)} 0H${px(-11)}M${px(11)} 0H${px(26)}`}
              />
            </>
          ) : (
            <rect x={px(-8)} y={px(-8)} width={px(16)} height={px(16)} />
          )}
          <path d={`M${px(-2)} 0H${px(2)}M0 ${px(-2)}V${px(2)}`} strokeWidth={px(1)} />
        </g>
      ))}
    </g>
  );
}
