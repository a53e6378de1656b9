import { DEMO_EVENT, DEMO_SEED } from '../demo/scenario.ts';
import { rollDice, seedFor } from '../camera/dice.ts';

export interface SimulatedFix {
  latitude: number;
  longitude: number;
  accuracyM: number;
}

/** How far a boat drifts about its place, degrees, and how long one way around takes, ms. */
const DRIFT_DEG = { latitude: 0.0012, longitude: 0.002 };
const AROUND_MS = { latitude: 41 * 60_000, longitude: 67 * 60_000 };
/** One standard deviation of a receiver under an open sky, m. */
const NOISE_M = 4;
const M_PER_DEG = 111_195;

/**
 * Where a receiver on a boat on Kestrel Mere says that it is: a boat has its own place, drifts about it slowly, and
 * the receiver is a few metres off, anew each second. Pure: the same boat at the same instant is at the same place.
 * @param boat whose boat; any text
 * @param atMs ms since 1970, UTC
 */
export function driftOverMere(boat: string, atMs: number): SimulatedFix {
  const place = rollDice(seedFor(DEMO_SEED, `boat ${boat}`));
  const home = {
    latitude: DEMO_EVENT.position.latitude + place.between(-0.011, 0.011),
    longitude: DEMO_EVENT.position.longitude + place.between(-0.018, 0.018),
  };
  const turn = { latitude: place.between(0, 1), longitude: place.between(0, 1) };
  const noise = rollDice(seedFor(DEMO_SEED, `fix ${boat} ${Math.floor(atMs / 1000)}`));
  const off = (): number => (noise.normal() * NOISE_M) / M_PER_DEG;
  const sway = (axis: 'latitude' | 'longitude'): number =>
    DRIFT_DEG[axis] * Math.sin(2 * Math.PI * (atMs / AROUND_MS[axis] + turn[axis]));
  const latitude = home.latitude + sway('latitude') + off();
  return {
    latitude,
    longitude: home.longitude + sway('longitude') + off() / Math.cos((latitude * Math.PI) / 180),
    accuracyM: Math.round(noise.between(5, 12)),
  };
}
