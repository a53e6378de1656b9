import QRCode from 'qrcode';
import { CARD_MM, formatPayload, moduleOnCard, type Identifier } from '@lauta/core/identifier';
import { textWidthMm } from '@lauta/vision';
import { Texture } from './rgb.ts';

/** The identifier card: QR (ISO/IEC 18004, level Q) 40 mm square with its quiet zone at the left, the code in letters at the right. */
export function paintCard(identifier: Identifier, isHandwritten = false): Texture {
  const texture = new Texture(CARD_MM.width, CARD_MM.height, 6);
  texture.fill(() => [243, 242, 236]);
  if (isHandwritten) {
    texture.text(identifier.code, 8, 36, 21, [30, 34, 70], narrowTo(70, identifier.code, 21));
    return texture;
  }
  const { modules } = QRCode.create(formatPayload(identifier), { errorCorrectionLevel: 'Q' });
  const ink = [24, 25, 28] as const;
  for (let row = 0; row < modules.size; row++) {
    for (let column = 0; column < modules.size; column++) {
      if (!modules.get(row, column)) continue;
      const { x, y, side } = moduleOnCard(column, row, modules.size);
      texture.rect(x, y, x + side, y + side, ink);
    }
  }
  const { code, entrant } = CARD_MM;
  texture.text(
    identifier.code,
    code.x,
    code.baseline,
    code.capHeight,
    ink,
    narrowTo(code.mostWide, identifier.code, code.capHeight),
  );
  texture.text(String(identifier.entrantNumber), entrant.x, entrant.baseline, entrant.capHeight, ink);
  return texture;
}

function narrowTo(mostMm: number, text: string, heightMm: number): { narrow: number } {
  return { narrow: Math.min(1, mostMm / textWidthMm(text, heightMm)) };
}
