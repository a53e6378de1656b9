import type { Pattern } from '../find-board/pattern.ts';
import { toneAt, type Tones } from '../find-board/tones.ts';
import { projectBoardPoint, type LensPose } from '../camera/lens.ts';

/** How much of each printed line is seen, on a grid of mm across the face. */
export interface LineEvidence {
  /** Cells across the face. */
  rows: number;
  rowMm: number;
  /**
   * For each line of the pattern and each row: 1 as clear as the board's clear lines, 0 not seen, −1 not drawn there
   * or outside of the picture.
   */
  seen: Float32Array;
  /** Contrast of the board's clear lines as a share of what the profile's colours promise. */
  clearShare: number;
}

const ROW_MM = 2;

/**
 * Looks whether the ink of each line stands out from its flanks where the pose says. Printed ink keeps its ratio to
 * the face in sun and in shadow; where something lies on the board the line breaks off.
 */
export function lineEvidence(smooth: Tones, pose: LensPose, pattern: Pattern): LineEvidence {
  const rows = Math.ceil(pattern.widthMm / ROW_MM);
  const seen = new Float32Array(pattern.lines.length * rows).fill(-1);
  const sign = pattern.inkDarker ? 1 : -1;
  const byStroke = new Map<number, number[]>();
  pattern.lines.forEach((line, index) => {
    for (let row = 0; row < rows; row++) {
      const yMm = (row + 0.5) * ROW_MM;
      if (!line.spansMm.some(([from, to]) => yMm > from + 0.5 && yMm < to - 0.5)) continue;
      const flankMm = line.strokeMm / 2;
      const [x, y] = projectBoardPoint(pose, line.xMm, yMm);
      const [x1, y1] = projectBoardPoint(pose, line.xMm + 1, yMm);
      if (x < 4 || y < 4 || x > smooth.widthPx - 5 || y > smooth.heightPx - 5) continue;
      const [dx, dy] = [x1 - x, y1 - y];
      const scale = Math.hypot(dx, dy);
      const reach = flankMm + 1.4 / scale;
      let best = 0;
      for (const off of [-0.5, 0, 0.5]) {
        const ox = x + (off * dx) / scale;
        const oy = y + (off * dy) / scale;
        const middle = toneAt(smooth, ox, oy);
        const left = sign * (toneAt(smooth, ox - dx * reach, oy - dy * reach) - middle);
        const right = sign * (toneAt(smooth, ox + dx * reach, oy + dy * reach) - middle);
        best = Math.max(best, Math.min(left, right));
      }
      seen[index * rows + row] = best;
      const list = byStroke.get(line.strokeMm) ?? [];
      list.push(best);
      byStroke.set(line.strokeMm, list);
    }
  });
  const clear = new Map<number, number>();
  for (const [stroke, values] of byStroke) {
    values.sort((a, b) => a - b);
    clear.set(stroke, Math.max(0.08, values[Math.floor(values.length * 0.8)]));
  }
  pattern.lines.forEach((line, index) => {
    const full = clear.get(line.strokeMm) ?? 1;
    for (let row = 0; row < rows; row++) {
      const at = index * rows + row;
      if (seen[at] >= 0) seen[at] = Math.min(1, seen[at] / full);
    }
  });
  const clearest = Math.max(0, ...clear.values());
  return { rows, rowMm: ROW_MM, seen, clearShare: clearest / pattern.inkContrast };
}
