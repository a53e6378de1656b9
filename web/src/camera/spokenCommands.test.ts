import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { commandOf, recordedEar } from './spokenCommands.ts';

describe('a spoken command', () => {
  it.each([
    ['Fish on!', 'hooked'],
    ['in  the net', 'netted'],
    ['Lift.', 'lifted'],
    ['picture', 'photograph'],
    ['Back in the water', 'returned'],
    ['gone', 'released'],
    ['undo', 'undo'],
  ])('“%s” is %s', (heard, command) => {
    expect(commandOf(heard)).toBe(command);
  });

  it.each(['shall I lift it now', 'the picture was fine', '', 'lost'])('“%s” is none', (heard) => {
    expect(commandOf(heard)).toBeNull();
  });
});

describe('the recorded stand-in of an ear', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it('says each word after its time, and nothing once it was stopped', () => {
    const heard: string[] = [];
    const stop = recordedEar([
      { afterMs: 100, words: 'fish on' },
      { afterMs: 900, words: 'netted' },
      { afterMs: 2000, words: 'lift' },
    ]).listen((words) => heard.push(words));
    vi.advanceTimersByTime(1000);
    expect(heard).toEqual(['fish on', 'netted']);
    stop();
    vi.advanceTimersByTime(5000);
    expect(heard).toHaveLength(2);
  });
});
