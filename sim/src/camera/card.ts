import QRCode from 'qrcode';
import { formatPayload, type Identifier } from '@lauta/core/identifier';
import { Texture } from './paint.ts';

/** ID-1, as the card of the day is. */
export const CARD_MM = { width: 85.6, height: 54 } as const;

/** The identifier card: QR (ISO/IEC 18004, level Q) 40 mm square with its quiet zone at the left, the code in letters at the right. */
export function paintCard(identifier: Identifier, isHandwritten = false): Texture {
  const texture = new Texture(CARD_MM.width, CARD_MM.height, 6);
  texture.fill(() => [243, 242, 236]);
  if (isHandwritten) {
    texture.text(identifier.code, 8, 36, 21, [30, 34, 70], 70);
    return texture;
  }
  const { modules } = QRCode.create(formatPayload(identifier), { errorCorrectionLevel: 'Q' });
  const quiet = 4;
  const moduleMm = 40 / (modules.size + 2 * quiet);
  const ink = [24, 25, 28] as const;
  for (let row = 0; row < modules.size; row++) {
    for (let column = 0; column < modules.size; column++) {
      if (!modules.get(row, column)) continue;
      const x = 7 + (column + quiet) * moduleMm;
      const y = 7 + (row + quiet) * moduleMm;
      texture.rect(x, y, x + moduleMm, y + moduleMm, ink);
    }
  }
  texture.text(identifier.code, 49, 27, 12, ink, 33);
  texture.text(String(identifier.entrantNumber), 49, 41, 6, ink);
  return texture;
}
