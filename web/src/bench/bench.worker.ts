import { imageSize } from 'image-size';
import zxingWasm from 'zxing-wasm/reader/zxing_reader.wasm?url';
import { PHOTOGRAPH_LIMITS } from '@lauta/contract';
import { openCodeReader } from '@lauta/vision/codes';
import { hashHex } from '@lauta/core/ledger';
import {
  analysedSize,
  analysisSteps,
  checkQuad,
  isJpeg,
  learnBoard,
  scaledLines,
  mapQuad,
  readBoard,
  readExif,
  rectifyStrip,
  runAnalysis,
  scaleAnalysis,
  scalePx,
  type AnalysisStage,
  type CodeReader,
  type Point,
  type Raster,
} from '@lauta/vision';
import { ownPort, serveCalls } from '../workers/calls.ts';
import type { BenchCalls, OpenedPhoto, PhotoRefusal } from './benchCalls.ts';

/** What takes longer is called not readable, ms: several times what a slow phone needs. */
const ANALYSIS_LIMIT_MS = 20_000;
/** Shares of the work at which the stages begin (measured, docs/measured.md). */
const BEGINS: Record<AnalysisStage, number> = {
  prepare: 0.02,
  board: 0.2,
  fish: 0.55,
  identifier: 0.75,
  checks: 0.9,
  done: 1,
};

/** JPEG's EOI marker (ITU-T T.81, B.2.1). */
const END_OF_IMAGE = new Uint8Array([0xff, 0xd9]);

let reader: Promise<CodeReader> | null = null;

/** The decoder of codes, fetched once from the application itself; without it codes stay unread, all else goes on. */
function openedReader(): Promise<CodeReader> {
  reader ??= fetch(zxingWasm)
    .then((response) => response.arrayBuffer())
    .then(openCodeReader)
    .catch((): CodeReader => {
      reader = null;
      return () => Promise.resolve([]);
    });
  return reader;
}

let working: { raster: Raster; scale: number } | null = null;

serveCalls<BenchCalls>(ownPort(), {
  async open({ photo }) {
    working = null;
    if (photo.size === 0) return refused('file-empty');
    if (photo.size > PHOTOGRAPH_LIMITS.maxBytes) return refused('picture-too-large');
    const bytes = new Uint8Array(await photo.arrayBuffer());
    const size = sizeOf(bytes);
    if (!size) return refused(isJpeg(bytes) ? 'picture-broken' : 'not-a-jpeg');
    const { maxSidePx, maxPixels, minSidePx } = PHOTOGRAPH_LIMITS;
    if (Math.max(size.widthPx, size.heightPx) > maxSidePx || size.widthPx * size.heightPx > maxPixels) {
      return refused('picture-too-large');
    }
    if (Math.min(size.widthPx, size.heightPx) < minSidePx) return refused('picture-too-small');
    let isTruncated = false;
    try {
      working = await decode(photo, size);
    } catch {
      try {
        // A decoder takes a file that breaks off for one that is still coming, unless it is told that this is the end.
        working = await decode(new Blob([photo, END_OF_IMAGE], { type: 'image/jpeg' }), size);
        isTruncated = true;
      } catch {
        return refused('picture-broken');
      }
    }
    return { ok: true, value: { ...size, sha256: hashHex(bytes), exif: await readExif(bytes), isTruncated } };
  },

  async analyse({ board, others, approved, expected, photo, near }, signal, tell) {
    if (!working) return null;
    const { raster, scale } = working;
    const begun = performance.now();
    const steps = analysisSteps(raster, board, {
      focal35Mm: photo.exif.focal35Mm,
      otherBoards: others,
      approved,
      expected,
      isOver: () => performance.now() - begun > ANALYSIS_LIMIT_MS,
      ...(near ? { near: mapQuad(near, (corner) => scalePx(corner, scale)) } : {}),
    });
    const analysis = await runAnalysis(steps, await openedReader(), async (stage) => {
      tell(BEGINS[stage]);
      // A turn of the event loop, so that a cancellation is heard.
      await new Promise((resolve) => setTimeout(resolve, 0));
      signal.throwIfAborted();
    });
    return scaleAnalysis(analysis, 1 / scale);
  },

  read({ board, marks, bench, photo }) {
    const { widthPx, heightPx, exif } = photo;
    return readBoard(board, marks, { widthPx, heightPx, focal35Mm: exif.focal35Mm, bench });
  },

  async strip({ board, corners, lens, frame }) {
    if (!working || !checkQuad(corners).ok) return null;
    const { raster, scale } = working;
    const scaled = mapQuad(corners, (corner) => scalePx(corner, scale));
    const bent = lens && { ...lens, focalPx: lens.focalPx * scale };
    const strip = rectifyStrip(raster, board, scaled, frame, bent);
    const pixels = new Uint8ClampedArray(strip.data);
    return { picture: await createImageBitmap(new ImageData(pixels, strip.widthPx, strip.heightPx)) };
  },

  async learn({ wish }, signal, tell) {
    if (!working) return null;
    const { raster, scale } = working;
    const steps = learnBoard(raster, { ...wish, lines: scaledLines(wish.lines, scale) });
    let step = steps.next();
    for (let done = 0; !step.done; done++) {
      tell(1 - 0.9 ** done);
      await new Promise((resolve) => setTimeout(resolve, 0));
      signal.throwIfAborted();
      step = steps.next();
    }
    const result = step.value;
    if (!result.ok) return result;
    const grown = (point: Point): Point => scalePx(point, 1 / scale);
    const { corners, drawn } = result.value;
    return {
      ok: true,
      value: {
        ...result.value,
        corners: mapQuad(corners, grown),
        drawn: drawn.map(([from, to]) => [grown(from), grown(to)]),
      },
    };
  },
});

function refused(code: PhotoRefusal): { ok: false; code: PhotoRefusal } {
  return { ok: false, code };
}

/** Size of the upright picture, from the file's header alone; null for what is no JPEG. */
function sizeOf(bytes: Uint8Array): Pick<OpenedPhoto, 'widthPx' | 'heightPx'> | null {
  if (!isJpeg(bytes)) return null;
  try {
    const { width, height, orientation } = imageSize(bytes);
    return (orientation ?? 1) >= 5
      ? { widthPx: height, heightPx: width }
      : { widthPx: width, heightPx: height };
  } catch {
    return null;
  }
}

async function decode(photo: Blob, size: { widthPx: number; heightPx: number }): Promise<typeof working> {
  const { widthPx, heightPx } = analysedSize(size.widthPx, size.heightPx);
  const scale = widthPx / size.widthPx;
  const bitmap = await createImageBitmap(photo, {
    imageOrientation: 'from-image',
    // The server reads the stored values as well.
    colorSpaceConversion: 'none',
    ...(scale < 1 ? { resizeWidth: widthPx, resizeHeight: heightPx, resizeQuality: 'high' } : {}),
  });
  const context = new OffscreenCanvas(widthPx, heightPx).getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('canvas: expected a 2d context');
  context.drawImage(bitmap, 0, 0, widthPx, heightPx);
  bitmap.close();
  const { data } = context.getImageData(0, 0, widthPx, heightPx);
  return { raster: { widthPx, heightPx, data }, scale };
}
