import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { openCodeReader } from '@lauta/vision/codes';
import type { CodeReader } from '@lauta/vision';

let opened: CodeReader | null = null;

/** Reads QR codes; the decoder is opened by the first that needs it. */
export const readCodes: CodeReader = (picture) => {
  opened ??= openCodeReader(wasmBytes());
  return opened(picture);
};

function wasmBytes(): ArrayBuffer {
  const bytes = readFileSync(fileURLToPath(import.meta.resolve('zxing-wasm/reader/zxing_reader.wasm')));
  return new Uint8Array(bytes).buffer;
}
