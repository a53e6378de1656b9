export { openCodeReader } from './codeReader.ts';
