import { findingOf, type Finding } from '../findings/findings.ts';
import type { Check } from './check.ts';

export const steepCamera: Check<'board'> = {
  ids: ['steep-camera'],
  live: 'straight',
  judge: ({ tiltDeg, limitTiltDeg }) => [steepCameraFinding(tiltDeg, limitTiltDeg)],
};

export function steepCameraFinding(tiltDeg: number, limitDeg: number): Finding {
  const tone = tiltDeg > limitDeg + 0.5 ? 'fault' : tiltDeg > limitDeg - 1 ? 'look' : 'clear';
  return findingOf(
    'steep-camera',
    tone,
    tone === 'look' ? 0.6 : 0.97,
    { code: 'camera-tilt', tiltDeg, limitDeg },
    null,
    { value: tiltDeg, unit: 'deg' },
  );
}
