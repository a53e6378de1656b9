import type { Identifier } from '@lauta/core/identifier';
import { CARD_MM, formatPayload } from '@lauta/core/identifier';
import { findingOf, type Finding } from '../findings/findings.ts';
import type { Point, Quad } from '../geometry/point.ts';
import { isLikelyCode, isSureCode, type IdentifierSeen } from './searchIdentifier.ts';
import type { CodeCandidate } from './findCodes.ts';
import { isWithin, type Sheet } from './findSheets.ts';

/** Where the reading is made: the tail's far end and its rows, mm. */
export interface ReadingZone {
  tipMm: number;
  fromYMm: number;
  toYMm: number;
}

type ToPhoto = (xMm: number, yMm: number) => Point;

/** What the search for cards says of the five checks of the identifier. */
export function identifierFindings(
  seen: IdentifierSeen,
  expected: Identifier | null,
  zone: ReadingZone | null,
  toPhoto: ToPhoto,
): Finding[] {
  return [
    ...visibleFindings(seen, toPhoto),
    wrongFinding(seen, expected, toPhoto),
    overReading(seen, zone, toPhoto),
  ];
}

/** A whole card's white, mm, and how much of its rectangle is white beside code and letters. */
const WHOLE_LONG_MM = [74, 96] as const;
const WHOLE_SHORT_MM = [44, 62] as const;
const PART_SHORT_MM = 24;
const PART_LONG_MM = 90;
const GLARE_SHARE = 0.15;
const SHINING_SHARE = [0.08, 0.4] as const;
/** White about letters: a card whose code is hidden still shows its text. */
const LETTERS_WHITE = 0.72;
const LETTERS_GRAIN = 0.34;
/** So finely mixed at the picture's edge it is a code's part. */
const CUT_GRAIN = 0.5;

function isWholeCard({ longMm, shortMm }: Sheet): boolean {
  return longMm > WHOLE_LONG_MM[0] && longMm < WHOLE_LONG_MM[1] && shortMm > WHOLE_SHORT_MM[0] && shortMm < WHOLE_SHORT_MM[1]; // prettier-ignore
}

function visibleFindings({ codes, unread, sheets }: IdentifierSeen, toPhoto: ToPhoto): Finding[] {
  const clear = (why: string, confidence = 0.97): Finding[] =>
    (['identifier-missing', 'identifier-cropped', 'identifier-glare'] as const).map((check) =>
      findingOf(check, 'clear', confidence, why),
    );
  // A card in the sun may be white all over; a reflection is a part of it.
  const shining = codes.find(({ glareShare }) => isWithin(glareShare, SHINING_SHARE));
  const uneven = codes.find(({ isUneven }) => isUneven);
  if (codes.length > 0) {
    const [missing, cropped, glare] = clear('The card’s code was read.') as [Finding, Finding, Finding];
    const at = shining ?? uneven;
    if (!at) return [missing, cropped, glare];
    const why = shining
      ? 'A reflection lies on the card; its code could be read.'
      : 'Light and shade, or a reflection, divide the card; its code could be read.';
    const measure = shining && ({ value: shining.glareShare, unit: 'share' } as const);
    return [missing, cropped, findingOf('identifier-glare', 'look', 0.5, why, toPhoto(...middleOf(at.cardMm)), measure)]; // prettier-ignore
  }
  const smooth = sheets.filter(({ isSliver }) => !isSliver);
  const whole = smooth.find((sheet) => isWholeCard(sheet) && !sheet.isCut);
  const cutSheet = smooth.find(
    (sheet) => sheet.isCut && sheet.shortMm > 0.5 * PART_SHORT_MM && sheet.longMm < WHOLE_LONG_MM[1],
  );
  // The white about a code that is cut is too little to count.
  const cutCode = unread.find(({ isCut, grain }) => isCut && grain > CUT_GRAIN);
  const cut = cutSheet ?? cutCode;
  const glaring = smooth.find((sheet) => sheet.glareShare > GLARE_SHARE && sheet.shortMm > PART_SHORT_MM);
  const letters = unread.find(({ whiteShare, grain }) => whiteShare > LETTERS_WHITE && grain > LETTERS_GRAIN);
  const part =
    smooth.find((sheet) => sheet.shortMm > PART_SHORT_MM && sheet.longMm < PART_LONG_MM) ??
    letters ??
    unread.find(isLikelyCode);
  const sure = unread.find((one) => isSureCode(one) && !one.isCut);
  const [, cropped, glare] = clear('', 0.6) as [Finding, Finding, Finding];
  const notMissing = findingOf('identifier-missing', 'clear', 0.7, 'A card is seen.');
  const at = (place: { xMm: number; yMm: number }): Point => toPhoto(place.xMm, place.yMm);
  // A code that is plainly seen is not hidden: a card in the sun may be white all over.
  if (sure) {
    return [
      notMissing,
      findingOf('identifier-cropped', 'look', 0.55, 'A code is seen, but it cannot be read.', at(sure)),
      glaring
        ? findingOf('identifier-glare', 'look', 0.5, 'The card shines, and its code cannot be read.', at(glaring)) // prettier-ignore
        : { ...glare, why: 'No reflection was found on the card.' },
    ];
  }
  if (glaring) {
    return [
      notMissing,
      findingOf('identifier-cropped', 'clear', 0.6, 'The card is not cut off.'),
      findingOf('identifier-glare', 'fault', 0.8, 'A reflection hides the card’s code.', at(glaring), {
        value: glaring.glareShare,
        unit: 'share',
      }),
    ];
  }
  if (whole || (part && !cut)) {
    // A card by hand has no code: a person reads it.
    const place = at((whole ?? part) as Sheet | CodeCandidate);
    return [
      findingOf(
        'identifier-missing',
        'look',
        0.6,
        'What looks like a card shows no readable code: read it yourself.',
        place,
      ),
      findingOf('identifier-cropped', 'look', 0.5, 'The card’s code is hidden, or it has none.', place),
      findingOf(
        'identifier-glare',
        'look',
        0.4,
        'The card’s code is not seen: a reflection may hide it.',
        place,
      ),
    ];
  }
  if (cut) {
    return [
      findingOf('identifier-missing', 'look', 0.5, 'A part of what may be a card is seen.', at(cut)),
      findingOf('identifier-cropped', 'fault', 0.75, 'The card is cut off at the picture’s edge.', at(cut)),
      { ...glare, why: 'No reflection was found on the card.' },
    ];
  }
  const sliver = sheets.find(({ isSliver }) => isSliver);
  if (sliver) {
    const why = 'Something white ends at the picture’s edge: is it the card?';
    return [
      findingOf('identifier-missing', 'look', 0.5, why, at(sliver)),
      findingOf('identifier-cropped', 'look', 0.5, why, at(sliver)),
      { ...glare, why: 'No reflection was found on the card.' },
    ];
  }
  return [
    findingOf('identifier-missing', 'fault', 0.8, 'No card is seen on the board or around it.'),
    { ...cropped, why: 'No card is seen.' },
    { ...glare, why: 'No card is seen.' },
  ];
}

function wrongFinding({ codes }: IdentifierSeen, expected: Identifier | null, toPhoto: ToPhoto): Finding {
  const [first] = codes;
  if (!first) return findingOf('identifier-wrong', 'clear', 0.4, 'No code was read.');
  const place = toPhoto(...middleOf(first.cardMm));
  const read = codes.filter(({ identifier }) => identifier !== null);
  if (read.length === 0)
    return findingOf(
      'identifier-wrong',
      'fault',
      0.9,
      `The code is no identifier: “${first.text.slice(0, 40)}”.`,
      place,
    );
  if (!expected)
    return findingOf(
      'identifier-wrong',
      'clear',
      0.5,
      'The code was read; there is none of the day to compare it with.',
    );
  const wanted = formatPayload(expected);
  const wrong = codes.filter(({ text }) => text !== wanted);
  if (wrong.length === 0)
    return findingOf('identifier-wrong', 'clear', 0.98, 'The code is this entrant’s for the day.');
  if (wrong.length < codes.length)
    return findingOf('identifier-wrong', 'look', 0.7, 'Two cards: one is this entrant’s for the day, another is not.', toPhoto(...middleOf(wrong[0].cardMm))); // prettier-ignore
  const other = read[0].identifier as Identifier;
  return findingOf('identifier-wrong', 'fault', 0.97, wrongWords(other, expected), place);
}

function wrongWords(read: Identifier, expected: Identifier): string {
  if (read.eventCode !== expected.eventCode) return 'The card is another event’s.';
  if (read.entrantNumber !== expected.entrantNumber)
    return `The card is entrant ${read.entrantNumber}’s, not ${expected.entrantNumber}’s.`;
  return `The card’s code is ${read.code}; this entrant’s for the day is another.`;
}

/** Lines at the reading are wanted free for so much beside the tip, mm. */
const READING_SLACK_MM = 5;
/** A card so near to the tail's rows hides the lines beside it, mm. */
const ROWS_SLACK_MM = 18;

function overReading(
  { codes, unread, sheets }: IdentifierSeen,
  zone: ReadingZone | null,
  toPhoto: ToPhoto,
): Finding {
  const check = 'identifier-over-reading';
  if (!zone) return findingOf(check, 'clear', 0.4, 'No reading was made.');
  for (const { cardMm } of codes) {
    const xs = cardMm.map(([x]) => x);
    const ys = cardMm.map(([, y]) => y);
    const across =
      Math.min(...xs) < zone.tipMm + READING_SLACK_MM && Math.max(...xs) > zone.tipMm - READING_SLACK_MM;
    const beside =
      Math.min(...ys) < zone.toYMm + ROWS_SLACK_MM && Math.max(...ys) > zone.fromYMm - ROWS_SLACK_MM;
    if (!across || !beside) continue;
    const inside = Math.min(...ys) < zone.toYMm && Math.max(...ys) > zone.fromYMm;
    return findingOf(
      check,
      inside ? 'fault' : 'look',
      inside ? 0.85 : 0.6,
      'The card lies over the lines at the reading.',
      toPhoto(...middleOf(cardMm)),
    );
  }
  // Without its code a card's place is known less well: a person looks.
  const unreadable = [...unread.filter(isLikelyCode), ...sheets.filter(isWholeCard)].find(
    ({ xMm, yMm }) =>
      Math.abs(xMm - zone.tipMm) < CARD_MM.width / 2 &&
      yMm > zone.fromYMm - CARD_MM.height / 2 &&
      yMm < zone.toYMm + CARD_MM.height / 2,
  );
  if (unreadable) {
    const why = 'What may be a card lies at the reading.';
    return findingOf(check, 'look', 0.5, why, toPhoto(unreadable.xMm, unreadable.yMm));
  }
  return findingOf(check, 'clear', 0.9, 'No card lies at the reading.');
}

function middleOf(corners: Quad): [number, number] {
  return [corners.reduce((sum, [x]) => sum + x, 0) / 4, corners.reduce((sum, [, y]) => sum + y, 0) / 4];
}
