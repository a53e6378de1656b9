import { afterEach, describe, expect, it, vi } from 'vitest';
import { giveHint, tick } from './giveHint.ts';

const ALL = { tone: true, vibration: true, speech: true, advice: true };
/** Stands for the browser's utterance. */
function spoken(this: { text: string }, text: string): void {
  this.text = text;
}
afterEach(() => vi.unstubAllGlobals());

describe('a hint', () => {
  it('on a device with neither voice, buzz nor sound is passed over', () => {
    vi.stubGlobal('window', {});
    vi.stubGlobal('navigator', {});
    expect(() => giveHint(ALL, { beeps: 2, words: 'water now' })).not.toThrow();
    expect(() => tick(0.5)).not.toThrow();
  });

  it('is spoken over the one before, and buzzes once for each beep', () => {
    const speak = vi.fn();
    const cancel = vi.fn();
    const vibrate = vi.fn();
    vi.stubGlobal('window', { speechSynthesis: { speak, cancel } });
    vi.stubGlobal('navigator', { vibrate });
    vi.stubGlobal('SpeechSynthesisUtterance', spoken);
    giveHint(ALL, { beeps: 2, words: 'water now' });
    expect(vibrate).toHaveBeenCalledWith([120, 120, 120]);
    expect(cancel).toHaveBeenCalledBefore(speak);
    expect(speak.mock.calls[0]?.[0]).toMatchObject({ text: 'water now' });
  });

  it.each(['vibration', 'speech'] as const)('is silent by %s where that is off', (kind) => {
    const used: string[] = [];
    vi.stubGlobal('window', {
      speechSynthesis: { speak: () => used.push('speech'), cancel: () => undefined },
    });
    vi.stubGlobal('navigator', { vibrate: () => used.push('vibration') });
    vi.stubGlobal('SpeechSynthesisUtterance', spoken);
    giveHint({ tone: false, vibration: true, speech: true, advice: true, [kind]: false }, { beeps: 1, words: 'x' }); // prettier-ignore
    expect(used).not.toContain(kind);
  });
});
