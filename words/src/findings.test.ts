import { describe, expect, it } from 'vitest';
import type { CustodyFinding } from '@lauta/core/custody';
import type { FileFinding } from '@lauta/core/file-evidence';
import type { Finding } from '@lauta/vision';
import { custodyReason } from './custodyReason.ts';
import { fileReason } from './fileReason.ts';
import { likenessReason } from './likeness.ts';
import { photoReason } from './photoReason.ts';

describe('the sentence of a finding', () => {
  it.each<[Finding['reason'], string]>([
    [{ code: 'nose-touches' }, 'The nose touches the stop.'],
    [{ code: 'lines-read-in-part', share: 0.444 }, '44 % of the free lines at the tail can be read.'],
    [
      { code: 'camera-tilt', tiltDeg: 21.26, limitDeg: 20 },
      'The camera looks 21.3° off straight down; 20° are allowed.',
    ],
    [{ code: 'card-of-entrant', entrantNumber: 7, expectedNumber: 9 }, 'The card is entrant 7’s, not 9’s.'],
  ])('of a photograph has its facts: %o', (reason, sentence) => {
    expect(photoReason({ reason })).toBe(sentence);
  });

  it.each<[FileFinding['reason'], string]>([
    [{ code: 'closed-area', area: null }, 'It was taken in a closed area.'],
    [{ code: 'closed-area', area: 'Reed Bay' }, 'It was taken in a closed area, Reed Bay.'],
    [{ code: 'outside-waters', awayM: 1360 }, 'It was taken 1.4 km outside the event’s waters.'],
    [{ code: 'after-claim', byMs: 95_000 }, 'The file says it was taken 95 s after it was claimed.'],
    [
      { code: 'may-be-resaved', signs: [{ code: 'no-camera' }, { code: 'program-tables', quality: 75 }] },
      'The file may have been stored again: no camera has signed it; its tables are a program’s, quality 75.',
    ],
  ])('of a file has its facts: %o', (reason, sentence) => {
    expect(fileReason({ reason })).toBe(sentence);
  });

  it.each<[CustodyFinding['reason'], string]>([
    [
      { code: 'clock-set', byMs: -600_000 },
      'The device’s clock was set back by 10 min since the capture before.',
    ],
    [{ code: 'clock-off', byMs: 90_000 }, 'The device’s clock runs 90 s ahead of the server’s.'],
    [{ code: 'clock-off', byMs: -90_000 }, 'The device’s clock runs 90 s behind the server’s.'],
    [{ code: 'file-in-others', catches: 1 }, 'The very same file stands in another catch.'],
    [{ code: 'file-in-others', catches: 3 }, 'The very same file stands in 3 other catches.'],
    [
      { code: 'claimed-otherwise', differences: ['length', 'photograph'] },
      'The claim differs from what was announced ahead of it: another length, another photograph.',
    ],
    [
      { code: 'first-heard', afterCaptureMs: null, wholeAfterMs: 400 },
      'The server first heard of it with its claim; its photographs came with that.',
    ],
    [
      { code: 'first-heard', afterCaptureMs: 20_000, wholeAfterMs: 7_500_000 },
      'The server first heard of it 20 s after the capture; its photographs were complete 2 h 5 min later.',
    ],
  ])('of the way here has its facts: %o', (reason, sentence) => {
    expect(custodyReason({ reason })).toBe(sentence);
  });

  it('of two fish says how much of their patterns agrees', () => {
    expect(likenessReason({ reason: { code: 'same', alike: 0.914, agreeing: 0.8 } })).toBe(
      'The lengths agree, the patterns are 91 % alike, and 80 % of their places agree.',
    );
  });
});
