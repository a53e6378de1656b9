export {
  CLOCK_SLACK_MS,
  FASTEST_M_S,
  FILE_CHECKS,
  POSITION_SLACK_M,
  alikeGreys,
  fileFindings,
  type FileCheck,
  type FileFacts,
  type FileFinding,
  type FileReasons,
  type ResavedSign,
} from './findings.ts';
export { readJpegTables, standardQuality, type JpegTables } from './jpegTables.ts';
export { NO_EXIF, type PhotoExif } from './photoExif.ts';
