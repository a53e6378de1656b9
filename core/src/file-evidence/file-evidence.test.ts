import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { distanceM } from '../evidence/index.ts';
import { NO_EXIF } from './photoExif.ts';
import {
  alikeGreys,
  fileFindings,
  readJpegTables,
  standardQuality,
  type FileCheck,
  type FileFacts,
} from './index.ts';

const picture = sharp({ create: { width: 64, height: 48, channels: 3, background: '#486' } });

describe('the tables of a JPEG', () => {
  it.each([40, 75, 92])('tell at which quality the free encoder stored it: %i', async (quality) => {
    const bytes = await picture.clone().jpeg({ quality, mozjpeg: false }).toBuffer();
    const tables = readJpegTables(bytes);
    expect(standardQuality(tables?.quantisation.get(0) ?? [])).toBe(quality);
    expect(tables?.startsWithJfif).toBe(false);
  });

  it('say whether a JFIF marker stands first (ITU-T T.871, 10.1)', async () => {
    const bytes = await picture.clone().jpeg().toBuffer();
    const jfif = [0xff, 0xe0, 0, 16, ...Buffer.from('JFIF\0'), 1, 1, 0, 0, 1, 0, 1, 0, 0];
    const marked = Buffer.concat([bytes.subarray(0, 2), Buffer.from(jfif), bytes.subarray(2)]);
    expect(readJpegTables(marked)?.startsWithJfif).toBe(true);
  });

  it('of a camera’s own are no quality of the standard’s', () => {
    expect(standardQuality(Array.from({ length: 64 }, (_, i) => 3 + (i % 5)))).toBeNull();
  });

  it('are not told of what is no JPEG, breaks off, or lies about a segment’s length', async () => {
    const bytes = await picture.clone().jpeg().toBuffer();
    expect(readJpegTables(Buffer.from('not a picture'))).toBeNull();
    expect(readJpegTables(bytes.subarray(0, 30))).toBeNull();
    const lying = Uint8Array.from(bytes);
    lying[4] = 0xff;
    lying[5] = 0xff;
    expect(readJpegTables(lying)).toBeNull();
    expect(readJpegTables(new Uint8Array())).toBeNull();
  });
});

const NOON = Date.parse('2026-06-14T10:00:00Z');
const GOOD: FileFacts = {
  exif: {
    ...NO_EXIF,
    takenAtLocal: '2026-06-14T11:58:00',
    offset: '+02:00',
    takenAt: '2026-06-14T09:58:00Z',
    device: 'simulated camera',
    position: { latitude: 51.05, longitude: 19.02 },
  },
  modifiedAtLocal: '2026-06-14T11:58:00',
  startsWithJfif: false,
  standardQuality: 90,
  thumbnailAlike: 0.99,
  thumbnailAspect: 4 / 3,
  pictureAspect: 4 / 3,
  sessions: [{ fromMs: NOON - 4 * 3_600_000, toMs: NOON + 3 * 3_600_000 }],
  receivedAtMs: NOON,
  madeAtMs: NOON - 5000,
  placeOn: ({ latitude }) =>
    Math.abs(latitude - 51.052) < 0.03
      ? { where: 'open', name: 'the mere', awayM: 0 }
      : { where: 'outside', name: null, awayM: 111_000 * Math.abs(latitude - 51.052) },
  former: { atMs: NOON - 3_600_000, position: { latitude: 51.06, longitude: 19.03 } },
};
const toneOf = (facts: FileFacts, check: FileCheck): string | undefined =>
  fileFindings(facts).find((one) => one.check === check)?.tone;

describe('findings of a file', () => {
  it('are all clear for one as a phone stores it', () => {
    expect(fileFindings(GOOD).map(({ check, tone }) => `${check} ${tone}`)).toEqual([
      'time-missing clear',
      'time-outside clear',
      'clock-off clear',
      'place-missing clear',
      'place-outside clear',
      'too-far-too-soon clear',
      'resaved clear',
    ]);
  });

  const cases: [string, Partial<FileFacts>, FileCheck, string][] = [
    ['no time', { exif: { ...GOOD.exif, takenAtLocal: null, takenAt: null } }, 'time-missing', 'look'],
    ['a time without its offset', { exif: { ...GOOD.exif, offset: null, takenAt: null } }, 'time-missing', 'look'],
    ['a time before the session', { exif: { ...GOOD.exif, takenAt: '2026-06-14T05:00:00Z' } }, 'time-outside', 'fault'],
    ['an absurd time', { exif: { ...GOOD.exif, takenAt: '1970-01-01T00:00:00Z' } }, 'time-outside', 'fault'],
    ['a time after the claim', { exif: { ...GOOD.exif, takenAt: '2026-06-14T10:30:00Z' } }, 'clock-off', 'fault'],
    ['a clock that runs half a minute fast', { exif: { ...GOOD.exif, takenAt: '2026-06-14T10:00:25Z' } }, 'clock-off', 'clear'],
    ['no position', { exif: { ...GOOD.exif, position: null } }, 'place-missing', 'look'],
    ['a position at the equator', { exif: { ...GOOD.exif, position: { latitude: 0, longitude: 0 } } }, 'place-outside', 'fault'],
    ['a closed bay', { placeOn: () => ({ where: 'closed', name: 'bay', awayM: 400 }) }, 'place-outside', 'fault'],
    ['another lake half an hour before', { former: { atMs: NOON - 1_800_000, position: { latitude: 52.5, longitude: 19 } } }, 'too-far-too-soon', 'fault'],
    ['the thumbnail of another picture', { thumbnailAlike: 0.2 }, 'resaved', 'fault'],
    ['a thumbnail of other proportions', { thumbnailAspect: 1.5 }, 'resaved', 'look'],
    ['a change after it was taken', { modifiedAtLocal: '2026-06-14T12:30:00' }, 'resaved', 'look'],
    ['no camera', { exif: { ...GOOD.exif, device: null }, startsWithJfif: true }, 'resaved', 'look'],
  ]; // prettier-ignore
  it.each(cases)('%s', (_, change, check, tone) => {
    expect(toneOf({ ...GOOD, ...change }, check)).toBe(tone);
  });

  it('say nothing of waters and ways that nobody has told', () => {
    const checks = fileFindings({ ...GOOD, placeOn: null, former: null }).map(({ check }) => check);
    expect(checks).not.toContain('place-outside');
    expect(checks).not.toContain('too-far-too-soon');
  });
});

describe('greys of thumbnail and picture', () => {
  it('are as alike as their correlation, whatever brightness and contrast', () => {
    const greys = [10, 80, 30, 200, 120, 60];
    expect(
      alikeGreys(
        greys,
        greys.map((value) => 0.5 * value + 40),
      ),
    ).toBeCloseTo(1, 12);
    expect(
      alikeGreys(
        greys,
        greys.map((value) => 255 - value),
      ),
    ).toBeCloseTo(-1, 12);
    expect(() => alikeGreys([1], [])).toThrow(RangeError);
  });
});

describe('distance on Earth', () => {
  it('is a sixtieth of a degree of latitude to the nautical mile, by a third of a per cent (ISO 80000-3: 1852 m)', () => {
    const mile = distanceM({ latitude: 51, longitude: 19 }, { latitude: 51 + 1 / 60, longitude: 19 });
    expect(Math.abs(mile / 1852 - 1)).toBeLessThan(0.003);
  });

  it('is half of Earth’s way round between antipodes, and nothing from a place to itself', () => {
    expect(distanceM({ latitude: 0, longitude: 0 }, { latitude: 0, longitude: 180 })).toBeCloseTo(
      Math.PI * 6_371_008.8,
      3,
    );
    expect(distanceM({ latitude: 51, longitude: 19 }, { latitude: 51, longitude: 19 })).toBe(0);
  });
});
