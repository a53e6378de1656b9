import type { BoardMarks, LearnWish } from '@lauta/vision';
import type { HandleId, HandleWords } from '../../bench/handles.ts';

export const MARKS: readonly HandleId[] = ['zero-far', 'end-far', 'end-near', 'zero-near'];
const NOT_USED = { short: '', where: '' };
export const MARK_WORDS: HandleWords = {
  'zero-far': { short: 'Lower, far', where: 'where the lower line meets the edge away from you' },
  'end-far': { short: 'Higher, far', where: 'where the higher line meets the edge away from you' },
  'end-near': { short: 'Higher, near', where: 'where the higher line meets the edge near you' },
  'zero-near': { short: 'Lower, near', where: 'where the lower line meets the edge near you' },
  nose: NOT_USED,
  tail: NOT_USED,
};

/** What the director tells of the board, as typed. */
export interface Told {
  unit: 'in' | 'cm';
  lower: string;
  higher: string;
  widthMm: string;
  hasWall: boolean;
}

const NARROWEST_MM = 30;
const BROADEST_MM = 600;

/** Figures as people write them, with a point or a comma; NaN for anything else. */
function numberOf(typed: string): number {
  return /^\d+([.,]\d+)?$/.test(typed.trim()) ? Number(typed.trim().replace(',', '.')) : NaN;
}

/** What the bench is asked, or what is still missing, in a sentence. */
export function wishOf(
  told: Told,
  { corners }: Pick<BoardMarks, 'corners'>,
  focal35Mm: number | null,
): { ok: true; wish: LearnWish } | { ok: false; missing: string } {
  const [lower, higher, widthMm] = [numberOf(told.lower), numberOf(told.higher), numberOf(told.widthMm)];
  if (Number.isNaN(lower) || Number.isNaN(higher))
    return { ok: false, missing: 'Tell the numbers of both marked lines.' };
  if (higher - lower < 1)
    return { ok: false, missing: 'The higher number must be a unit or more above the lower.' };
  const isMeasured = told.widthMm.trim() !== '';
  if (isMeasured && !(widthMm >= NARROWEST_MM && widthMm <= BROADEST_MM))
    return { ok: false, missing: `The breadth is in mm, ${NARROWEST_MM} to ${BROADEST_MM}, or left empty.` };
  return {
    ok: true,
    wish: {
      unit: told.unit,
      lines: [
        { value: lower, far: corners[0], near: corners[3] },
        { value: higher, far: corners[1], near: corners[2] },
      ],
      focal35Mm,
      hasWall: told.hasWall,
      widthMm: isMeasured ? widthMm : null,
    },
  };
}
