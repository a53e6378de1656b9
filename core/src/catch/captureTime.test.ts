import { NO_EXIF } from '../file-evidence/index.ts';
import { describe, expect, it } from 'vitest';
import { captureTime } from './captureTime.ts';

const chosenAt = '2026-06-14T10:00:00.000Z';
const zone = 'Europe/Warsaw';

describe('the time of a capture', () => {
  it('is the file’s own instant when its offset is stored', () => {
    const exif = { ...NO_EXIF, takenAtLocal: '2026-06-14T09:00:00', offset: '+01:00', takenAt: '2026-06-14T08:00:00.000Z' }; // prettier-ignore
    expect(captureTime(exif, chosenAt, zone)).toEqual({
      at: '2026-06-14T08:00:00.000Z',
      source: 'photograph',
    });
  });

  it('is taken in the event’s zone when the file tells no offset', () => {
    const exif = { ...NO_EXIF, takenAtLocal: '2026-06-14T09:00:00' };
    expect(captureTime(exif, chosenAt, zone)).toEqual({
      at: '2026-06-14T07:00:00.000Z',
      source: 'photograph',
    });
  });

  it('is the moment of choosing when the file tells nothing, or a time that night never had', () => {
    expect(captureTime(NO_EXIF, chosenAt, zone)).toEqual({ at: chosenAt, source: 'device' });
    const skipped = { ...NO_EXIF, takenAtLocal: '2026-03-29T02:30:00' };
    expect(captureTime(skipped, chosenAt, zone)).toEqual({ at: chosenAt, source: 'device' });
  });
});
