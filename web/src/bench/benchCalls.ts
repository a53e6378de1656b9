import type { PhotoExif } from '@lauta/core/file-evidence';
import type { Result } from '@lauta/core/result';
import type {
  BenchNotes,
  BoardLens,
  BoardMarks,
  BoardReading,
  LearnResult,
  LearnWish,
  MeasuringBoard,
  PhotoAnalysis,
  Quad,
  ReadingRefusal,
  StripFrame,
} from '@lauta/vision';
import type { Identifier } from '@lauta/core/identifier';

/** Why a chosen file can't be used; the same ids as the server's. */
export type PhotoRefusal =
  'file-empty' | 'not-a-jpeg' | 'picture-broken' | 'picture-too-large' | 'picture-too-small';

export interface OpenedPhoto {
  /** Of the upright picture, after EXIF rotation. */
  widthPx: number;
  heightPx: number;
  sha256: string;
  exif: PhotoExif;
  /** The file breaks off: what there is was decoded, the rest is grey. */
  isTruncated: boolean;
}

export interface BenchCalls {
  /** Checks a file by its content, hashes it, and keeps it decoded for the strips. */
  open: { params: { photo: Blob }; result: Result<OpenedPhoto, PhotoRefusal> };
  /**
   * Finds board and fish by itself in the photograph that is open; told which share is done. Null when none is open.
   * `near` are corners that a person set roughly.
   */
  analyse: {
    params: {
      board: MeasuringBoard;
      /** What the board may be instead. */
      others: readonly MeasuringBoard[];
      approved: readonly string[];
      /** The entrant's card of the day, as far as the page knows it. */
      expected: Identifier | null;
      photo: OpenedPhoto;
      near: Quad | null;
    };
    result: PhotoAnalysis | null;
  };
  read: {
    params: { board: MeasuringBoard; marks: BoardMarks; bench: BenchNotes | null; photo: OpenedPhoto };
    result: Result<BoardReading, ReadingRefusal>;
  };
  /** The board seen straight from above; null before a photo is open, or for corners that make no board. */
  strip: {
    params: { board: MeasuringBoard; corners: Quad; lens: BoardLens | null; frame: StripFrame };
    result: { picture: ImageBitmap } | null;
  };
  /** Makes a profile of the empty board in the photograph that is open; null when none is open. */
  learn: { params: { wish: LearnWish }; result: LearnResult | null };
}
