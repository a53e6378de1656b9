import type { FileFinding, FileReasons, ResavedSign } from '@lauta/core/file-evidence';
import { spanWords } from './clock.ts';
import { kilometres } from './kilometres.ts';
import { sentenceOf, type Sentences } from './sentence.ts';

const SENTENCES: Sentences<FileReasons> = {
  'no-time': 'The file has no time of its own.',
  'no-offset': 'The file’s time has no offset: it does not say in which zone it was taken.',
  'own-time': 'The file has its own time, with its offset.',
  'within-session': 'The photograph was taken within a session.',
  'outside-sessions': 'By the file’s time it was taken outside every session.',
  'before-claim': 'The file’s time is before the claim’s.',
  'after-claim': ({ byMs }) => `The file says it was taken ${spanWords(byMs)} after it was claimed.`,
  'no-position': 'The file has no position.',
  'own-position': 'The file has a position.',
  'on-waters': 'It was taken on the event’s waters.',
  'closed-area': ({ area }) => `It was taken in a closed area${area ? `, ${area}` : ''}.`,
  'outside-waters': ({ awayM }) => `It was taken ${kilometres(awayM)} outside the event’s waters.`,
  'way-possible': 'There was time enough to get there from the capture before it.',
  'way-too-far': ({ wayM, apartMs }) =>
    `${kilometres(wayM)} from the capture before it, ${spanWords(apartMs)} earlier or later.`,
  'other-thumbnail': 'The thumbnail in the file shows another picture.',
  'stored-once': 'Nothing in the file says that it was stored again.',
  'may-be-resaved': ({ signs }) => `The file may have been stored again: ${signs.map(signWords).join('; ')}.`,
};

const SIGNS: Record<Exclude<ResavedSign['code'], 'program-tables'>, string> = {
  'thumbnail-proportions': 'the thumbnail has other proportions',
  'changed-later': 'it was changed after it was taken',
  'no-camera': 'no camera has signed it',
};

function signWords(sign: ResavedSign): string {
  return sign.code === 'program-tables'
    ? `its tables are a program’s, quality ${sign.quality}`
    : SIGNS[sign.code];
}

/** Why a check of the file says what it says. */
export function fileReason({ reason }: Pick<FileFinding, 'reason'>): string {
  return sentenceOf(SENTENCES, reason);
}
