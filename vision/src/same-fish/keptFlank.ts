import { base64 } from '@scure/base';
import { describeFlank, type FlankDescriptor } from './describe.ts';
import type { Flank, FlankFrame } from './straighten.ts';

/** A flank as it is stored and sent: its pattern in base64, and where it lies in the photograph. */
export interface KeptFlank {
  pattern: string;
  frame: FlankFrame;
}

export function keepFlank(flank: Flank | null): KeptFlank | null {
  if (!flank) return null;
  const pattern = describeFlank(flank);
  return { pattern: base64.encode(new Uint8Array(pattern.buffer)), frame: flank.frame };
}

/** The pattern again. */
export function flankPattern(pattern: string): FlankDescriptor {
  return new Int8Array(base64.decode(pattern).buffer);
}
