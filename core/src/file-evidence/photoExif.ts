/** What a photograph's file tells of itself. */
export interface PhotoExif {
  /** Wall time `YYYY-MM-DDTHH:MM:SS` where the phone was, and the offset it stored beside it (`+hh:mm`). */
  takenAtLocal: string | null;
  offset: string | null;
  /** The instant, when the offset is known; RFC 3339, UTC. */
  takenAt: string | null;
  focal35Mm: number | null;
  /** 1 to 8, as CIPA DC-008 numbers them. */
  orientation: number | null;
  device: string | null;
  software: string | null;
  position: { latitude: number; longitude: number } | null;
}

export const NO_EXIF: PhotoExif = {
  takenAtLocal: null,
  offset: null,
  takenAt: null,
  focal35Mm: null,
  orientation: null,
  device: null,
  software: null,
  position: null,
};
