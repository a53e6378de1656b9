import type { Identifier } from '@lauta/core/identifier';
import type { MeasuringBoard } from '@lauta/vision';
import type { PhotoFault } from './photoFault.ts';
import type { Phone } from './phone.ts';
import type { Scene } from './scene.ts';

/** A scene of the simulated camera with what a file tells of it. */
export interface RangedScene {
  scene: Scene;
  jpegQuality: number;
  /** What the phone makes of the picture before it is stored; by default nothing. */
  phone?: Phone;
  hasHand: boolean;
  /** What the card should say: the entrant's identifier of the day. */
  expected: Identifier;
  /** The kind of board that the angler claims. */
  claimedBoard: MeasuringBoard;
  fault?: PhotoFault;
}
