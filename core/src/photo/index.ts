export {
  analysePhoto,
  analysisSteps,
  runAnalysis,
  type AnalysisOptions,
  type AnalysisRun,
  type AnalysisStage,
  type AnalysisStep,
  type AnalysisTrouble,
  type BoardFound,
  type IdentifierRead,
  type PhotoAnalysis,
} from './analyse.ts';
export {
  BENCH_CHECKS,
  VERDICTS,
  type BenchCheck,
  type Finding,
  type FindingMeasure,
  type FindingVerdict,
} from './findings.ts';
export { compareMerit, frameMerit, rankFrames, type FrameMerit } from './choose/rankFrames.ts';
export type { CodeReader, CodeSeen } from './identifier-search/codeSeen.ts';
export { isTurned, toStoredPx, toUprightPx, uprightRaster } from './orientation.ts';
export {
  SHIPPED_BOARDS,
  boardLines,
  boardNumerals,
  faceCornersMm,
  faceLengthMm,
  findBoard,
  mmPerUnit,
  type BoardLine,
  type BoardNumeral,
  type LineFamily,
  type MeasuringBoard,
} from './board.ts';
export { boardMap, type BoardLens, type BoardMap } from './boardMap.ts';
export { TAIL_HEIGHT_MM, trueLengthMm } from './tailHeight.ts';
export { cameraPose, focalPxFrom35mm, type CameraPose } from './camera.ts';
export { analysedSize } from './analysedSize.ts';
export { scaleAnalysis } from './scaleAnalysis.ts';
export { seededDice } from './dice.ts';
export { jpegStructure, jpegTrouble, type JpegStructure, type JpegTrouble } from './jpegStructure.ts';
export { NO_EXIF, isJpeg, readExif, type PhotoExif } from './exif.ts';
export {
  checkQuad,
  fitHomography,
  invertHomography,
  mapPoint,
  type Homography,
  type QuadRefusal,
  type Result,
} from './homography.ts';
export {
  boardPointOf,
  cameraPlaceMm,
  lensTiltDeg,
  projectBoardPoint,
  undistortPx,
  type LensPose,
} from './lens.ts';
export { crossingsAt, glyphOf, textWidthMm, type Glyph } from './lettering.ts';
export { scalePx, turn, type Point, type Quad } from './point.ts';
export {
  BENCH_CORNER_SIGMA_PX,
  HAND_SIGMA_PX,
  MARK_NAMES,
  readBoard,
  readingOf,
  type BenchNotes,
  type MarkName,
  type StoredBoardReading,
  type BoardMarks,
  type BoardReading,
  type ErrorShare,
  type ReadingOptions,
  type ReadingRefusal,
} from './reading.ts';
export { rectifyStrip, stripFrame, type Raster, type StripFrame } from './rectify.ts';
export {
  learnBoard,
  type LearnResult,
  type LearnTrouble,
  type LearnWish,
  type Learning,
  type LearntBoard,
} from './board-learning/learnBoard.ts';
export { isSameKind } from './board-learning/sameKind.ts';
export type { MarkedLine } from './board-learning/markedLines.ts';
