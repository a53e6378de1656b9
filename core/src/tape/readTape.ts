import type { FileId } from '../ids.ts';

/** One reading on a tape in the water, as it was called out. */
export interface TapeMark {
  /** On the tape, where the tail's end lies, mm. */
  tapeMm: number;
  photographId: FileId;
}

/** A length by a tape: all readings kept, the two that agree taken. */
export interface TapeReading {
  kind: 'tape';
  marks: readonly TapeMark[];
  /** From where the tape is fixed to the nose, mm: it is subtracted. */
  gripOffsetMm: number;
  /** Which two readings agree, by their places in `marks`. */
  taken: readonly [number, number];
  /** Mean of the two less the offset, mm. */
  apparentMm: number;
  sigmaMm: number;
}

export type TapeRefusal = 'one-reading' | 'readings-differ' | 'offset-too-long';

/** Two readings further apart than this are not of the same length, mm: a quarter inch (common practice, no source). */
export const TAPE_TOLERANCE_MM = 6.35;
/**
 * Standard uncertainty of one reading by a finger on a tape beside a fish afloat, and of the offset, mm (from memory;
 * no published source). Two readings of the same hands share the tape's curve, so their mean is hardly better.
 */
const READING_SIGMA_MM = 3;
const OFFSET_SIGMA_MM = 2;
/** A grip whose offset is longer than the shortest fish worth a tape is a slip of the thumb, mm. */
const MOST_OFFSET_MM = 150;

/** Sums of inches in binary fractions of a mm must not fall short of the step that they reach. */
function inNanometres(mm: number): number {
  return Math.round(mm * 1e6) / 1e6;
}

/**
 * The length of a fish measured with a tape in the water: the nearest two readings that agree, the later ones first
 * when equal, less the grip's offset. An uncorrected tape reads long by that offset, about an inch.
 */
export function readTape(
  marks: readonly TapeMark[],
  gripOffsetMm: number,
): { ok: true; value: TapeReading } | { ok: false; code: TapeRefusal } {
  if (marks.length < 2) return { ok: false, code: 'one-reading' };
  if (gripOffsetMm > MOST_OFFSET_MM) return { ok: false, code: 'offset-too-long' };
  let best: { pair: [number, number]; apartMm: number; meanMm: number } | null = null;
  for (const [second, later] of marks.entries()) {
    for (const [first, earlier] of marks.slice(0, second).entries()) {
      const apartMm = inNanometres(Math.abs(later.tapeMm - earlier.tapeMm));
      if (apartMm <= TAPE_TOLERANCE_MM && apartMm <= (best?.apartMm ?? Infinity))
        best = { pair: [first, second], apartMm, meanMm: (earlier.tapeMm + later.tapeMm) / 2 };
    }
  }
  if (!best) return { ok: false, code: 'readings-differ' };
  const { pair, meanMm, apartMm } = best;
  if (meanMm <= gripOffsetMm) return { ok: false, code: 'offset-too-long' };
  return {
    ok: true,
    value: {
      kind: 'tape',
      marks: [...marks],
      gripOffsetMm,
      taken: pair,
      apparentMm: inNanometres(meanMm - gripOffsetMm),
      // The two differ by what one reading scatters at least.
      sigmaMm: Math.hypot(Math.max(READING_SIGMA_MM, apartMm / 2), OFFSET_SIGMA_MM),
    },
  };
}
