import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import { AS_TEXT, forgetStored, jsonOf, readStored, writeStored, type Preference } from './stored.ts';

/** A browser's store as far as it is used. */
function fakeStore(): Pick<Storage, 'getItem' | 'setItem' | 'removeItem'> {
  const held = new Map<string, string>();
  return {
    getItem: (key) => held.get(key) ?? null,
    setItem: (key, value) => void held.set(key, value),
    removeItem: (key) => void held.delete(key),
  };
}

const counted = (key: string): Preference<{ count: number }> => ({
  key: `lauta-${key}`,
  parse: (text) => z.object({ count: z.int() }).catch({ count: 0 }).parse(jsonOf(text)),
});

describe('what a device keeps', () => {
  beforeEach(() => vi.stubGlobal('localStorage', fakeStore()));
  afterEach(() => vi.unstubAllGlobals());

  it('comes back as it was written, and as nothing before', () => {
    expect(readStored(counted('a'))).toEqual({ count: 0 });
    writeStored(counted('a'), { count: 3 });
    expect(readStored(counted('a'))).toEqual({ count: 3 });
    forgetStored(counted('a'));
    expect(readStored(counted('a'))).toEqual({ count: 0 });
  });

  it('is the same object until it changes: a page must not think that it is new', () => {
    writeStored(counted('b'), { count: 1 });
    const first = readStored(counted('b'));
    expect(readStored(counted('b'))).toBe(first);
    writeStored(counted('b'), { count: 2 });
    expect(readStored(counted('b'))).not.toBe(first);
  });

  it('is kept apart by its key', () => {
    writeStored(counted('c'), { count: 5 });
    expect(readStored(counted('d'))).toEqual({ count: 0 });
  });

  it('that another version or another hand left broken is as nothing', () => {
    for (const text of ['nonsense', '7', '{"count":"x"}', '']) {
      localStorage.setItem('lauta-e', text);
      expect(readStored(counted('e')), text).toEqual({ count: 0 });
    }
  });

  it('is a text as it is where it was one before', () => {
    const offset: Preference<string> = { key: 'lauta-grip-offset', ...AS_TEXT };
    localStorage.setItem('lauta-grip-offset', '1 1/4');
    expect(readStored(offset)).toBe('1 1/4');
    writeStored(offset, '2');
    expect(localStorage.getItem('lauta-grip-offset')).toBe('2');
  });
});

describe('a browser that refuses to store', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('holds what it was given as long as the page lives, and stores again once it may', () => {
    const refuse = (): never => {
      throw new DOMException('refused', 'SecurityError');
    };
    vi.stubGlobal('localStorage', { getItem: refuse, setItem: refuse, removeItem: refuse });
    expect(readStored(counted('f'))).toEqual({ count: 0 });
    writeStored(counted('f'), { count: 4 });
    expect(readStored(counted('f'))).toEqual({ count: 4 });
    forgetStored(counted('f'));
    expect(readStored(counted('f'))).toEqual({ count: 0 });

    vi.stubGlobal('localStorage', fakeStore());
    writeStored(counted('f'), { count: 6 });
    expect(localStorage.getItem('lauta-f')).toBe('{"count":6}');
    expect(readStored(counted('f'))).toEqual({ count: 6 });
  });
});
