import { describe, expect, it } from 'vitest';
import { parsePayload } from '@lauta/core/identifier';
import type { BenchCheck, Finding } from '../findings/findings.ts';
import type { Quad } from '../geometry/point.ts';
import { CARD_MM } from '../find-card/codeSeen.ts';
import type { CodeCandidate } from '../find-card/findCodes.ts';
import type { Sheet } from '../find-card/findSheets.ts';
import type { ReadingZone } from './check.ts';
import { runChecks } from './registry.ts';
import type { IdentifierSeen, ReadCode } from '../find-card/searchIdentifier.ts';

const OWN = { eventCode: 'K7Q4M', entrantNumber: 930, code: 'YT1P' };
const ZONE: ReadingZone = { tipMm: 400, fromYMm: 50, toYMm: 110 };

/** A card at a place of the board, unturned. */
function cardAt(xMm: number, yMm: number): Quad {
  return [
    [xMm, yMm],
    [xMm + CARD_MM.width, yMm],
    [xMm + CARD_MM.width, yMm + CARD_MM.height],
    [xMm, yMm + CARD_MM.height],
  ];
}

const code = (text: string, cardMm = cardAt(100, -120)): ReadCode => ({
  text,
  identifier: parsePayload(text),
  cardMm,
  glareShare: 0,
  isUneven: false,
});
const seen = (part: Partial<IdentifierSeen>): IdentifierSeen => ({
  codes: [],
  unread: [],
  sheets: [],
  ...part,
});
const findings = (part: Partial<IdentifierSeen>, expected: typeof OWN | null): Finding[] =>
  runChecks({ cards: { cards: seen(part), expected, zone: ZONE, toPhoto: (x, y) => [x, y] } });
const tones = (
  part: Partial<IdentifierSeen>,
  expected: typeof OWN | null = OWN,
): Partial<Record<BenchCheck, string>> =>
  Object.fromEntries(findings(part, expected).map(({ check, tone }) => [check, tone]));

const SHEET: Sheet = {
  xMm: 300,
  yMm: -100,
  longMm: 82,
  shortMm: 51,
  whiteShare: 0.46,
  glareShare: 0,
  isCut: false,
  isSliver: false,
};
const CODE: CodeCandidate = {
  xMm: 300,
  yMm: -100,
  whiteShare: 0.9,
  contrast: 0.18,
  grain: 0.7,
  isCut: false,
};

describe('what is said of the identifier', () => {
  it('is all clear for the entrant’s own card of the day', () => {
    expect(Object.values(tones({ codes: [code('lauta:1:K7Q4M:930:YT1P')] }))).toEqual(Array(5).fill('clear'));
  });

  it.each([
    ['another entrant’s', 'lauta:1:K7Q4M:931:YT1P'],
    ['yesterday’s', 'lauta:1:K7Q4M:930:AB12'],
    ['another event’s', 'lauta:1:Z9Z9Z:930:YT1P'],
    ['no identifier at all', 'see you at the lake'],
  ])('is a fault for a card that is %s', (_, text) => {
    expect(tones({ codes: [code(text)] })['identifier-wrong']).toBe('fault');
  });

  it('never tells the code of the day to whoever reads the finding', () => {
    const found = findings({ codes: [code('lauta:1:K7Q4M:930:AB12')] }, OWN);
    expect(found.map(({ reason }) => JSON.stringify(reason)).join()).not.toContain('YT1P');
  });

  it('is a look for two cards of which one is right, and clear while nobody knows the right one', () => {
    const two = [code('lauta:1:K7Q4M:930:YT1P'), code('lauta:1:K7Q4M:931:AB12')];
    expect(tones({ codes: two })['identifier-wrong']).toBe('look');
    expect(tones({ codes: [code('lauta:1:K7Q4M:931:AB12')] }, null)['identifier-wrong']).toBe('clear');
  });

  it('is missing when nothing like a card is seen', () => {
    expect(tones({})).toMatchObject({ 'identifier-missing': 'fault', 'identifier-cropped': 'clear' });
  });

  it('is for a person to read when a whole card shows no code: never missing', () => {
    expect(tones({ sheets: [SHEET] })).toMatchObject({
      'identifier-missing': 'look',
      'identifier-wrong': 'clear',
    });
  });

  it('is cropped where the card goes on beyond the picture, and doubtful where a code cannot be read', () => {
    expect(tones({ sheets: [{ ...SHEET, shortMm: 26, isCut: true }] })['identifier-cropped']).toBe('fault');
    expect(tones({ unread: [CODE] })).toMatchObject({
      'identifier-missing': 'clear',
      'identifier-cropped': 'look',
    });
    const cutCode = { ...CODE, whiteShare: 0.41, grain: 0.58, isCut: true };
    expect(tones({ unread: [cutCode] })['identifier-cropped']).toBe('fault');
    expect(tones({ unread: [{ ...cutCode, grain: 0.35 }] })['identifier-cropped']).toBe('clear');
  });

  it('may be what is white at the picture’s edge: a look, not a card that is missing', () => {
    const sliver = { ...SHEET, longMm: 84, shortMm: 14, isCut: true, isSliver: true };
    expect(tones({ sheets: [sliver] })).toMatchObject({
      'identifier-missing': 'look',
      'identifier-cropped': 'look',
      'identifier-glare': 'clear',
    });
    expect(tones({ sheets: [] })).toMatchObject({ 'identifier-missing': 'fault' });
  });

  it('is told with the reflection on it though its code was read; sunlit white all over is none', () => {
    const own = code('lauta:1:K7Q4M:930:YT1P');
    const glareOf = (glareShare: number) => tones({ codes: [{ ...own, glareShare }] })['identifier-glare'];
    expect([0, 0.05, 0.2, 0.7].map(glareOf)).toEqual(['clear', 'clear', 'look', 'clear']);
    expect(tones({ codes: [{ ...own, isUneven: true }] })).toMatchObject({
      'identifier-missing': 'clear',
      'identifier-glare': 'look',
    });
  });

  it('is looked for at the reading too when its code cannot be read', () => {
    const overOf = (xMm: number, yMm: number, part: Partial<Sheet> = {}) =>
      tones({ sheets: [{ ...SHEET, xMm, yMm, ...part }] })['identifier-over-reading'];
    expect(overOf(ZONE.tipMm + 20, 80)).toBe('look');
    expect(overOf(ZONE.tipMm + 60, 80)).toBe('clear');
    expect(overOf(ZONE.tipMm + 20, 180)).toBe('clear');
    expect(overOf(ZONE.tipMm + 20, 80, { longMm: 40 })).toBe('clear');
    const unread = [{ ...CODE, xMm: ZONE.tipMm - 10, yMm: 80 }];
    expect(tones({ unread })['identifier-over-reading']).toBe('look');
  });

  it('is hidden by glare when the card’s white is brighter than a picture can tell', () => {
    expect(tones({ sheets: [{ ...SHEET, glareShare: 0.5 }] })['identifier-glare']).toBe('fault');
  });

  it('is not hidden by glare where its code is plainly seen: in the sun a card is white all over', () => {
    const bright = { unread: [CODE], sheets: [{ ...SHEET, glareShare: 0.9 }] };
    expect(tones(bright)).toMatchObject({
      'identifier-missing': 'clear',
      'identifier-cropped': 'look',
      'identifier-glare': 'look',
    });
    expect(tones({ ...bright, unread: [{ ...CODE, grain: 0.4 }] })['identifier-glare']).toBe('fault');
  });

  it.each([
    ['over the tail’s tip', cardAt(390, 60), 'fault'],
    ['from the tip onwards, over the lines', cardAt(402, 95), 'fault'],
    ['beside the tail, at its height along the board', cardAt(360, 120), 'look'],
    ['60 mm beyond the tail', cardAt(460, 60), 'clear'],
    ['on the ground before the board', cardAt(380, -140), 'clear'],
  ] as const)('%s: %s', (_, cardMm, tone) => {
    expect(tones({ codes: [code('lauta:1:K7Q4M:930:YT1P', cardMm)] })['identifier-over-reading']).toBe(tone);
  });
});
