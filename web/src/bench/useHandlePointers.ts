import { useGesture } from '@use-gesture/react';
import { useState, type RefObject } from 'react';
import type { BoardMarks, Point } from '@lauta/vision';
import { handlePoint, moveHandle, type HandleId } from './handles.ts';
import { toPhoto, type View } from './view.ts';

/** How far a finger may slip and still have tapped, CSS px. */
const TAP_SLACK = 6;
/** How near to a handle a press takes hold of it, CSS px; the chosen one is preferred. */
export const REACH = 24;
/** How near to another handle's middle a tap chooses that one, CSS px; beyond it places the chosen one. */
const MIDDLE = 9;

/** The handle taken hold of, and how far beside it: a finger must not cover what it moves. */
interface Held {
  id: HandleId;
  wasChosen: boolean;
  beside: Point;
  away: number;
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

/** One finger drags a handle or the picture, two pinch it, the wheel zooms, a tap puts the chosen handle there. */
export function useHandlePointers(
  { marks, onMarks, chosen, onChosen, shown }: Handles,
  { frame, view, zoom, pan }: Zoomed,
) {
  const [dragging, setDragging] = useState<HandleId | null>(null);
  const placeOf = ([x, y]: readonly [number, number]): Point => {
    const box = frame.current?.getBoundingClientRect();
    return [x - (box?.left ?? 0), y - (box?.top ?? 0)];
  };
  const tapAt = (place: Point, held: Held | null): void => {
    if (!marks || !onMarks) return;
    // A tap puts the chosen handle there: nothing has to be dragged. A tap right on another handle chooses that.
    const other = held && !held.wasChosen && held.away <= MIDDLE ? held.id : null;
    if (other || !chosen) {
      if (held) onChosen(held.id);
    } else onMarks(moveHandle(marks, chosen, toPhoto(view, place)));
  };
  const dragTo = (place: Point, { id, beside }: Held): void => {
    if (!marks || !onMarks) return;
    onChosen(id);
    setDragging(id);
    onMarks(moveHandle(marks, id, toPhoto(view, [place[0] + beside[0], place[1] + beside[1]])));
  };
  useGesture(
    {
      onDrag: (drag) => {
        const former: Held | null | undefined = drag.memo;
        const held =
          former === undefined && marks && onMarks
            ? handleNear(marks, { shown, chosen, view }, placeOf(drag.initial))
            : (former ?? null);
        if (drag.pinching) drag.cancel();
        else if (drag.tap) tapAt(placeOf(drag.xy), held);
        else if (held) dragTo(placeOf(drag.xy), held);
        else pan(drag.delta[0], drag.delta[1]);
        if (drag.last || drag.pinching) setDragging(null);
        return held;
      },
      onPinch: ({ origin, offset: [scale] }) => zoom(scale / view.scale, placeOf(origin)),
      onWheel: ({ event, delta: [, down] }) => {
        event.preventDefault();
        // A wheel with Ctrl is a pinch on a touchpad.
        if (!event.ctrlKey) zoom(Math.exp(-down / 400), placeOf([event.clientX, event.clientY]));
      },
    },
    {
      target: frame,
      eventOptions: { passive: false },
      // The handles take the arrow keys themselves.
      drag: { filterTaps: true, tapsThreshold: TAP_SLACK, pointer: { keys: false } },
      pinch: { from: () => [view.scale, 0] },
    },
  );
  return { dragging };
}

/** The handle that a press takes hold of: the chosen one where it is in reach, else the nearest. */
function handleNear(
  marks: BoardMarks,
  { shown, chosen, view }: Pick<Handles, 'shown' | 'chosen'> & Pick<Zoomed, 'view'>,
  place: Point,
): Held | null {
  const near = shown
    .map((id) => {
      const [x, y] = handlePoint(marks, id);
      const beside: Point = [x * view.scale + view.x - place[0], y * view.scale + view.y - place[1]];
      return { id, beside, wasChosen: id === chosen, away: Math.hypot(beside[0], beside[1]) };
    })
    .filter((one) => one.away <= REACH);
  return near.find((one) => one.wasChosen) ?? near.sort((a, b) => a.away - b.away)[0] ?? null;
}
