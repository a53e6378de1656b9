import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { LengthSheet } from '@lauta/core/rules';
import { recallChoices, rememberChoices } from './choices.ts';

const sheet = {
  boards: ['birch-30in', 'alder-24in'],
  species: [
    { id: 'largemouth-bass', name: 'Largemouth bass', minimumSteps: null, counts: true },
    { id: 'walleye', name: 'Walleye', minimumSteps: 60, counts: true },
  ],
} as unknown as LengthSheet;

describe('board and species as last time', () => {
  let kept: Map<string, string>;
  beforeEach(() => {
    kept = new Map();
    vi.stubGlobal('localStorage', {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value),
    });
  });
  afterEach(() => vi.unstubAllGlobals());

  it('are the sheet’s first at first', () => {
    expect(recallChoices(sheet)).toEqual({ boardId: 'birch-30in', speciesId: 'largemouth-bass' });
  });

  it('come back, each kept by itself', () => {
    rememberChoices({ boardId: 'alder-24in' });
    rememberChoices({ speciesId: 'walleye' });
    rememberChoices({});
    expect(recallChoices(sheet)).toEqual({ boardId: 'alder-24in', speciesId: 'walleye' });
  });

  it('give way where the sheet has them no more', () => {
    rememberChoices({ boardId: 'gone-20in', speciesId: 'sturgeon' });
    expect(recallChoices(sheet)).toEqual({ boardId: 'birch-30in', speciesId: 'largemouth-bass' });
  });

  it('are none of rubbish that somebody else has stored', () => {
    kept.set('lauta-last-choices', '{"boardId":');
    expect(recallChoices(sheet).boardId).toBe('birch-30in');
  });

  it('are empty where the sheet approves nothing', () => {
    expect(recallChoices({ ...sheet, boards: [], species: [] })).toEqual({ boardId: '', speciesId: '' });
  });
});
