import { prepareZXingModule, readBarcodes, type ReaderOptions } from 'zxing-wasm/reader';
import type { CodeReader, CodeSeen, Point } from '../index.ts';

const OPTIONS: ReaderOptions = {
  formats: ['QRCode'],
  tryInvert: false,
  tryDownscale: false,
  maxNumberOfSymbols: 1,
};
/** Light on a card is even or falls off: each way of telling dark from light reads codes that the other does not. */
const BINARIZERS = ['LocalAverage', 'GlobalHistogram'] as const;

/**
 * Opens the decoder of QR codes (ISO/IEC 18004).
 * @param wasm the bytes of `zxing-wasm/reader/zxing_reader.wasm`, which ships with the application: given them the
 * package fetches nothing
 */
export function openCodeReader(wasm: ArrayBuffer): CodeReader {
  prepareZXingModule({ overrides: { wasmBinary: wasm } });
  return async ({ data, widthPx, heightPx }) => {
    for (const binarizer of BINARIZERS) {
      const picture = { data, width: widthPx, height: heightPx, colorSpace: 'srgb' };
      const found = await readBarcodes(picture as Parameters<typeof readBarcodes>[0], {
        ...OPTIONS,
        binarizer,
      });
      const [first] = found;
      if (!first?.isValid || first.text === '') continue;
      const { topLeft, topRight, bottomRight, bottomLeft } = first.position;
      const at = ({ x, y }: { x: number; y: number }): Point => [x, y];
      return [
        { text: first.text, corners: [at(topLeft), at(topRight), at(bottomRight), at(bottomLeft)] },
      ] satisfies CodeSeen[];
    }
    return [];
  };
}
