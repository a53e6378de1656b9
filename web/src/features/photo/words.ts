import type { AnalysisTrouble, BenchCheck, BoardReading, MarkName } from '@lauta/core/photo';
import { ApiProblem } from '../../door/http.ts';
import { problemWords } from '../../problem/words.ts';
import type { PhotoRefusal } from './benchProtocol.ts';

export function photoRefusalWords(code: PhotoRefusal): string {
  if (code === 'file-empty')
    return 'The file is empty. Copy it from the camera again, or take another photograph.';
  return problemWords(new ApiProblem({ type: code, title: code, status: 415 }));
}

export const CHECK_WORDS: Record<BenchCheck, string> = {
  'head-cropped': 'head in the picture',
  'tail-cropped': 'tail in the picture',
  'steep-camera': 'camera over the fish',
  unsharp: 'lines sharp enough',
  'wrong-board': 'kind of board',
  'facing-right': 'head at the left',
};

/** Why the bench gives no length, and what to do. */
export const TROUBLE_WORDS: Record<AnalysisTrouble, string> = {
  'too-small': 'The picture is too small to find the lines. Use the camera’s normal size.',
  'too-long':
    'The bench found no board in five seconds. Set the handles by hand, or photograph the board again.',
  'no-board': 'No board of a known kind was found. Set the handles by hand, or show more of the ruled face.',
  'no-anchor':
    'The lines were found, but no numeral tells which is which. Set the handles by hand, or uncover the numerals.',
  'no-fish': 'The board was found, but no fish on it. Set nose and tail by hand.',
  'no-tail': 'The board was found, but the tail’s edge cannot be told from it. Set the tail by hand.',
  'head-cropped':
    'Nose or stop lie beyond the picture’s edge. Photograph again with the whole stop in the picture.',
  'tail-cropped': 'The tail reaches the picture’s edge. Photograph again from a little higher.',
};

const MARK_WORDS: Record<MarkName, string> = { corners: 'corners', nose: 'nose', tail: 'tail' };

/** How a reading was made, for people. */
export function madeWords({ made, byHand }: Pick<BoardReading, 'made' | 'byHand'>): string {
  if (made === 'hand') return 'set by hand';
  if (made === 'bench') return 'found by the bench';
  return `found by the bench; ${byHand.map((name) => MARK_WORDS[name]).join(' and ')} moved by hand`;
}
