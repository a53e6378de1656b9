import { worstOf } from '@lauta/core/evidence';
import type { BenchCheck, BenchReason, Finding } from '../findings/findings.ts';
import { findingOf } from '../findings/findings.ts';
import type { Check, CheckedLiveStep, Sights } from './check.ts';
import { contactHidden } from './contactHidden.ts';
import { dorsal } from './dorsal.ts';
import { eyeCovered } from './eyeCovered.ts';
import { facing } from './facing.ts';
import { gripInPhoto } from './gripInPhoto.ts';
import { handInGills } from './handInGills.ts';
import { headCropped } from './headCropped.ts';
import { identifierOverReading, identifierVisible, identifierWrong } from './identifier.ts';
import { moreFish } from './moreFish.ts';
import { mouthOpen } from './mouthOpen.ts';
import { noseGap } from './noseGap.ts';
import { screenPhoto } from './screenPhoto.ts';
import { steepCamera } from './steepCamera.ts';
import { tailCropped } from './tailCropped.ts';
import { tailCurled } from './tailCurled.ts';
import { tailHeld } from './tailHeld.ts';
import { blurred, unsharpLines } from './unsharp.ts';
import { wrongBoard } from './wrongBoard.ts';

/** Every check of a photograph by what must have been found for it, in the order in which findings are given. */
const CHECKS: { readonly [Part in keyof Sights]: readonly Check<Part>[] } = {
  board: [wrongBoard, steepCamera, headCropped, facing],
  cards: [identifierVisible, identifierWrong, identifierOverReading],
  picture: [screenPhoto, blurred],
  fish: [
    tailCropped,
    noseGap,
    mouthOpen,
    tailCurled,
    dorsal,
    tailHeld,
    eyeCovered,
    handInGills,
    gripInPhoto,
    contactHidden,
    moreFish,
    unsharpLines,
  ],
};
const PARTS = ['board', 'cards', 'picture', 'fish'] as const;
const ALL = PARTS.flatMap((part): readonly Pick<Check<typeof part>, 'ids' | 'live'>[] => CHECKS[part]);

/** The infractions that a computer answers: each has a check. */
export const BENCH_CHECKS: readonly BenchCheck[] = [...new Set(ALL.flatMap(({ ids }) => ids))];

/** Which infractions a step of a live view waits for. */
export function liveChecks(step: CheckedLiveStep): BenchCheck[] {
  return ALL.flatMap(({ live, ids }) => (live === step ? ids : []));
}

/**
 * What the checks say of what was seen: those that have what they need, one finding an infraction, of several the worst.
 * @param isLive only those that a frame of a live view can answer
 */
export function runChecks(sights: Partial<Sights>, isLive = false): Finding[] {
  const found = PARTS.flatMap((part) => judged(part, sights, isLive));
  return BENCH_CHECKS.flatMap((id) => {
    const [first, ...others] = found.filter(({ check }) => check === id);
    return first ? [worstOf([first, ...others])] : [];
  });
}

function judged<Part extends keyof Sights>(
  part: Part,
  sights: Partial<Sights>,
  isLive: boolean,
): readonly Finding[] {
  const sight = sights[part];
  if (!sight) return [];
  return CHECKS[part].flatMap(({ live, judge }) => (isLive && live === null ? [] : judge(sight)));
}

/** The same findings with a look for every check that could not be asked. */
export function withUnanswered(findings: readonly Finding[], reason: BenchReason): Finding[] {
  const missing = BENCH_CHECKS.filter((check) => !findings.some((finding) => finding.check === check));
  return [
    ...findings,
    ...missing.map((check): Finding => ({ ...findingOf(check, 'look', 0.3, reason), isUnanswered: true })),
  ];
}
