import fc from 'fast-check';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { jpegStructure, jpegTrouble } from '../index.ts';

const picture = (widthPx: number, heightPx: number, progressive: boolean) =>
  sharp({ create: { width: widthPx, height: heightPx, channels: 3, background: '#876' } })
    .jpeg({ progressive })
    .toBuffer();

describe('how a JPEG is built', () => {
  // Against another writer (libvips with libjpeg-turbo), whose simplest progression has ten scans (jcparam.c).
  it.each([
    ['baseline', false, 1],
    ['progressive', true, 10],
  ] as const)('%s: its size and number of scans', async (coding, progressive, scans) => {
    const found = jpegStructure(await picture(320, 240, progressive));
    expect(found).toMatchObject({ coding, widthPx: 320, heightPx: 240, scans });
    expect(found && jpegTrouble(found)).toBeNull();
  });

  it('is read past stuffed bytes and restarts, which end no scan', async () => {
    const noisy = await sharp({ create: { width: 300, height: 300, channels: 3, background: '#888', noise: { type: 'gaussian', mean: 128, sigma: 60 } } }).jpeg({ quality: 100 }).toBuffer(); // prettier-ignore
    expect(noisy.includes(Buffer.from([0xff, 0x00]))).toBe(true);
    expect(jpegStructure(noisy)).toMatchObject({ scans: 1 });
  });

  it('is nothing where markers do not follow one another, and never throws', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), (bytes) => {
        const found = jpegStructure(Uint8Array.from([0xff, 0xd8, ...bytes]));
        if (found) jpegTrouble(found);
      }),
    );
    expect(jpegStructure(new Uint8Array([0xff, 0xd8, 0x12, 0x34, 0, 9]))).toBeNull();
  });
});

describe('what is not decoded at all', () => {
  const fair = {
    coding: 'progressive',
    widthPx: 4000,
    heightPx: 3000,
    scans: 10,
    codedBytes: 2e6,
  } as const;

  it.each([
    ['a photograph of a telephone', fair, null],
    ['100 small scans', { ...fair, widthPx: 100, heightPx: 100, scans: 100 }, null],
    ['101 scans', { ...fair, widthPx: 100, heightPx: 100, scans: 101 }, 'too-complex'],
    ['scans over more pixels than the budget', { ...fair, scans: 67 }, 'too-complex'],
    ['arithmetic coding', { ...fair, coding: 'other' }, 'too-complex'],
    ['no scan', { ...fair, scans: 0, codedBytes: 0 }, 'broken'],
    ['fewer bits than blocks', { ...fair, coding: 'baseline', scans: 1, codedBytes: 46_874 }, 'broken'],
    ['just as many bits', { ...fair, coding: 'baseline', scans: 1, codedBytes: 46_875 }, null],
  ] as const)('%s', (_what, structure, trouble) => {
    expect(jpegTrouble(structure)).toBe(trouble);
  });
});
