import type { ProblemType } from '@lauta/contract';
import { PHOTOGRAPH_LIMITS } from '@lauta/contract';
import { ApiProblem } from '../door/ask.ts';
import { SignInGivenUp } from '../door/askToSignIn.ts';

const MEGABYTES = Math.round(PHOTOGRAPH_LIMITS.maxBytes / 1024 / 1024);

/** What is wrong and what to do next, for everything that can be refused. */
const WORDS: Record<ProblemType | 'network' | 'file-gone', string> = {
  network: 'Nothing answers. What you entered is still here; try again when there is a network.',
  'not-signed-in': 'Sign in first.',
  'sign-in-failed': 'Wrong address or password. Check both and try again.',
  'too-many-tries': 'Too many tries. Wait a quarter of an hour, or ask the director for help.',
  'not-allowed': 'Your role in this event does not cover that. The director can give you another.',
  'wrong-origin': 'The page was not opened from Lauta itself. Open its own address and try again.',
  'wrong-host': 'The server does not answer to this name. Open the address that the director gave you.',
  'not-found': 'There is nothing here, or it is not for you to see.',
  'invalid-request': 'Something in the form does not fit. Look at the marked fields.',
  'invitation-used': 'This link was used or has run out. Ask the director for a new one.',
  'account-opened': 'This address has an account already. Sign in with it, then open the link again. If you never opened one, tell the director.',
  'last-director': 'An event keeps one director at least. Give somebody else the role first.',
  'account-suspended': 'This account is closed for now. Ask the director who invited you.',
  'password-weak': 'That password is one of the first that are tried. Take a longer one, of several words that do not belong together.',
  'pairing-used': 'This code was used or has run out. Let your partner show a new one.',
  'already-set-up': 'The first director is entered already. Sign in instead.',
  'idempotency-key-missing': 'The page sent an incomplete command. Reload it and try again.',
  'idempotency-key-reused': 'This was sent before, with other contents. Reload to see what counts.',
  'unknown-zone': 'That time zone is not known. Use an IANA name, such as Europe/Warsaw.',
  'wall-time-skipped': 'The clocks jump over that time on that night. Choose another.',
  'sessions-overlap': 'Two sessions overlap, or one ends before it begins.',
  'no-rule-sheet': 'No rule sheet is published yet. The director must publish one before a fish can be claimed.',
  'measure-fixed': 'Fish were claimed already, so the measure and its step stay as they are.',
  'event-exists': 'This event was created already.',
  'board-not-known': 'That kind of board is not known here. Choose one from the list.',
  'board-exists': 'A kind of board has this key already, and what was measured on must not change. Choose another name.',
  'too-many-boards': 'The event has as many kinds of board of its own as it can have.',
  'reading-refused': 'The handles do not make a board that can be read. Set them again.',
  'catch-exists': 'This catch was claimed already, perhaps in another tab.',
  'catch-of-another': 'Another entrant has spoken of this catch first. Claim it as a fish of its own.',
  'catch-announced': 'The server has heard of this catch already.',
  'capture-of-another': 'What was signed belongs to another entrant or event.',
  'frame-not-asked': 'Nobody waits for this frame any more.',
  'waters-broken': 'These areas cannot be used.',
  'key-not-proven': 'This device could not prove that it holds its key. Reload the page.',
  'key-registered': 'This device’s key is registered to somebody else.',
  'too-many-keys': 'As many devices as one account can have are registered already. Ask the director.',
  'catch-withdrawn': 'The catch was withdrawn.',
  'file-gone': 'The photograph is no longer on this device.',
  'clip-sent': 'A clip of this release is there already.',
  'not-a-clip': 'This file is no clip that can be shown: WebM or MP4, as the camera stored it.',
  'handling-told': 'What happened to this fish was told already.',
  'handling-not-later': 'This leaves out something that the claim already said.',
  'catch-not-withdrawn': 'The catch is not withdrawn.',
  'verdict-moved-on': 'Another judge decided meanwhile. Look at that decision, then decide again if you must.',
  'results-official': 'The results are official. The director can take that back.',
  'rule-not-kept': 'By this measure one of these rules is kept by nothing: leave it out.',
  'sheet-moved-on': 'Another director published meanwhile. Look at that version, then publish anew if you must.',
  'entry-exists': 'This was entered already.',
  'specimen-corrected': 'This record was corrected already: correct the later one.',
  'too-many-entries': 'More was entered at this well today than a day can hold.',
  'own-bag': 'Nobody weighs the own bag. Leave it to another weigh master.',
  'own-catch': 'Nobody judges own catches or a partner’s. Leave it to another judge.',
  'nothing-to-answer': 'There is no open request for this catch any more.',
  'photograph-missing': 'The photograph has not arrived whole. Send it again.',
  'photograph-taken': 'This photograph belongs to another catch already.',
  'photograph-sealed': 'The photograph is stored already, and what came now is another file. Choose it again.',
  'photograph-completing': 'The server is just putting this photograph together.',
  'photograph-altered': 'What is stored is not the photograph that was sent: it was altered. Do not judge by it; tell the director.',
  'storage-full': 'The server is running out of room. What you entered is still here; tell the director.',
  'too-many-files': 'More photographs were sent than catches can have. Claim or discard what waits.',
  'id-taken': 'Something of this name stands there already. Reload and look.',
  'photograph-declared-otherwise': 'A different photograph was announced under this name. Choose the file again.',
  'chunk-out-of-place': 'The upload got out of step. Send the photograph again.',
  'chunk-size': 'The upload got out of step. Send the photograph again.',
  'checksum-mismatch': 'The photograph changed on its way. Send it again.',
  'not-a-jpeg': 'That file is not a JPEG, whatever its name says. Set the phone’s camera to JPEG (“most compatible”) and take the photograph again.',
  'picture-broken': 'The picture breaks off or cannot be read. Copy it again from the camera.',
  'picture-too-complex': 'The picture takes too long to open. Store it again as a plain JPEG, at the camera’s normal size.',
  'picture-too-large': `The picture is too large: at most ${PHOTOGRAPH_LIMITS.maxSidePx.toLocaleString('en')} px a side and ${MEGABYTES} MB. Use the camera’s normal size.`,
  'picture-too-small': 'The picture is too small to read a length off.',
  'body-too-large': 'That is more than can be taken at once.',
  'bench-busy': 'The server reads other photographs first. Try again in a moment.',
  'bench-failed': 'The server could not read the original by itself.',
  'database-away': 'The server’s database is away for a moment. What you entered is still here; try again shortly.',
  'server-fault': 'Something went wrong in the server. What you entered is still here; try again, and tell the director if it stays.',
}; // prettier-ignore

const READING_WORDS: Record<string, string> = {
  collinear: 'Three corners lie on one line: no board can be seen like that. Pull them to the corners of the ruled face.',
  crossed: 'The corners are crossed. Go round the ruled face: zero far, end far, end near, zero near.',
  mirrored: 'The corners run the wrong way round, as in a mirror. The stop belongs to the corners named “zero”.',
  'tail-before-nose': 'The tail lies before the nose. Swap the two handles.',
  'tail-before-stop': 'The tail lies before the stop. Put its handle on the tail’s farthest point.',
  'tail-off-board': 'The tail lies beyond the board’s end, where nothing can be read.',
  'outside-photo': 'A handle lies too far outside of the picture.',
}; // prettier-ignore

export function readingRefusalWords(code: string): string {
  return READING_WORDS[code] ?? 'The handles do not make a board that can be read.';
}

export function problemWords(error: unknown): string {
  if (error instanceof SignInGivenUp) return 'Not sent: nobody is signed in. What you entered is still here.';
  if (!(error instanceof ApiProblem)) return 'Something went wrong in this page. Reload it and try again.';
  if (error.type === 'reading-refused') return readingRefusalWords(String(error.problem.fields?.['why']));
  const known = WORDS as Record<string, string | undefined>;
  return known[error.type] ?? known['server-fault'] ?? error.message;
}
