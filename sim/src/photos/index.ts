export { drawPhotos, type DrawOptions } from './drawPhotos.ts';
export { recordOf, type PhotoRecord } from './photoRecord.ts';
export { mixedFault } from './mix.ts';
export { galleryFish } from './gallery.ts';
