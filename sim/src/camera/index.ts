export { rollDice, seedFor, type Dice } from './dice.ts';
export { FISH_LOOKS, skinLuma, type Fish } from './fish.ts';
export { drawBoardKind } from './boardKind.ts';
export { RENDERER_VERSION, renderScene, type PhotoTruth, type RenderedPhoto } from './render.ts';
export { drawEmptyBoard, drawRangedScene, type RangeWish } from './range.ts';
export type { RangedScene } from './rangedScene.ts';
export { drawScene, projectPoint, type Camera, type Scene, type SceneWish } from './scene.ts';
export { PHOTO_FAULTS, type PhotoFault } from './photoFault.ts';
export { withFault } from './faults.ts';
