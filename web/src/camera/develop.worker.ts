import { writeExif, type PhotoNotes } from '@lauta/vision/exif-writer';
import { ownPort, serveCalls } from '../workers/calls.ts';

const QUALITY = 0.92;

export interface DevelopCalls {
  /** A frame as a JPEG with its notes. */
  develop: { params: { frame: ImageBitmap; notes: PhotoNotes }; result: { jpeg: Blob } };
}

serveCalls<DevelopCalls>(ownPort(), {
  async develop({ frame, notes }) {
    const canvas = new OffscreenCanvas(frame.width, frame.height);
    const context = canvas.getContext('2d');
    if (!context) throw new Error('canvas: expected a 2d context');
    context.drawImage(frame, 0, 0);
    frame.close();
    const plain = await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY });
    const jpeg = writeExif(new Uint8Array(await plain.arrayBuffer()), notes);
    return { jpeg: new Blob([new Uint8Array(jpeg)], { type: 'image/jpeg' }) };
  },
});
