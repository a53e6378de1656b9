import type { LiveAdvice, LiveOptions, LiveSight } from '@lauta/core/live';
import type { PortraitLook } from '@lauta/core/portrait';
import type { MeasuringBoard } from '@lauta/core/photo';

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
