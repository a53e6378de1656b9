import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { readStored, writeStored } from './stored.ts';

/** A browser's store as far as it is used. */
function fakeStore(): Pick<Storage, 'getItem' | 'setItem'> {
  const held = new Map<string, string>();
  return { getItem: (key) => held.get(key) ?? null, setItem: (key, value) => void held.set(key, value) };
}
const parse = (text: string | null): { count: number } =>
  JSON.parse(text ?? '{"count":0}') as { count: number };

describe('what a device keeps', () => {
  beforeEach(() => vi.stubGlobal('localStorage', fakeStore()));
  afterEach(() => vi.unstubAllGlobals());

  it('comes back as it was written, and as nothing before', () => {
    expect(readStored('a', parse)).toEqual({ count: 0 });
    writeStored('a', { count: 3 });
    expect(readStored('a', parse)).toEqual({ count: 3 });
  });

  it('is the same object until it changes: a page must not think that it is new', () => {
    writeStored('b', { count: 1 });
    const first = readStored('b', parse);
    expect(readStored('b', parse)).toBe(first);
    writeStored('b', { count: 2 });
    expect(readStored('b', parse)).not.toBe(first);
  });

  it('is kept apart by its key', () => {
    writeStored('c', { count: 5 });
    expect(readStored('d', parse)).toEqual({ count: 0 });
  });
});
