import type { Identifier } from '@lauta/core/identifier';
import { CARD_MM, formatPayload } from '@lauta/core/identifier';
import { findingOf, type BenchCheck, type BenchReason, type Finding } from '../findings/findings.ts';
import type { Point, Quad } from '../geometry/point.ts';
import { isLikelyCode, isSureCode, type IdentifierSeen } from '../find-card/searchIdentifier.ts';
import { isWithin, type Sheet } from '../find-card/findSheets.ts';
import type { Check, ReadingZone } from './check.ts';

type ToPhoto = (xMm: number, yMm: number) => Point;

/** Whether a card is there, whole, and free of reflections: one look answers all three. */
export const identifierVisible: Check<'cards'> = {
  ids: ['identifier-missing', 'identifier-cropped', 'identifier-glare'],
  live: null,
  judge: ({ cards, toPhoto }) => visibleFindings(cards, toPhoto),
};

export const identifierWrong: Check<'cards'> = {
  ids: ['identifier-wrong'],
  live: null,
  judge: ({ cards, expected, toPhoto }) => [wrongFinding(cards, expected, toPhoto)],
};

export const identifierOverReading: Check<'cards'> = {
  ids: ['identifier-over-reading'],
  live: null,
  judge: ({ cards, zone, toPhoto }) => [overReading(cards, zone, toPhoto)],
};

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

/** What may be a card whose code was not read. */
function unreadCard({ unread, sheets }: IdentifierSeen) {
  const smooth = sheets.filter(({ isSliver }) => !isSliver);
  const cutSheet = smooth.find(
    (sheet) => sheet.isCut && sheet.shortMm > 0.5 * PART_SHORT_MM && sheet.longMm < WHOLE_LONG_MM[1],
  );
  // The white about a code that is cut is too little to count.
  const cutCode = unread.find(({ isCut, grain }) => isCut && grain > CUT_GRAIN);
  const letters = unread.find(({ whiteShare, grain }) => whiteShare > LETTERS_WHITE && grain > LETTERS_GRAIN);
  return {
    sure: unread.find((one) => isSureCode(one) && !one.isCut),
    glaring: smooth.find((sheet) => sheet.glareShare > GLARE_SHARE && sheet.shortMm > PART_SHORT_MM),
    whole: smooth.find((sheet) => isWholeCard(sheet) && !sheet.isCut),
    part:
      smooth.find((sheet) => sheet.shortMm > PART_SHORT_MM && sheet.longMm < PART_LONG_MM) ??
      letters ??
      unread.find(isLikelyCode),
    cut: cutSheet ?? cutCode,
    sliver: sheets.find(({ isSliver }) => isSliver),
  };
}

export function visibleFindings(seen: IdentifierSeen, toPhoto: ToPhoto): Finding[] {
  if (seen.codes.length > 0) return readFindings(seen.codes, toPhoto);
  const { sure, glaring, whole, part, cut, sliver } = unreadCard(seen);
  const noGlare = (code: 'no-reflection' | 'no-card'): Finding =>
    findingOf('identifier-glare', 'clear', 0.6, { code });
  const notMissing = findingOf('identifier-missing', 'clear', 0.7, { code: 'card-seen' });
  const at = (place: { xMm: number; yMm: number }): Point => toPhoto(place.xMm, place.yMm);
  // A code that is plainly seen is not hidden: a card in the sun may be white all over.
  if (sure) {
    return [
      notMissing,
      findingOf('identifier-cropped', 'look', 0.55, { code: 'code-unreadable' }, at(sure)),
      glaring
        ? findingOf('identifier-glare', 'look', 0.5, { code: 'card-shines' }, at(glaring)) // prettier-ignore
        : noGlare('no-reflection'),
    ];
  }
  if (glaring) {
    return [
      notMissing,
      findingOf('identifier-cropped', 'clear', 0.6, { code: 'card-not-cut' }),
      findingOf('identifier-glare', 'fault', 0.8, { code: 'reflection-hides' }, at(glaring), {
        value: glaring.glareShare,
        unit: 'share',
      }),
    ];
  }
  const uncut = whole ?? (cut ? undefined : part);
  if (uncut) {
    // A card by hand has no code: a person reads it.
    const place = at(uncut);
    return [
      findingOf('identifier-missing', 'look', 0.6, { code: 'card-without-code' }, place),
      findingOf('identifier-cropped', 'look', 0.5, { code: 'code-hidden' }, place),
      findingOf('identifier-glare', 'look', 0.4, { code: 'reflection-may-hide' }, place),
    ];
  }
  if (cut) {
    return [
      findingOf('identifier-missing', 'look', 0.5, { code: 'card-in-part' }, at(cut)),
      findingOf('identifier-cropped', 'fault', 0.75, { code: 'card-cut' }, at(cut)),
      noGlare('no-reflection'),
    ];
  }
  if (sliver) {
    const reason = { code: 'white-at-edge' } as const;
    return [
      findingOf('identifier-missing', 'look', 0.5, reason, at(sliver)),
      findingOf('identifier-cropped', 'look', 0.5, reason, at(sliver)),
      noGlare('no-reflection'),
    ];
  }
  return [
    findingOf('identifier-missing', 'fault', 0.8, { code: 'no-card-around' }),
    findingOf('identifier-cropped', 'clear', 0.6, { code: 'no-card' }),
    noGlare('no-card'),
  ];
}

/** A card whose code was read is there and whole; light may still lie on it. */
function readFindings(codes: IdentifierSeen['codes'], toPhoto: ToPhoto): Finding[] {
  const clear = (check: BenchCheck): Finding => findingOf(check, 'clear', 0.97, { code: 'code-read' });
  // A card in the sun may be white all over; a reflection is a part of it.
  const shining = codes.find(({ glareShare }) => isWithin(glareShare, SHINING_SHARE));
  const at = shining ?? codes.find(({ isUneven }) => isUneven);
  const glare = at
    ? findingOf(
        'identifier-glare',
        'look',
        0.5,
        { code: shining ? 'reflection-read' : 'uneven-read' },
        toPhoto(...middleOf(at.cardMm)),
        shining && { value: shining.glareShare, unit: 'share' },
      )
    : clear('identifier-glare');
  return [clear('identifier-missing'), clear('identifier-cropped'), glare];
}

function wrongFinding({ codes }: IdentifierSeen, expected: Identifier | null, toPhoto: ToPhoto): Finding {
  const [first] = codes;
  if (!first) return findingOf('identifier-wrong', 'clear', 0.4, { code: 'no-code' });
  const place = toPhoto(...middleOf(first.cardMm));
  const read = codes.flatMap(({ identifier }) => identifier ?? []);
  if (read.length === 0)
    return findingOf(
      'identifier-wrong',
      'fault',
      0.9,
      { code: 'not-an-identifier', text: first.text.slice(0, 40) },
      place,
    );
  if (!expected) return findingOf('identifier-wrong', 'clear', 0.5, { code: 'code-uncompared' });
  const wanted = formatPayload(expected);
  const wrong = codes.filter(({ text }) => text !== wanted);
  if (wrong.length === 0) return findingOf('identifier-wrong', 'clear', 0.98, { code: 'code-of-day' });
  if (wrong.length < codes.length)
    return findingOf('identifier-wrong', 'look', 0.7, { code: 'two-cards' }, toPhoto(...middleOf(wrong[0].cardMm))); // prettier-ignore
  const [other] = read;
  return findingOf('identifier-wrong', 'fault', 0.97, wrongReason(other, expected), place);
}

function wrongReason(read: Identifier, expected: Identifier): BenchReason {
  if (read.eventCode !== expected.eventCode) return { code: 'card-of-event' };
  if (read.entrantNumber !== expected.entrantNumber)
    return {
      code: 'card-of-entrant',
      entrantNumber: read.entrantNumber,
      expectedNumber: expected.entrantNumber,
    };
  return { code: 'code-of-another-day', readCode: read.code };
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
  if (!zone) return findingOf(check, 'clear', 0.4, { code: 'no-reading' });
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
      { code: 'card-over-reading' },
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
    return findingOf(
      check,
      'look',
      0.5,
      { code: 'card-may-be-over-reading' },
      toPhoto(unreadable.xMm, unreadable.yMm),
    );
  }
  return findingOf(check, 'clear', 0.9, { code: 'reading-free' });
}

function middleOf(corners: Quad): [number, number] {
  return [corners.reduce((sum, [x]) => sum + x, 0) / 4, corners.reduce((sum, [, y]) => sum + y, 0) / 4];
}
