import sharp from 'sharp';
import type { Raster } from '@lauta/vision';
import type { RangedScene } from '../camera/index.ts';

/** A picture as a phone stores it: JPEG, after whatever the phone makes of it. */
export async function developed(
  { widthPx, heightPx, data }: Raster,
  { jpegQuality, phone }: RangedScene,
): Promise<Buffer> {
  let picture = sharp(data, { raw: { width: widthPx, height: heightPx, channels: 4 } });
  if (phone) {
    if (phone.smearedPx > 1) picture = picture.removeAlpha().median(phone.smearedPx);
    picture = picture
      .modulate({ saturation: phone.colour })
      .linear(phone.contrast, 128 * (1 - phone.contrast));
    if (phone.gamma > 1) picture = picture.gamma(1, phone.gamma);
    if (phone.sharpened > 0)
      picture = picture.sharpen({ sigma: 1.2, m1: phone.sharpened, m2: phone.sharpened });
    if (phone.firstQuality !== null)
      picture = sharp(await picture.jpeg({ quality: phone.firstQuality }).toBuffer());
  }
  return picture.jpeg({ quality: jpegQuality }).toBuffer();
}
