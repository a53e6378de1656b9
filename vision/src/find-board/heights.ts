import type { PlaneMark } from './boardPlane.ts';

/** A camera's height at which a plane's marks fall on whole steps of a scale. */
export interface Lattice {
  heightMm: number;
  /** Where a line of the lattice lies, in steps along (0 to 1). */
  phase: number;
  /** Share of the marks that agree, 0 to 1. */
  strength: number;
}

const MOST_MARKS = 320;

/** A phasor and the turn that it takes at each step. */
interface Phasor {
  c: number;
  s: number;
  dc: number;
  ds: number;
}

const STILL: Phasor = { c: 0, s: 0, dc: 1, ds: 0 };

function addTurning(a: Phasor, b: Phasor, real: Float64Array, imaginary: Float64Array): void {
  let [ac, as, bc, bs] = [a.c, a.s, b.c, b.s];
  const { dc: adc, ds: ads } = a;
  const { dc: bdc, ds: bds } = b;
  for (let i = 0; i < real.length; i++) {
    real[i] = real[i] + ac + bc;
    imaginary[i] = imaginary[i] + as + bs;
    const ac0 = ac;
    const bc0 = bc;
    ac = ac0 * adc - as * ads;
    as = ac0 * ads + as * adc;
    bc = bc0 * bdc - bs * bds;
    bs = bc0 * bds + bs * bdc;
  }
}

/**
 * Heights by the sum of phasors |Σ w exp(2πi u h / step)|: it is large where the marks lie on a lattice.
 * @param stepMm distance between neighbouring lines
 * @returns the strongest peaks, best first
 */
export function latticeHeights(
  marks: readonly PlaneMark[],
  stepMm: number,
  lowestMm: number,
  highestMm: number,
  most: number,
): Lattice[] {
  const used = [...marks].sort((a, b) => b.weight - a.weight).slice(0, MOST_MARKS);
  if (used.length < 5) return [];
  // A fifth of a cycle between neighbours at the far marks; those towards a tilted ground's horizon are no board's.
  const reaches = used.map((mark) => Math.abs(mark.u)).sort((a, b) => a - b);
  const reach = Math.min(2.5, reaches[Math.floor(0.95 * (reaches.length - 1))]);
  const stride = (0.2 * stepMm) / reach;
  const count = Math.max(2, Math.ceil((highestMm - lowestMm) / stride));
  const real = new Float64Array(count);
  const imaginary = new Float64Array(count);
  let total = 0;
  const phasors = used.map(({ u, weight }): Phasor => {
    const turn = (2 * Math.PI * u) / stepMm;
    return {
      c: weight * Math.cos(turn * lowestMm),
      s: weight * Math.sin(turn * lowestMm),
      dc: Math.cos(turn * stride),
      ds: Math.sin(turn * stride),
    };
  });
  for (const { weight } of used) total += weight;
  // Two by two: each waits for its own turn, not for the other's.
  for (let k = 0; k < phasors.length; k += 2)
    addTurning(phasors[k], phasors[k + 1] ?? STILL, real, imaginary);
  const strength = Float64Array.from(real, (re, i) => Math.hypot(re, imaginary[i]) / total);
  const peaks: Lattice[] = [];
  for (let i = 1; i + 1 < count; i++) {
    const here = strength[i];
    if (here < strength[i - 1] || here < strength[i + 1]) continue;
    peaks.push({
      heightMm: lowestMm + i * stride,
      phase: Math.atan2(imaginary[i], real[i]) / (2 * Math.PI),
      strength: here,
    });
  }
  return peaks.sort((a, b) => b.strength - a.strength).slice(0, most);
}
