import type { Identifier } from '@lauta/core/identifier';
import type { MeasuringBoard } from '@lauta/core/photo';

/** When a shot is taken: the phone's wall time, `YYYY-MM-DDTHH:MM:SS`, its offset, and the instant. */
export interface ShotTime {
  takenLocal: string;
  offset: string;
  takenAt: string;
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
