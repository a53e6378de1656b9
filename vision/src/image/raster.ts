/** An 8-bit RGBA picture. */
export interface Raster {
  widthPx: number;
  heightPx: number;
  data: Uint8ClampedArray;
}
