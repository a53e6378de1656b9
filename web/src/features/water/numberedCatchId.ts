import { v5 as uuidv5 } from 'uuid';
import type { PairingId } from '@lauta/core/ids';

/**
 * The id of the so-manieth fish of a pairing (RFC 9562, 5.5: by name within the pairing's own id): two phones that
 * never hear of each other give the same fish the same id, and what they tell is put together by it.
 * @param number from 1
 */
export function numberedCatchId(pairingId: PairingId, number: number): string {
  return uuidv5(`fish ${number}`, pairingId);
}
