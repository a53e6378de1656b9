import { describe, expect, it } from 'vitest';
import { CARD_MM, moduleOnCard } from './index.ts';

// ISO/IEC 18004: a symbol of version v has 17 + 4 v modules a side and a quiet zone of four about it.
const MODULES = [1, 2, 3, 4, 5].map((version) => 17 + 4 * version);

describe('a QR code on the card', () => {
  it.each(MODULES)('of %i modules fills its square with four quiet ones about it', (across) => {
    const { qr } = CARD_MM;
    const first = moduleOnCard(0, 0, across);
    const last = moduleOnCard(across - 1, across - 1, across);
    expect(first.x - qr.x).toBeCloseTo(4 * first.side, 9);
    expect(first.y - qr.y).toBeCloseTo(4 * first.side, 9);
    expect(qr.x + qr.side - (last.x + last.side)).toBeCloseTo(4 * last.side, 9);
    expect(qr.y + qr.side - (last.y + last.side)).toBeCloseTo(4 * last.side, 9);
  });

  it('lies on the card with its letters beside it, 7 mm from three edges', () => {
    const { qr, code, entrant, width, height } = CARD_MM;
    expect(qr.x).toBe(7);
    expect(height - qr.y - qr.side).toBe(7);
    for (const text of [code, entrant]) {
      expect(text.x).toBeGreaterThanOrEqual(qr.x + qr.side);
      expect(text.baseline).toBeLessThan(height);
      expect(text.baseline - text.capHeight).toBeGreaterThan(0);
    }
    expect(code.x + code.mostWide).toBeLessThan(width);
    expect(code.capHeight).toBeGreaterThanOrEqual(12);
  });
});
