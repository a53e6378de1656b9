import type { Beam, BeamOutcome } from '@lauta/core/cull';
import type { ScaleKind } from '@lauta/core/scale';
import type { Dice } from '../camera/dice.ts';

const MS_PER_HOUR = 3_600_000;

/** One scale of a kind, with a gain and a zero of its own, whose zero wanders through the day. */
export interface SimulatedScale {
  kind: ScaleKind;
  /** What it shows of a weight that hangs still, g in whole divisions. Instants may not run backwards. */
  show(trueG: number, atMs: number): number;
  /** The same before rounding and scatter. */
  pull(trueG: number, atMs: number): number;
}

export function buildScale(kind: ScaleKind, dice: Dice): SimulatedScale {
  const gain = 1 + kind.gainSigma * dice.normal();
  let zeroG = kind.zeroSigmaG * dice.normal();
  let walkedMs: number | null = null;
  const walkTo = (atMs: number): void => {
    const hours = Math.max(0, atMs - (walkedMs ?? atMs)) / MS_PER_HOUR;
    zeroG += kind.driftGPerRootHour * Math.sqrt(hours) * dice.normal();
    walkedMs = atMs;
  };
  const pull = (trueG: number, atMs: number): number => {
    walkTo(atMs);
    return gain * trueG + zeroG;
  };
  return {
    kind,
    pull,
    show: (trueG, atMs) => {
      const shown = pull(trueG, atMs) + kind.repeatabilityG * dice.normal();
      return Math.round(shown / kind.divisionG) * kind.divisionG;
    },
  };
}

/** Two weights on a beam. */
export function hangOnBeam(beam: Beam, leftG: number, rightG: number, dice: Dice): BeamOutcome {
  const felt = leftG - rightG + beam.sigmaG * dice.normal();
  if (felt > beam.sensitivityG) return 'left';
  return felt < -beam.sensitivityG ? 'right' : 'level';
}
