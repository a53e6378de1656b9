import type { PortraitHint } from '@lauta/vision/portrait';
import type { LiveStep } from '@lauta/vision/live';
import type { CameraTrouble } from './liveSource.ts';

/** What the hand should do next, while the live view is watched. */
export const LIVE_WORDS: Record<LiveStep, string> = {
  board: 'Lay the board into the outline',
  frame: 'Stop or end is cut off: raise the phone',
  near: 'Closer: the board should fill the picture',
  straight: 'Look straight down on it, stop at the left',
  card: 'Lay the card down beside the fish',
  fish: 'Ready for the fish',
  nose: 'Nose to the stop',
  jaws: 'Press the jaws shut',
  tail: 'Lay the tail flat and free',
};
export const HOLD_WORDS = 'Hold still';

/** What to do otherwise in the next picture with the person, or of the fish in the water. */
export const PORTRAIT_WORDS: Record<PortraitHint, string> = {
  'no-fish': 'Bring the fish into the outline',
  'hand-over-flank': 'A hand hides the flank: hold it from beneath',
  'arms-out': 'Hold it nearer to yourself, arms bent',
  glare: 'The flank mirrors the sky: lean it a little',
  'water-line': 'The surface draws a white line: submerge it',
  'fins-folded': 'Fins lie folded: head into the flow until they open',
  dirt: 'Dirt or grass on the flank: rinse it off',
};

export const CAMERA_TROUBLE_WORDS: Record<CameraTrouble, string> = {
  refused:
    'This browser was not allowed to use the camera. Allow it in the address bar, or photograph with the phone’s own camera and choose the file.',
  absent: 'No camera was found. Photograph with the phone’s own camera and choose the file.',
  busy: 'The camera is in use elsewhere, or broke off. Close what uses it and open it again, or choose a file.',
  'not-secure':
    'A browser gives no camera to a page without a secure connection. Open Lauta by its https address, or choose a file.',
};
