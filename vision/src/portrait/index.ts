export { PORTRAIT_PLACE } from './findPortraitFish.ts';
export {
  PORTRAIT_HINTS,
  lookPortrait,
  type PortraitFinding,
  type PortraitHint,
  type PortraitLook,
} from './lookPortrait.ts';
