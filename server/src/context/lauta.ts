import { randomBytes } from 'node:crypto';
import type { Clock } from '../base/clock.ts';
import type { HeadSigner } from '../keys/headSigner.ts';
import type { FlankKeeper } from '../same-fish/flankKeeper.ts';
import type { LiveHub } from '../live/liveHub.ts';
import type { AnalysisPool } from '../bench/analysisPool.ts';
import type { DiskWatch } from '../storage/diskWatch.ts';
import type { Storage } from '../storage/storage.ts';

/** What the whole server works with, made once at the start and handed in. */
export interface Lauta {
  storage: Storage;
  clock: Clock;
  hub: LiveHub;
  bench: AnalysisPool;
  flanks: FlankKeeper;
  disk: DiskWatch;
  signer: HeadSigner;
  isDemo: boolean;
  /** Known to this installation alone. */
  secret: string;
  /** Draws from [0, 1) for codes on cards; seeded only in a demo. */
  random: () => number;
}

/** Uniform in [0, 1) from the system's own dice: identifiers' codes must not be guessed. */
export function secureRandom(): number {
  return randomBytes(6).readUIntBE(0, 6) / 2 ** 48;
}
