import type { AnnouncedFact, CustodyFinding, CustodyReasons } from '@lauta/core/custody';
import { spanWords } from './clock.ts';
import { kilometres } from './kilometres.ts';
import { sentenceOf, type Sentences } from './sentence.ts';

const SENTENCES: Sentences<CustodyReasons> = {
  'file-signed': 'The file is the one that the device signed when it was taken.',
  'file-chosen': 'The device signed the file when it was chosen, not when it was taken.',
  'file-of-none': 'The device signed photographs of this catch, and this file is none of them.',
  'file-unsigned': 'No device signed this file when it was taken.',
  'signature-broken':
    'A statement does not match its signature: it was changed, or signed by another key than it names.',
  'key-unknown': 'The key that signed was never registered.',
  'key-of-another': 'Somebody else’s device signed.',
  'key-revoked': 'The device signed after it had been struck off.',
  'paired-phone': 'Taken with a phone that the entrant paired.',
  'earlier-device-lost': 'An earlier device of this entrant was struck off: its chain ends.',
  'earlier-device': 'Another device of this entrant took earlier captures.',
  'chain-forked': 'Two captures of one device claim the same place in its chain.',
  'chain-first': 'The first capture of this device in the event.',
  'chain-begins-elsewhere': 'The chain of this device does not begin with this event.',
  'capture-before-missing': 'The capture before it never arrived: it was left out, or is still on its way.',
  'chain-other-before': 'It names another capture before it than the one that arrived.',
  'chain-linked': 'Linked to the capture before it, and none left out.',
  'clock-ran-on': 'The device’s clock ran on since the capture before.',
  'reopened-steady':
    'The page was reopened since the capture before; the device’s clock still stood the same against the server’s.',
  'reopened-unknown':
    'The page was reopened since the capture before: whether the device’s clock was set meanwhile is not known.',
  'clock-uncompared': 'The device’s clock was never compared with the server’s.',
  'clock-right': 'The device’s clock agrees with the server’s.',
  'signed-within': 'Signed within a session.',
  'signed-outside': 'Signed outside every session.',
  'no-position': 'The device had no position.',
  'way-possible': 'There was time enough to get there from the entrant’s capture before it.',
  'code-as-signed': 'The code that was claimed is the one the device signed.',
  'code-otherwise': 'The code claimed is not the one the device signed when the photograph was taken.',
  'key-late': ({ byMs }) => `The device was registered ${spanWords(byMs)} after the capture.`,
  'clock-set': ({ byMs }) =>
    `The device’s clock was set ${byMs < 0 ? 'back' : 'forward'} by ${spanWords(Math.abs(byMs))} since the capture before.`,
  'clock-backwards': ({ byMs }) =>
    `By the device’s clock it was taken ${spanWords(byMs)} before the capture that came before it.`,
  'heard-before-taken': ({ byMs }) =>
    `The server heard of it ${spanWords(byMs)} before the device says it was taken.`,
  'clock-off': ({ byMs }) =>
    `The device’s clock runs ${spanWords(Math.abs(byMs))} ${byMs > 0 ? 'ahead of' : 'behind'} the server’s.`,
  position: ({ accuracyM }) => `The device had a position, good to ${Math.round(accuracyM)} m.`,
  'way-too-far': ({ wayM, apartMs }) =>
    `${kilometres(wayM)} from the entrant’s capture before it, ${spanWords(apartMs)} earlier.`,
  'on-waters': ({ area }) => `On the event’s waters${area ? `, ${area}` : ''}.`,
  'closed-area': ({ area, awayM }) =>
    `In a closed area${area ? `, ${area}` : ''}, ${Math.round(awayM)} m from its edge.`,
  'outside-waters': ({ awayM }) => `Outside the event’s waters by ${Math.round(awayM)} m.`,
  'claimed-otherwise': ({ differences }) =>
    `The claim differs from what was announced ahead of it: ${differences.map((one) => DIFFERENCES[one]).join(', ')}.`,
  'file-in-others': ({ catches }) =>
    `The very same file stands in ${catches === 1 ? 'another catch' : `${catches} other catches`}.`,
  'first-heard': ({ afterCaptureMs, wholeAfterMs }) => {
    const after =
      afterCaptureMs === null ? 'with its claim' : `${spanWords(afterCaptureMs)} after the capture`;
    const whole =
      wholeAfterMs < 1000
        ? 'its photographs came with that'
        : `its photographs were complete ${spanWords(wholeAfterMs)} later`;
    return `The server first heard of it ${after}; ${whole}.`;
  },
};

const DIFFERENCES: Record<AnnouncedFact, string> = {
  species: 'another kind of fish',
  length: 'another length',
  code: 'another code',
  photograph: 'another photograph',
};

/** Why a check of the way here says what it says. */
export function custodyReason({ reason }: Pick<CustodyFinding, 'reason'>): string {
  return sentenceOf(SENTENCES, reason);
}
