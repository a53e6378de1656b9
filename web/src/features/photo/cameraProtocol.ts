import type { Identifier } from '@lauta/core/identifier';

export interface SimulatedShot {
  seed: number;
  boardId: string;
  look: string;
  lengthMm: number;
  identifier: Identifier | null;
  /** The phone's wall time, `YYYY-MM-DDTHH:MM:SS`, its offset, and the instant. */
  takenLocal: string;
  offset: string;
  takenAt: string;
}

export interface CameraCalls {
  photograph: { params: SimulatedShot; result: { jpeg: Blob } };
}
