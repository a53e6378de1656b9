import { formatPayload } from '@lauta/core/identifier';
import type { PhotoTruth, RangedScene } from '../camera/index.ts';
import type { Quad } from '@lauta/vision';
import type { FishId } from '@lauta/core/ids';

/** What is known of one simulated photograph. */
export interface PhotoRecord {
  file: string;
  board: string;
  species: string;
  fishId: FishId;
  lengthMm: number | null;
  noseGapMm: number;
  mouthGapMm: number;
  tiltDeg: number;
  hFovDeg: number;
  cameraHeightMm: number;
  /** px of the stored picture, lens distortion and all: zero/far, end/far, end/near, zero/near of the ruled face. */
  corners: Quad;
  nosePx: [number, number] | null;
  tailPx: [number, number] | null;
  apparentMm: number | null;
  faults: string[];
  /** What the angler claims the board to be, and what the day's card of this entrant says. */
  claimedBoard: string;
  expectedPayload: string;
  eyePx: [number, number] | null;
  cardCornersPx: [number, number][] | null;
  hand: boolean;
  identifier: { payload: string; visible: boolean } | null;
  camera: {
    f: number;
    cx: number;
    cy: number;
    k1: number;
    position: readonly [number, number, number];
    focal35: number;
  };
}

export function recordOf(
  file: string,
  { scene, expected, claimedBoard, fault }: RangedScene,
  truth: PhotoTruth,
): PhotoRecord {
  const { camera } = scene;
  return {
    file,
    board: scene.board.id,
    species: scene.fish ? `drawn-${scene.seed}` : 'none',
    fishId: scene.fish ? `s${scene.fish.seed}` : 'none',
    lengthMm: truth.lengthMm,
    noseGapMm: scene.fish?.noseGapMm ?? 0,
    mouthGapMm: scene.fish?.mouthGapMm ?? 0,
    tiltDeg: truth.tiltDeg,
    hFovDeg: (2 * Math.atan(camera.widthPx / 2 / camera.focalPx) * 180) / Math.PI,
    cameraHeightMm: truth.cameraHeightMm,
    corners: truth.corners,
    nosePx: truth.nosePx,
    tailPx: truth.tailPx,
    apparentMm: truth.apparentMm,
    faults: fault ? [fault] : [],
    claimedBoard: claimedBoard.id,
    expectedPayload: formatPayload(expected),
    eyePx: truth.eyePx,
    cardCornersPx: truth.cardCornersPx,
    hand: scene.hand !== null,
    identifier: scene.card
      ? {
          payload: formatPayload(scene.card.identifier),
          visible: fault !== 'identifier-cropped' && fault !== 'identifier-glare',
        }
      : null,
    camera: {
      f: truth.focalPx,
      cx: (camera.widthPx - 1) / 2,
      cy: (camera.heightPx - 1) / 2,
      k1: truth.k1,
      position: truth.positionMm,
      focal35: truth.focal35Mm,
    },
  };
}
