import {
  useCallback,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
} from 'react';
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
import { fitView, panInto, toPhoto, viewOf, zoomView, type Size, type View } from './view.ts';

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

/** How far a finger may slip and still have tapped, CSS px. */
const TAP_SLACK = 6;
/** How near to a handle a press takes hold of it, CSS px; the chosen one is preferred. */
const REACH = 24;
/** How near to another handle's middle a tap chooses that one, CSS px; beyond it places the chosen one. */
const MIDDLE = 9;

interface Press {
  from: Point;
  hasMoved: boolean;
  /** The handle taken hold of, and how far beside it: a finger must not cover what it moves. */
  held: { id: HandleId; wasChosen: boolean; beside: Point; away: number } | null;
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
  const frame = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState<Size>({ width: 1, height: 1 });
  // Null as long as nobody has zoomed or panned: then the whole picture is shown, whatever the window's size.
  const [moved, setMoved] = useState<View | null>(null);
  const [dragging, setDragging] = useState<HandleId | null>(null);
  const pointers = useRef(new Map<number, Point>());
  const press = useRef<Press | null>(null);

  useLayoutEffect(() => {
    const element = frame.current;
    if (!element) return;
    const observer = new ResizeObserver(() =>
      setRoom({ width: element.clientWidth, height: element.clientHeight }),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const view = moved ? panInto(moved, size, room) : fitView(size, room);

  const zoom = useCallback(
    (by: number, about: Point) => {
      setMoved((former) => zoomView(former ?? fitView(size, room), by, about, size, room));
    },
    [size, room],
  );
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const onWheel = (event: WheelEvent): void => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      zoom(Math.exp(-event.deltaY / 400), [event.clientX - box.left, event.clientY - box.top]);
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [zoom]);

  const [shownFocus, setShownFocus] = useState(focus);
  if (focus !== shownFocus) {
    setShownFocus(focus);
    if (focus) setMoved(viewOf(focus.place, size, room));
  }

  const placeOf = (event: PointerEvent): Point => {
    const box = frame.current?.getBoundingClientRect();
    return [event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0)];
  };
  const handleAt = (place: Point): Press['held'] => {
    if (!marks || !onMarks) return null;
    const near = shown
      .map((id) => {
        const [x, y] = handlePoint(marks, id);
        const beside: Point = [x * view.scale + view.x - place[0], y * view.scale + view.y - place[1]];
        return { id, beside, wasChosen: id === chosen, away: Math.hypot(beside[0], beside[1]) };
      })
      .filter((one) => one.away <= REACH);
    return near.find((one) => one.wasChosen) ?? near.sort((a, b) => a.away - b.away)[0] ?? null;
  };
  const onDown = (event: PointerEvent): void => {
    const place = placeOf(event);
    frame.current?.setPointerCapture(event.pointerId);
    pointers.current.set(event.pointerId, place);
    const isSecond = pointers.current.size > 1;
    const held = isSecond ? null : handleAt(place);
    press.current = { from: place, hasMoved: isSecond, held };
  };
  const onMove = (event: PointerEvent): void => {
    const former = pointers.current.get(event.pointerId);
    const start = press.current;
    if (!former || !start) return;
    const place = placeOf(event);
    const [other] = [...pointers.current].filter(([id]) => id !== event.pointerId).map(([, point]) => point);
    pointers.current.set(event.pointerId, place);
    if (other) {
      const spread = (from: Point): number => Math.hypot(from[0] - other[0], from[1] - other[1]);
      zoom(spread(place) / Math.max(1, spread(former)), [
        (place[0] + other[0]) / 2,
        (place[1] + other[1]) / 2,
      ]);
      return;
    }
    if (Math.hypot(place[0] - start.from[0], place[1] - start.from[1]) > TAP_SLACK) start.hasMoved = true;
    if (!start.hasMoved) return;
    if (start.held && marks && onMarks) {
      const { id, beside } = start.held;
      onChosen(id);
      setDragging(id);
      onMarks(moveHandle(marks, id, toPhoto(view, [place[0] + beside[0], place[1] + beside[1]])));
      return;
    }
    setMoved(
      panInto({ ...view, x: view.x + place[0] - former[0], y: view.y + place[1] - former[1] }, size, room),
    );
  };
  const onUp = (event: PointerEvent): void => {
    const start = press.current;
    pointers.current.delete(event.pointerId);
    press.current = null;
    setDragging(null);
    if (!start || start.hasMoved || !marks || !onMarks || event.type === 'pointercancel') return;
    // A tap puts the chosen handle there: nothing has to be dragged. A tap right on another handle chooses that.
    const other = start.held && !start.held.wasChosen && start.held.away <= MIDDLE ? start.held.id : null;
    if (other || !chosen) {
      if (start.held) onChosen(start.held.id);
    } else onMarks(moveHandle(marks, chosen, toPhoto(view, placeOf(event))));
  };
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
        <div
          ref={frame}
          className="absolute inset-0 touch-none select-none"
          onPointerDown={onDown}
          onPointerMove={onMove}
          onPointerUp={onUp}
          onPointerCancel={onUp}
        >
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
        <ZoomButton label="Whole picture" onClick={() => setMoved(null)}>
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
