/** Larger pictures are taken down to a half, a third, … before they are held in memory: 16 Mpx are 64 MB. */
const MOST_PX = 16_800_000;

/** The size at which a picture is decoded for its analysis: whole fractions of its own. */
export function analysedSize(widthPx: number, heightPx: number): { widthPx: number; heightPx: number } {
  const by = Math.max(1, Math.ceil(Math.sqrt((widthPx * heightPx) / MOST_PX)));
  return { widthPx: Math.max(1, Math.round(widthPx / by)), heightPx: Math.max(1, Math.round(heightPx / by)) };
}
