import type { Point } from '@lauta/vision';
import { PictureCut } from './PictureCut.tsx';
import type { Size, View } from './view.ts';

const LOUPE_PX = 148;
const SHOWN = { width: LOUPE_PX, height: LOUPE_PX };

/** What lies under the finger, enlarged, on the other side of the picture. */
export function Loupe({
  src,
  size,
  point,
  view,
  room,
}: {
  src: string;
  size: Size;
  point: Point;
  view: View;
  room: Size;
}) {
  const scale = Math.max(3 * view.scale, 1.6);
  const isAtRight = point[0] * view.scale + view.x > room.width / 2;
  return (
    <div
      aria-hidden="true"
      className="border-base-content bg-base-200 pointer-events-none absolute top-2 overflow-hidden rounded-full border-2"
      style={{ width: LOUPE_PX, height: LOUPE_PX, [isAtRight ? 'left' : 'right']: 8 }}
    >
      <PictureCut src={src} size={size} point={point} scale={scale} shown={SHOWN} alt="" />
      <svg viewBox="-50 -50 100 100" className="absolute inset-0">
        <path d="M-50 0H-6M6 0H50M0 -50V-6M0 6V50" stroke="#101513" strokeWidth="2.4" />
        <path d="M-50 0H-6M6 0H50M0 -50V-6M0 6V50" stroke="#ff5a2b" strokeWidth="1.2" />
      </svg>
    </div>
  );
}
