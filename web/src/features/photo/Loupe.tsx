import type { Point } from '@lauta/vision';
import type { Size, View } from './view.ts';

const LOUPE_PX = 148;

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
      <img
        src={src}
        alt=""
        className="absolute max-w-none origin-top-left"
        style={{
          width: size.width,
          height: size.height,
          transform: `translate(${LOUPE_PX / 2 - point[0] * scale}px, ${LOUPE_PX / 2 - point[1] * scale}px) scale(${scale})`,
        }}
      />
      <svg viewBox="-50 -50 100 100" className="absolute inset-0">
        <path d="M-50 0H-6M6 0H50M0 -50V-6M0 6V50" stroke="#101513" strokeWidth="2.4" />
        <path d="M-50 0H-6M6 0H50M0 -50V-6M0 6V50" stroke="#ff5a2b" strokeWidth="1.2" />
      </svg>
    </div>
  );
}
