import type { PhotoAnalysis } from './analyse.ts';
import { mapQuad, scalePx, type Point, type Quad } from '../geometry/point.ts';

/** The same analysis in px of a picture that is `by` times as large. */
export function scaleAnalysis(analysis: PhotoAnalysis, by: number): PhotoAnalysis {
  if (by === 1) return analysis;
  const scale = (point: Point): Point => scalePx(point, by);
  const quad = (corners: Quad): Quad => mapQuad(corners, scale);
  const { found, marks, outline, findings, flank } = analysis;
  return {
    ...analysis,
    found: found && {
      ...found,
      corners: quad(found.corners),
      lens: { ...found.lens, focalPx: found.lens.focalPx * by },
    },
    marks: marks && { corners: quad(marks.corners), nose: scale(marks.nose), tail: scale(marks.tail) },
    outline: outline && { upper: outline.upper.map(scale), lower: outline.lower.map(scale) },
    flank: flank && {
      ...flank,
      frame: { ...flank.frame, px: flank.frame.px.map(([x, y]) => scale([x, y])) },
    },
    findings: findings.map((finding) => ({ ...finding, place: finding.place && scale(finding.place) })),
  };
}
