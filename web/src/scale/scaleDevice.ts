/** A scale that speaks the line protocol of `core/scale/protocol`, whatever carries the bytes. */
export interface ScaleDevice {
  /**
   * Opens it and tells each line. Rejects where a person chose none, or where it can't be opened.
   * @param gone told once when the device is pulled or its battery dies
   * @returns how to write a line to it, and how to let go of it
   */
  open: (onLine: (line: string) => void, gone: () => void) => Promise<OpenScale>;
}

export interface OpenScale {
  write: (line: string) => Promise<void>;
  close: () => void;
}
