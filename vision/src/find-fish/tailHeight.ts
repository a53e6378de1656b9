/** A tail lies 1 to 3 mm over the face (photographs with known truth; no published source). */
export const TAIL_HEIGHT_MM = 2;
export const TAIL_HEIGHT_SIGMA_MM = 0.6;

/**
 * The length of a tail that is seen at `apparentMm`: a point h over the face, seen from a camera at height H and a
 * lateral distance d, appears d·h/(H−h) too far out (similar triangles).
 */
export function trueLengthMm(apparentMm: number, cameraXMm: number, cameraZMm: number): number {
  return cameraXMm + ((apparentMm - cameraXMm) * (cameraZMm - TAIL_HEIGHT_MM)) / cameraZMm;
}
