/**
 * The card that carries an identifier, mm from its upper left corner: ID-1 of ISO/IEC 7810 (85.60 × 53.98, rounded to
 * the 54 that a printer can keep), at the left a QR code of ISO/IEC 18004, level Q, with its quiet zone of four
 * modules, at the right the code in letters and the entrant's number.
 */
export const CARD_MM = {
  width: 85.6,
  height: 54,
  qr: { x: 7, y: 7, side: 40, quietModules: 4 },
  code: { x: 49, baseline: 27, capHeight: 12, mostWide: 33 },
  entrant: { x: 49, baseline: 41, capHeight: 6 },
} as const;

/** Where a QR code's module lies on the card, mm. */
export function moduleOnCard(
  column: number,
  row: number,
  modulesAcross: number,
): { x: number; y: number; side: number } {
  const { x, y, side, quietModules } = CARD_MM.qr;
  const each = side / (modulesAcross + 2 * quietModules);
  return { x: x + (column + quietModules) * each, y: y + (row + quietModules) * each, side: each };
}
