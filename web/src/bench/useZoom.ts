import { useLayoutEffect, useRef, useState } from 'react';
import type { Point } from '@lauta/vision';
import { fitView, panInto, viewOf, zoomView, type Size, type View } from './view.ts';

/**
 * A picture in a frame, whole until somebody zooms or pans.
 * @param focus a place to go to, px of the picture; a new object each time that it is asked for
 */
export function useZoom(size: Size, focus: { place: Point } | null) {
  const frame = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState<Size>({ width: 1, height: 1 });
  // Null as long as nobody has zoomed or panned: then the whole picture is shown, whatever the window's size.
  const [moved, setMoved] = useState<View | null>(null);

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

  // From what stands when it is drawn: several moves may come before that.
  const change = (to: (former: View) => View): void =>
    setMoved((former) => to(former ?? fitView(size, room)));

  const [shownFocus, setShownFocus] = useState(focus);
  if (focus !== shownFocus) {
    setShownFocus(focus);
    if (focus) setMoved(viewOf(focus.place, size, room));
  }

  return {
    frame,
    room,
    view,
    zoom: (by: number, about: Point) => change((former) => zoomView(former, by, about, size, room)),
    /** By so many CSS px. */
    pan: (dx: number, dy: number) =>
      change((former) => panInto({ ...former, x: former.x + dx, y: former.y + dy }, size, room)),
    showAll: () => setMoved(null),
  };
}
