export { PORTRAIT_FAULTS, drawPortrait, type Portrait, type PortraitFault, type PortraitWish } from './drawPortrait.ts'; // prettier-ignore
