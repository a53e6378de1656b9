import { outlineInFrame } from '@lauta/vision/live';
import type { MeasuringBoard, Point } from '@lauta/vision';
import type { LiveView } from './useLiveView.ts';

/** Over the video: the outline to lay the board into, and the board where it is seen. */
export function LiveDrawing({
  board,
  size,
  view,
}: {
  board: MeasuringBoard;
  /** Of the video, px. */
  size: { widthPx: number; heightPx: number };
  view: LiveView | null;
}) {
  const wanted = outlineInFrame(board, size.widthPx, size.heightPx);
  const grow = view ? size.widthPx / view.frame.widthPx : 1;
  const seen = view?.sight?.corners.map(([x, y]): Point => [x * grow, y * grow]) ?? null;
  const line = size.widthPx / 240;
  return (
    <svg
      aria-hidden="true"
      viewBox={`0 0 ${size.widthPx} ${size.heightPx}`}
      className="pointer-events-none absolute inset-0 size-full"
    >
      <polygon
        points={pointsOf(wanted)}
        fill="none"
        stroke="white"
        strokeWidth={line}
        strokeDasharray={`${4 * line} ${3 * line}`}
      />
      {/* The stop, at the left: it tells which way round. */}
      <line
        x1={wanted[0][0]}
        y1={wanted[0][1] - 6 * line}
        x2={wanted[3][0]}
        y2={wanted[3][1] + 6 * line}
        stroke="white"
        strokeWidth={3 * line}
      />
      {seen && (
        <polygon
          points={pointsOf(seen)}
          fill="none"
          className={view?.advice.wanting === null ? 'stroke-success' : 'stroke-warning'}
          strokeWidth={1.5 * line}
        />
      )}
    </svg>
  );
}

function pointsOf(corners: readonly Point[]): string {
  return corners.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ');
}
