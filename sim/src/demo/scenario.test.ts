import { describe, expect, it } from 'vitest';
import { DEMO_ANGLERS, DEMO_EVENT, demoId, planDemo } from './index.ts';

describe('the demo’s day of fishing', () => {
  const catches = planDemo(90);

  it('is the same every time', () => {
    expect(planDemo(90)).toEqual(catches);
  });

  it('has 90 catches of 24 entrants, in the order of their capture, none of them in the future', () => {
    expect(catches).toHaveLength(90);
    expect(DEMO_ANGLERS).toHaveLength(24);
    expect(catches.map((one) => one.capturedAtMs)).toEqual(
      catches.map((one) => one.capturedAtMs).toSorted((a, b) => a - b),
    );
    for (const one of catches) {
      expect(one.receivedAtMs).toBeGreaterThan(one.capturedAtMs);
      expect(one.decision?.atMs ?? one.receivedAtMs).toBeLessThan(Date.parse(DEMO_EVENT.now));
    }
  });

  it('shows every kind of verdict and leaves work for the judge', () => {
    const kinds = new Set(catches.map((one) => one.decision?.kind ?? 'undecided'));
    expect(kinds).toEqual(new Set(['accepted', 'refused', 'sent-back', 'undecided']));
    const undecided = catches.filter((one) => one.decision === null).length;
    expect(undecided).toBeGreaterThanOrEqual(5);
    expect(undecided).toBeLessThanOrEqual(25);
  });

  it('leaves faulty photographs and fish that were claimed before among those that no judge has seen', () => {
    const open = catches.filter((one) => one.decision === null);
    expect(open.filter((one) => one.fault !== null).length).toBeGreaterThanOrEqual(3);
    const again = open.filter((one) => one.fishOf !== null);
    expect(again.length).toBeGreaterThanOrEqual(1);
    for (const one of again) {
      const former = catches.find(({ seed }) => seed === one.fishOf);
      expect([former?.speciesId, former?.lengthMm, former?.decision?.kind]).toEqual([
        one.speciesId,
        one.lengthMm,
        'accepted',
      ]);
    }
  });

  it('shows what the judge has found in the photographs that were decided', () => {
    for (const { decision, fault } of catches) {
      if (decision?.kind === 'accepted' || decision?.kind === 'refused')
        expect(fault).toBe(decision.infractions[0] ?? null);
    }
  });

  it('gives the demo’s angler catches to look at', () => {
    expect(catches.filter((one) => one.angler === 6).length).toBeGreaterThanOrEqual(5);
  });

  it('makes ids of version 7, variant 10, with the instant in front (RFC 9562, 5.7)', () => {
    const id = demoId('anything', Date.parse('2022-02-22T19:22:22Z'));
    expect(id).toMatch(/^017f22e2-79b0-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
    expect(demoId('anything', 1)).not.toBe(demoId('something', 1));
  });
});
