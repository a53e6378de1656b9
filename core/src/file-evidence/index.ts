export {
  FILE_CHECKS,
  alikeGreys,
  distanceM,
  fileFindings,
  type FileCheck,
  type FileFacts,
  type FileFinding,
  type Position,
} from './findings.ts';
export { readJpegTables, standardQuality, type JpegTables } from './jpegTables.ts';
