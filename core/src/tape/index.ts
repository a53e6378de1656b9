export {
  TAPE_TOLERANCE_MM,
  readTape,
  type TapeMark,
  type TapeReading,
  type TapeRefusal,
} from './readTape.ts';
