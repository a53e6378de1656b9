import type { BenchCheck, Finding } from '../findings/findings.ts';
import { liveChecks } from '../checks/registry.ts';
import type { Point } from '../geometry/point.ts';
import type { LiveSight } from './lookLive.ts';

/** What must hold before the shutter fires by itself, in the order in which a hand gets it right. */
export const LIVE_STEPS = [
  'board',
  'frame',
  'near',
  'straight',
  'card',
  'fish',
  'nose',
  'jaws',
  'tail',
] as const;
export type LiveStep = (typeof LIVE_STEPS)[number];

/** The first step that is not met yet; null when all are and the hand should hold still. */
export interface LiveAdvice {
  wanting: LiveStep | null;
  /** How many steps are met, of `LIVE_STEPS.length`. */
  met: number;
}

/** The board should fill at least this share of the frame's longer side (common practice, no source). */
const LEAST_SPAN = 0.55;
/** What a frame must leave free about the board, as a share of its longer side. */
const MARGIN = 0.01;

/** What the hand should do next. A look is not clear: what a small frame cannot decide never fires the shutter. */
export function adviseLive(
  sight: LiveSight | null,
  frame: { widthPx: number; heightPx: number },
): LiveAdvice {
  const met = LIVE_STEPS.findIndex((step) => !isMet(step, sight, frame));
  return met < 0 ? { wanting: null, met: LIVE_STEPS.length } : { wanting: LIVE_STEPS[met], met };
}

function isMet(
  step: LiveStep,
  sight: LiveSight | null,
  frame: { widthPx: number; heightPx: number },
): boolean {
  if (!sight) return false;
  const { corners } = sight;
  switch (step) {
    case 'board':
      return true;
    case 'frame':
      return corners.every((corner) => isInside(corner, frame));
    case 'near':
      return spanPx(corners) >= LEAST_SPAN * Math.max(frame.widthPx, frame.heightPx);
    case 'card':
      return sight.isCardSeen;
    case 'fish':
      return sight.fishMm !== null;
    default:
      return allClear(sight.findings, liveChecks(step));
  }
}

function isInside([x, y]: Point, { widthPx, heightPx }: { widthPx: number; heightPx: number }): boolean {
  const margin = MARGIN * Math.max(widthPx, heightPx);
  return x >= margin && y >= margin && x <= widthPx - 1 - margin && y <= heightPx - 1 - margin;
}

function spanPx(corners: LiveSight['corners']): number {
  const [a, b] = corners;
  return Math.hypot(b[0] - a[0], b[1] - a[1]);
}

function allClear(findings: readonly Finding[], checks: readonly BenchCheck[]): boolean {
  return findings.every(({ check, tone }) => tone === 'clear' || !checks.includes(check));
}

/** The shutter that fires by itself: how many frames in a row were good, and whether it fired in this lift. */
export interface Shutter {
  goodFrames: number;
  hasFired: boolean;
}

export const OPEN_SHUTTER: Shutter = { goodFrames: 0, hasFired: false };
/** So many frames in a row must be good: one may be so by chance. */
export const HOLD_FRAMES = 2;

/** The shutter after one more live frame; `fires` once, until it is opened anew. */
export function afterFrame(
  { goodFrames, hasFired }: Shutter,
  { wanting }: LiveAdvice,
): { shutter: Shutter; fires: boolean } {
  const good = wanting === null ? goodFrames + 1 : 0;
  const fires = !hasFired && good >= HOLD_FRAMES;
  return { shutter: { goodFrames: good, hasFired: hasFired || fires }, fires };
}
