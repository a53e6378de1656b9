import type { LiveAdvice, LiveOptions, LiveSight } from '@lauta/vision/live';
import type { PortraitLook } from '@lauta/vision/portrait';
import type { MeasuringBoard } from '@lauta/vision';

export interface LiveLook {
  frame: ImageBitmap;
  board: MeasuringBoard;
  options: LiveOptions;
}

export interface LiveCalls {
  /** Looks at one frame, and remembers where its board lay. Places are px of the frame. */
  look: { params: LiveLook; result: { sight: LiveSight | null; advice: LiveAdvice } };
  /** Looks at a frame as a portrait. */
  portrait: { params: { frame: ImageBitmap }; result: PortraitLook };
}
