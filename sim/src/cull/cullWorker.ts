import { parentPort, workerData } from 'node:worker_threads';
import { simulateDay } from './simulateDay.ts';
import type { ScaleQuality } from '@lauta/core/scale';

export interface CullOrder {
  quality: ScaleQuality;
  seeds: number[];
}

const { quality, seeds } = workerData as CullOrder;
parentPort?.postMessage(seeds.map((seed) => simulateDay(quality, seed)));
