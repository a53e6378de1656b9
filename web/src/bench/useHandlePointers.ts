import { useRef, useState, type PointerEvent, type RefObject } from 'react';
import type { BoardMarks, Point } from '@lauta/vision';
import { handlePoint, moveHandle, type HandleId } from './handles.ts';
import { toPhoto, type View } from './view.ts';

/** How far a finger may slip and still have tapped, CSS px. */
const TAP_SLACK = 6;
/** How near to a handle a press takes hold of it, CSS px; the chosen one is preferred. */
export const REACH = 24;
/** How near to another handle's middle a tap chooses that one, CSS px; beyond it places the chosen one. */
const MIDDLE = 9;

interface Press {
  from: Point;
  hasMoved: boolean;
  /** The handle taken hold of, and how far beside it: a finger must not cover what it moves. */
  held: { id: HandleId; wasChosen: boolean; beside: Point; away: number } | null;
}

interface Handles {
  marks: BoardMarks | null;
  onMarks: ((marks: BoardMarks) => void) | undefined;
  chosen: HandleId | null;
  onChosen: (id: HandleId | null) => void;
  shown: readonly HandleId[];
}

interface Zoomed {
  frame: RefObject<HTMLDivElement | null>;
  view: View;
  zoom: (by: number, about: Point) => void;
  pan: (dx: number, dy: number) => void;
}

/** One finger drags a handle or the picture, two pinch it, a tap puts the chosen handle there. */
export function useHandlePointers(
  { marks, onMarks, chosen, onChosen, shown }: Handles,
  { frame, view, zoom, pan }: Zoomed,
) {
  const [dragging, setDragging] = useState<HandleId | null>(null);
  const pointers = useRef(new Map<number, Point>());
  const press = useRef<Press | null>(null);
  const placeOf = (event: PointerEvent): Point => {
    const box = frame.current?.getBoundingClientRect();
    return [event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0)];
  };
  const handleAt = (place: Point): Press['held'] =>
    marks && onMarks ? handleNear(marks, { shown, chosen, view }, place) : null;
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
    pan(place[0] - former[0], place[1] - former[1]);
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
  return {
    dragging,
    onPointerDown: onDown,
    onPointerMove: onMove,
    onPointerUp: onUp,
    onPointerCancel: onUp,
  };
}

/** The handle that a press takes hold of: the chosen one where it is in reach, else the nearest. */
function handleNear(
  marks: BoardMarks,
  { shown, chosen, view }: Pick<Handles, 'shown' | 'chosen'> & Pick<Zoomed, 'view'>,
  place: Point,
): Press['held'] {
  const near = shown
    .map((id) => {
      const [x, y] = handlePoint(marks, id);
      const beside: Point = [x * view.scale + view.x - place[0], y * view.scale + view.y - place[1]];
      return { id, beside, wasChosen: id === chosen, away: Math.hypot(beside[0], beside[1]) };
    })
    .filter((one) => one.away <= REACH);
  return near.find((one) => one.wasChosen) ?? near.sort((a, b) => a.away - b.away)[0] ?? null;
}
