import type { Point } from '@lauta/vision';

/** How a photograph lies in its window: `scale` CSS px a photo px, and where its corner is. */
export interface View {
  scale: number;
  x: number;
  y: number;
}

export interface Size {
  width: number;
  height: number;
}

const MAX_SCALE = 8;

/** The whole photograph, centred. */
export function fitView(photo: Size, frame: Size): View {
  const scale = Math.min(frame.width / photo.width, frame.height / photo.height);
  return { scale, x: (frame.width - photo.width * scale) / 2, y: (frame.height - photo.height * scale) / 2 };
}

/** Zooms about a point of the window, which stays where it is. */
export function zoomView(view: View, by: number, about: Point, photo: Size, frame: Size): View {
  const least = fitView(photo, frame).scale;
  const scale = Math.min(MAX_SCALE, Math.max(least, view.scale * by));
  const ratio = scale / view.scale;
  return panInto({ scale, x: about[0] - (about[0] - view.x) * ratio, y: about[1] - (about[1] - view.y) * ratio }, photo, frame); // prettier-ignore
}

/** How much nearer than the whole picture a place is shown. */
const NEARER = 3.2;

/** A place of the photograph in the window's middle, near enough to be judged. */
export function viewOf(place: Point, photo: Size, frame: Size): View {
  const scale = Math.min(MAX_SCALE, NEARER * fitView(photo, frame).scale);
  return panInto(
    { scale, x: frame.width / 2 - place[0] * scale, y: frame.height / 2 - place[1] * scale },
    photo,
    frame,
  );
}

/** Keeps the photograph in its window: centred where it is smaller, without a gap where it is larger. */
export function panInto(view: View, photo: Size, frame: Size): View {
  const hold = (offset: number, size: number, room: number): number =>
    size <= room ? (room - size) / 2 : Math.min(0, Math.max(room - size, offset));
  return {
    scale: view.scale,
    x: hold(view.x, photo.width * view.scale, frame.width),
    y: hold(view.y, photo.height * view.scale, frame.height),
  };
}

export function toPhoto(view: View, [x, y]: Point): Point {
  return [(x - view.x) / view.scale, (y - view.y) / view.scale];
}
