export { lookLive, type LiveOptions, type LiveSight, type LiveTrack } from './lookLive.ts';
export {
  HOLD_FRAMES,
  LIVE_STEPS,
  OPEN_SHUTTER,
  adviseLive,
  afterFrame,
  type LiveAdvice,
  type LiveStep,
  type Shutter,
} from './liveAdvice.ts';
export { OUTLINE_SHARE, outlineInFrame } from './outlineInFrame.ts';
