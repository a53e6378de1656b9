import type { Identifier } from '@lauta/core/identifier';
import type { MeasuringBoard } from '@lauta/vision';

/** When a shot is taken: the instant, and the IANA zone of the phone's wall time. */
export interface ShotTime {
  takenAtMs: number;
  zone: string;
}

export interface SimulatedShot extends ShotTime {
  seed: number;
  board: MeasuringBoard;
  look: string;
  lengthMm: number;
  identifier: Identifier | null;
}

export interface CameraCalls {
  photograph: { params: SimulatedShot; result: { jpeg: Blob } };
  /** An empty board of a kind that nobody has described. */
  photographUnknownBoard: { params: ShotTime & { seed: number }; result: { jpeg: Blob } };
}
