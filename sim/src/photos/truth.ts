import { formatPayload } from '@lauta/core/identifier';
import type { PhotoTruth, Scene } from '../camera/index.ts';

/** What is known of one simulated photograph. */
export interface PhotoRecord {
  file: string;
  board: string;
  species: string;
  fishId: string;
  lengthMm: number | null;
  noseGapMm: number;
  tiltDeg: number;
  hFovDeg: number;
  cameraHeightMm: number;
  /** px of the stored picture, lens distortion and all: zero/far, end/far, end/near, zero/near of the ruled face. */
  corners: [number, number][];
  nosePx: [number, number] | null;
  tailPx: [number, number] | null;
  apparentMm: number | null;
  faults: string[];
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

export function recordOf(file: string, scene: Scene, truth: PhotoTruth): PhotoRecord {
  const { camera } = scene;
  return {
    file,
    board: scene.board.id,
    species: scene.fish ? `drawn-${scene.seed}` : 'none',
    fishId: scene.fish ? `s${scene.fish.seed}` : 'none',
    lengthMm: truth.lengthMm,
    noseGapMm: 0,
    tiltDeg: truth.tiltDeg,
    hFovDeg: (2 * Math.atan(camera.widthPx / 2 / camera.focalPx) * 180) / Math.PI,
    cameraHeightMm: truth.cameraHeightMm,
    corners: truth.corners,
    nosePx: truth.nosePx,
    tailPx: truth.tailPx,
    apparentMm: truth.apparentMm,
    faults: [],
    hand: scene.hand !== null,
    identifier: scene.card ? { payload: formatPayload(scene.card.identifier), visible: true } : null,
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
