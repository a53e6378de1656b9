/** What phones do to a picture before they store it. */
export interface Phone {
  /** Halos at edges: how much is added, 0 to 2. */
  sharpened: number;
  /** Noise smeared away, px of a median's window; 1 is none. */
  smearedPx: 1 | 3 | 5;
  /** Over 1 lightens the middle tones; 1 to 3. */
  gamma: number;
  /** Contrast about the middle, 1 is none. */
  contrast: number;
  /** Colour's strength, 1 is none. */
  colour: number;
  /** Stored once at this quality before it is stored again. */
  firstQuality: number | null;
}
