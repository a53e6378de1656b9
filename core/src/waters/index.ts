export {
  placeOnWaters,
  watersTrouble,
  type PlaceOnWaters,
  type WaterArea,
  type WatersTrouble,
} from './waters.ts';
