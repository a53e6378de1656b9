import { cellAt } from '../grid/planeGrid.ts';
import { medianOf } from '../image/median.ts';
import { logColourAt } from '../see-catch/logColour.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import { columnAt, columnMiddle, rowMiddle } from '../grid/planeGrid.ts';

/** The shadow of a tail that stands over the face: how far its end lies from the tail's own, mm, and how well it is seen. */
export interface TailShadow {
  /** Along the board and across. */
  awayMm: readonly [number, number];
  /** Share of its edge along which the face grows lighter outwards. */
  seenShare: number;
  /** Median step of log brightness over that edge. */
  step: number;
}

/** A place of the tail's edge, mm, with its way outwards and its share of the length. */
interface EdgePlace {
  x: number;
  y: number;
  nx: number;
  ny: number;
  share: number;
}

/** The tail's edge is taken from this share of the length on; from the next it may rise from the face. */
const EDGE_FROM_SHARE = 0.84;
const RISES_FROM_SHARE = 0.8;
/** It rises in a straight line, or in a bow. */
const RISES = [1, 2] as const;
const DIRECTIONS = 24;
/** A shadow towards the head hides under the fish. */
const LEAST_BACK = -0.1;
const AWAY_MM = [4, 5.5, 7, 9, 11, 14, 17, 21, 26, 32, 40, 50] as const;
/** The sun is a disc, so a shadow's edge is soft: brightness is compared so far inside and outside of it, mm. */
const BESIDE_MM = 3;
/** Next to the face's edges other things throw shadows, mm. */
const RIM_MM = 6;
/** Cells that are more likely covered than this (log odds) are no face. */
const MOST_ODDS = 1;
const LEAST_BARE = 0.3;
const LEAST_EDGE_MM = 24;
const MOST_PLACES = 120;
const LEAST_STEP = 0.1;
const FULL_STEP = 0.4;
/** A normal is taken from what lies about an edge cell within so many cells. */
const NORMAL_REACH = 4;

/**
 * Looks for the tail's own outline once more, beside it on the face, darker inside than outside: its shadow, thrown the
 * farther the higher its end stands (similar triangles; the sun's rays are parallel). Every direction and distance is
 * tried.
 */
export function seeTailShadow(seen: SeenCatch): TailShadow | null {
  const { fish, pattern } = seen;
  const { view, labels, piece, coverage } = fish;
  const edge = tailEdge(seen);
  const stride = Math.max(1, Math.floor(edge.length / MOST_PLACES));
  const places = edge.filter((_, i) => i % stride === 0);
  const least = (LEAST_EDGE_MM * view.cellsPerMm) / stride;
  /** Log brightness of the bare face at a place; NaN where something else is seen. */
  const faceAt = (xMm: number, yMm: number): number => {
    if (xMm < 1 || xMm > pattern.lengthMm - 1 || yMm < RIM_MM || yMm > pattern.widthMm - RIM_MM) return NaN;
    const cell = cellAt(view, xMm, yMm);
    const isFace =
      cell >= 0 &&
      labels[cell] !== piece.label &&
      view.inPhoto[cell] === 1 &&
      view.bare[cell] > LEAST_BARE &&
      coverage.odds[cell] <= MOST_ODDS;
    return isFace ? logColourAt(view.rgb, cell)[0] : NaN;
  };
  let best: TailShadow | null = null;
  let bestScore = 0;
  for (let turn = 0; turn < DIRECTIONS; turn++) {
    const angle = (2 * Math.PI * turn) / DIRECTIONS;
    const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
    if (dx < LEAST_BACK) continue;
    for (const away of AWAY_MM) {
      for (const bow of RISES) {
        const steps: number[] = [];
        for (const { x, y, nx, ny, share } of places) {
          const thrown = away * ((share - RISES_FROM_SHARE) / (1 - RISES_FROM_SHARE)) ** bow;
          const [px, py] = [x + dx * thrown, y + dy * thrown];
          const inside = faceAt(px - BESIDE_MM * nx, py - BESIDE_MM * ny);
          const outside = faceAt(px + BESIDE_MM * nx, py + BESIDE_MM * ny);
          if (Number.isNaN(inside) || Number.isNaN(outside)) continue;
          // Farther in it is as dark, farther out as light: what is left of a numeral is not.
          const deep = faceAt(px - 2 * BESIDE_MM * nx, py - 2 * BESIDE_MM * ny);
          const wide = faceAt(px + 2 * BESIDE_MM * nx, py + 2 * BESIDE_MM * ny);
          steps.push(
            (Number.isNaN(wide) ? outside : Math.min(outside, wide)) -
              (Number.isNaN(deep) ? inside : Math.max(inside, deep)),
          );
        }
        if (steps.length < least) continue;
        const seenShare = steps.filter((step) => step > LEAST_STEP).length / steps.length;
        const step = medianOf(steps);
        const score = seenShare * Math.min(step, FULL_STEP);
        if (score <= bestScore) continue;
        bestScore = score;
        best = { awayMm: [dx * away, dy * away], seenShare, step };
      }
    }
  }
  return best;
}

/** A tail that lies up to 3 mm over the face throws no shadow farther than this, mm, unless the sun stands very low. */
const LEAST_THROWN_MM = 9;
/** So much of the shadow's edge must be seen, and so clearly (log brightness): nearly all of it, or most of a sharp one. */
const SHADOW_SEEN = [{ share: 0.9, step: 0.15 }, { share: 0.77, step: 0.28 }] as const; // prettier-ignore

/** Whether a shadow tells that the tail stands up. */
export function isOfStandingTail({ awayMm, seenShare, step }: TailShadow): boolean {
  return Math.hypot(...awayMm) >= LEAST_THROWN_MM && SHADOW_SEEN.some((least) => seenShare >= least.share && step >= least.step); // prettier-ignore
}

/** The edge cells of the fish's last part. */
function tailEdge({ fish, farMm }: SeenCatch): EdgePlace[] {
  const { view, labels, piece } = fish;
  const { columns } = view;
  const isFish = (cell: number): boolean => labels[cell] === piece.label;
  const places: EdgePlace[] = [];
  const from = columnAt(view, EDGE_FROM_SHARE * farMm);
  for (let row = piece.fromRow; row <= piece.toRow; row++) {
    for (let column = from; column <= piece.toColumn; column++) {
      const at = row * columns + column;
      if (!isFish(at)) continue;
      if (isFish(at + 1) && isFish(at - 1) && isFish(at + columns) && isFish(at - columns)) continue;
      let [nx, ny] = [0, 0];
      for (let dr = -NORMAL_REACH; dr <= NORMAL_REACH; dr++)
        for (let dc = -NORMAL_REACH; dc <= NORMAL_REACH; dc++)
          if (!isFish(at + dr * columns + dc)) [nx, ny] = [nx + dc, ny + dr];
      const size = Math.hypot(nx, ny);
      if (size === 0) continue;
      const x = columnMiddle(view, column);
      const y = rowMiddle(view, row);
      places.push({ x, y, nx: nx / size, ny: ny / size, share: x / farMm });
    }
  }
  return places;
}
