import { describe, expect, it } from 'vitest';
import { parseCameraChoices } from './cameraChoices.ts';
import { cameraTrouble, sortLenses } from './liveSource.ts';
import { shotNotes } from './shotNotes.ts';
import { tiltOf } from './tilt.ts';

const lens = (label: string, kind: MediaDeviceKind = 'videoinput') => ({ kind, deviceId: label, label });

describe('lenses', () => {
  it('that look backwards are offered, the wide one first, the long ones last', () => {
    const found = sortLenses([
      lens('Front camera'),
      lens('Back Telephoto Camera'),
      lens('Back Camera'),
      lens('Back Ultra Wide Camera'),
      lens('Back Wide Camera'),
      lens('microphone', 'audioinput'),
    ]);
    expect(found.map(({ label }) => label)).toEqual([
      'Back Wide Camera',
      'Back Ultra Wide Camera',
      'Back Camera',
      'Back Telephoto Camera',
    ]);
  });

  it('without a wide one are offered as they are, one without a name too', () => {
    expect(sortLenses([lens('camera2 0, facing back'), lens('')]).map(({ label }) => label)).toEqual([
      'camera2 0, facing back',
      'camera',
    ]);
    expect(sortLenses([])).toEqual([]);
  });
});

describe('a camera that does not open', () => {
  // Names of the exceptions: W3C Media Capture and Streams, getUserMedia.
  it.each([
    ['NotAllowedError', 'refused'],
    ['NotFoundError', 'absent'],
    ['OverconstrainedError', 'absent'],
    ['NotReadableError', 'busy'],
    ['AbortError', 'busy'],
  ])('with %s is %s', (name, trouble) => {
    expect(cameraTrouble(new DOMException('', name))).toBe(trouble);
  });
});

describe('the device’s tilt', () => {
  it.each([
    [0, 0, 0],
    [10, 0, 10],
    [0, -15, 15],
    // A cube's corner: cos t = cos 45° · cos 45°.
    [45, 45, 60],
    [90, 0, 90],
  ])('of %i° and %i° about its axes is %i° off straight down', (beta, gamma, tilt) => {
    expect(tiltOf(beta, gamma)).toBeCloseTo(tilt, 9);
  });
});

describe('what is written into a photograph', () => {
  it('is the wall time of the place with its offset, and the instant in UTC', () => {
    const notes = shotNotes(Date.parse('2026-06-14T22:30:05Z'), 'Europe/Warsaw', {
      focal35Mm: null,
      device: 'in-page camera',
      position: null,
    });
    // Summer time: two hours ahead of UTC, over midnight.
    expect(notes).toMatchObject({
      takenLocal: '2026:06:15 00:30:05',
      offset: '+02:00',
      takenUtc: { date: '2026:06:14', hour: 22, minute: 30, second: 5 },
    });
  });
});

describe('how the shutter is worked', () => {
  it('is remembered as far as it fits', () => {
    expect(parseCameraChoices('{"shutter":"10","opens":"device","lensId":"x"}')).toEqual({
      shutter: '10',
      opens: 'device',
      lensId: 'x',
    });
    for (const text of [null, '{', '7', '{"shutter":"7","opens":"drone","lensId":4}'])
      expect(parseCameraChoices(text)).toEqual({ shutter: 'self', opens: null, lensId: null });
  });
});
