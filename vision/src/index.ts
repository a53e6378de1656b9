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
} from './analyse/analyse.ts';
export { BENCH_CHECKS } from './checks/registry.ts';
export type { BenchCheck, BenchReasons, Finding, FindingMeasure } from './findings/findings.ts';
export { compareMerit, frameMerit, rankFrames, type FrameMerit } from './choose/rankFrames.ts';
export type { CodeReader, CodeSeen } from './find-card/codeSeen.ts';
export { isTurned, toStoredPx, toUprightPx, uprightRaster } from './camera/uprightPx.ts';
export {
  SHIPPED_BOARDS,
  boardLines,
  boardNumerals,
  faceCornersMm,
  faceLengthMm,
  findBoard,
  shippedBoard,
  mmPerUnit,
  type BoardLine,
  type BoardNumeral,
  type LineFamily,
  type MeasuringBoard,
} from './board/board.ts';
export { boardMap, type BoardLens, type BoardMap } from './board/boardMap.ts';
export { TAIL_HEIGHT_MM, trueLengthMm } from './find-fish/tailHeight.ts';
export { cameraPose, focalPxFrom35mm, type CameraPose } from './camera/camera.ts';
export { analysedSize } from './image/analysedSize.ts';
export { scaleAnalysis } from './analyse/scaleAnalysis.ts';
export { jpegStructure, jpegTrouble, type JpegStructure, type JpegTrouble } from './image/jpegStructure.ts';
export { isJpeg, readExif } from './exif/exif.ts';
export {
  checkQuad,
  fitHomography,
  invertHomography,
  mapPoint,
  type Homography,
  type QuadRefusal,
} from './camera/homography.ts';
export {
  boardPointOf,
  cameraPlaceMm,
  lensTiltDeg,
  projectBoardPoint,
  undistortPx,
  type LensPose,
} from './camera/lens.ts';
export { crossingsAt, glyphOf, textWidthMm, type Glyph } from './board/lettering.ts';
export { mapQuad, scalePx, turn, type Point, type Quad } from './geometry/point.ts';
export {
  BENCH_CORNER_SIGMA_PX,
  HAND_SIGMA_PX,
  MARK_NAMES,
  isTailFaint,
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
} from './analyse/reading.ts';
export { rectifyStrip, stripFrame, type StripFrame } from './board/rectify.ts';
export type { Raster } from './image/raster.ts';
export {
  learnBoard,
  scaledLines,
  type LearnResult,
  type LearnTrouble,
  type LearnWish,
  type Learning,
  type LearntBoard,
} from './learn-board/learnBoard.ts';
export { isSameKind } from './learn-board/sameKind.ts';
export type { MarkedLine } from './learn-board/markedLines.ts';
