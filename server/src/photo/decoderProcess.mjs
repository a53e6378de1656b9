// A process of its own decodes what strangers send: it is ended when it takes too long, whatever it is at.
import sharp from 'sharp';

const SCREEN_SIDE_PX = 1600;
const THUMB_SIDE_PX = 320;

// One picture at a time: more threads would only take cores from requests.
sharp.concurrency(1);
sharp.cache(false);

/** Upright copies without metadata, from one decoding. */
async function makeCopies(/** @type {Uint8Array} */ bytes, /** @type {number} */ maxPixels) {
  const inside = { fit: /** @type {const} */ ('inside'), withoutEnlargement: true };
  // Without keepMetadata() sharp writes none; rotate() turns the picture upright first.
  const { data, info } = await sharp(bytes, { limitInputPixels: maxPixels, failOn: 'error' })
    .rotate()
    .resize(SCREEN_SIDE_PX, SCREEN_SIDE_PX, inside)
    .raw()
    .toBuffer({ resolveWithObject: true });
  const raw = { raw: { width: info.width, height: info.height, channels: info.channels } };
  const screen = await sharp(data, raw).jpeg({ quality: 82 }).toBuffer();
  const thumb = await sharp(data, raw)
    .resize(THUMB_SIDE_PX, THUMB_SIDE_PX, inside)
    .jpeg({ quality: 76 })
    .toBuffer();
  return { screen, thumb };
}

async function decode(/** @type {Uint8Array} */ bytes, /** @type {number} */ maxPixels) {
  const header = await sharp(bytes, { limitInputPixels: false }).metadata();
  if (header.format !== 'jpeg') throw new TypeError(`format: expected jpeg, got ${header.format}`);
  const isLying = (header.orientation ?? 1) >= 5;
  return { isLying, ...(await makeCopies(bytes, maxPixels)) };
}

process.on('message', (/** @type {{ bytes: Uint8Array, maxPixels: number }} */ { bytes, maxPixels }) => {
  decode(bytes, maxPixels).then(
    (copies) => process.send?.({ ok: true, ...copies }),
    () => process.send?.({ ok: false }),
  );
});
process.on('disconnect', () => process.exit(0));
