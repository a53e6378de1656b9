import type { AnalysisTrouble, BenchCheck, BoardReading, MarkName } from '@lauta/vision';
import { ApiProblem } from '../door/ask.ts';
import { problemWords } from '../problem/words.ts';
import type { PhotoRefusal } from './benchCalls.ts';

export function photoRefusalWords(code: PhotoRefusal): string {
  if (code === 'file-empty')
    return 'The file is empty. Copy it from the camera again, or take another photograph.';
  return problemWords(new ApiProblem({ type: code, title: code, status: 415 }));
}

/** What each check asks for, as it is when all is well. */
export const CHECK_WORDS: Record<BenchCheck, string> = {
  'nose-gap': 'nose at the stop',
  'mouth-open': 'mouth shut',
  'head-cropped': 'head in the picture',
  'tail-cropped': 'tail in the picture',
  'tail-curled': 'tail flat and straight',
  'tail-held': 'tail free',
  'identifier-missing': 'card in the picture',
  'identifier-cropped': 'card whole',
  'identifier-wrong': 'the day’s code',
  'identifier-glare': 'no glare on the card',
  'identifier-over-reading': 'lines at the reading free',
  'facing-right': 'head at the left',
  'dorsal-near': 'belly towards you',
  'eye-covered': 'eye free',
  'hand-in-gills': 'fingers off the gills',
  'grip-in-photo': 'no grip on the fish',
  'contact-hidden': 'nose to be seen',
  'more-fish': 'one fish alone',
  'screen-photo': 'a fish, not a screen',
  'steep-camera': 'camera over the fish',
  unsharp: 'lines sharp enough',
  'wrong-board': 'kind of board',
};

/** What to do for the next frame, while the fish is still there. */
export const RESHOOT_WORDS: Record<BenchCheck, string> = {
  'nose-gap': 'Slide the fish up until its nose touches the stop.',
  'mouth-open': 'Press the jaw shut and hold it there.',
  'head-cropped': 'Get the whole stop into the picture.',
  'tail-cropped': 'Raise the phone until the whole tail is in the picture.',
  'tail-curled': 'Smooth the tail flat, in line with the body.',
  'tail-held': 'Take your hand off the tail.',
  'identifier-missing': 'Lay your card of the day beside the fish.',
  'identifier-cropped': 'Move the card so that all of it is seen and nothing lies on it.',
  'identifier-wrong': 'Lay down your own card of today.',
  'identifier-glare': 'Turn the card out of the sun, or shade it.',
  'identifier-over-reading': 'Move the card off the lines at the tail.',
  'facing-right': 'Turn the phone, or the fish: its head at the left of the picture, at the stop.',
  'dorsal-near': 'Turn the fish over its back: belly towards you.',
  'eye-covered': 'Move your hand back from the eye.',
  'hand-in-gills': 'Keep your fingers out of the gill cover.',
  'grip-in-photo': 'Take the grip off the fish.',
  'contact-hidden': 'Clear the nose: nothing over it at the stop.',
  'more-fish': 'One fish on the board, the others out of the picture.',
  'screen-photo': 'Photograph the fish itself.',
  'steep-camera': 'Raise the phone over the middle of the fish.',
  unsharp: 'Hold still, wipe the lens, and take it again in better light.',
  'wrong-board': 'Choose the kind of board that the fish lies on.',
};

/** Why the bench gives no length, and what to do. */
export const TROUBLE_WORDS: Record<AnalysisTrouble, string> = {
  'too-small': 'The picture is too small to find the lines. Use the camera’s normal size.',
  'too-long':
    'The bench found no board in twenty seconds. Set the handles by hand, or photograph the board again.',
  'no-board': 'No board of a known kind was found. Set the handles by hand, or show more of the ruled face.',
  'no-anchor':
    'The lines were found, but no numeral tells which is which. Set the handles by hand, or uncover the numerals.',
  'no-fish': 'The board was found, but no fish on it. Set nose and tail by hand.',
  'no-tail': 'The board was found, but the tail’s edge cannot be told from it. Set the tail by hand.',
  'head-cropped':
    'Nose or stop lie beyond the picture’s edge. Photograph again with the whole stop in the picture.',
  'tail-cropped': 'The tail reaches the picture’s edge. Photograph again from a little higher.',
  'tail-held': 'A hand hides the tail’s end. Photograph again with the tail free.',
  'identifier-over-reading':
    'The card hides the lines at the tail. Photograph again with the card farther off.',
};

const MARK_WORDS: Record<MarkName, string> = { corners: 'corners', nose: 'nose', tail: 'tail' };

/** How a reading was made, for people. */
export function madeWords({ made, byHand }: Pick<BoardReading, 'made' | 'byHand'>): string {
  if (made === 'hand') return 'set by hand';
  if (made === 'bench') return 'found by the bench';
  return `found by the bench; ${byHand.map((name) => MARK_WORDS[name]).join(' and ')} moved by hand`;
}
