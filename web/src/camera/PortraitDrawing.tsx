import { PORTRAIT_PLACE } from '@lauta/vision/portrait';
import type { Point } from '@lauta/vision';

/** Over the video: where the fish is looked for, and the place that a hint is about. */
export function PortraitDrawing({
  size: { widthPx, heightPx },
  place,
}: {
  /** Of the video, px. */
  size: { widthPx: number; heightPx: number };
  /** Shares of the picture's width and height. */
  place: Point | null;
}) {
  const line = widthPx / 240;
  const [x, y] = [PORTRAIT_PLACE.x * widthPx, PORTRAIT_PLACE.y * heightPx];
  const [rx, ry] = [PORTRAIT_PLACE.halfLength * widthPx, PORTRAIT_PLACE.halfDepth * widthPx];
  // A body and a tail, head at the left as on the board.
  const body = `M${x - rx} ${y} Q${x - 0.3 * rx} ${y - 2 * ry} ${x + 0.72 * rx} ${y - 0.25 * ry} L${x + rx} ${y - 0.9 * ry} L${x + 0.92 * rx} ${y} L${x + rx} ${y + 0.9 * ry} L${x + 0.72 * rx} ${y + 0.25 * ry} Q${x - 0.3 * rx} ${y + 2 * ry} ${x - rx} ${y} Z`; // prettier-ignore
  return (
    <svg
      aria-hidden="true"
      viewBox={`0 0 ${widthPx} ${heightPx}`}
      className="pointer-events-none absolute inset-0 size-full"
    >
      <path
        d={body}
        fill="none"
        stroke="white"
        strokeWidth={line}
        strokeDasharray={`${4 * line} ${3 * line}`}
      />
      {place && (
        <circle
          cx={place[0] * widthPx}
          cy={place[1] * heightPx}
          r={14 * line}
          fill="none"
          className="stroke-warning"
          strokeWidth={1.5 * line}
        />
      )}
    </svg>
  );
}
