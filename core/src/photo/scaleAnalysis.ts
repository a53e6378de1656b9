import type { PhotoAnalysis } from './analyse.ts';
import type { Point, Quad } from './point.ts';

/** The same analysis in px of a picture that is `by` times as large. */
export function scaleAnalysis(analysis: PhotoAnalysis, by: number): PhotoAnalysis {
  if (by === 1) return analysis;
  const scale = ([x, y]: Point): Point => [(x + 0.5) * by - 0.5, (y + 0.5) * by - 0.5];
  const quad = (corners: Quad): Quad => corners.map(scale) as unknown as Quad;
  const { found, marks, outline, findings } = analysis;
  return {
    ...analysis,
    found: found && {
      ...found,
      corners: quad(found.corners),
      lens: { ...found.lens, focalPx: found.lens.focalPx * by },
    },
    marks: marks && { corners: quad(marks.corners), nose: scale(marks.nose), tail: scale(marks.tail) },
    outline: outline && { upper: outline.upper.map(scale), lower: outline.lower.map(scale) },
    findings: findings.map((finding) => ({ ...finding, place: finding.place && scale(finding.place) })),
  };
}
