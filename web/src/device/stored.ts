import { useSyncExternalStore } from 'react';

/** A small thing that this device remembers, with how it is read: what does not fit is what it was before. */
export interface Preference<T> {
  key: `lauta-${string}`;
  parse: (text: string | null) => T;
  /** JSON where it is left out. */
  format?: (value: T) => string;
}

/** What a browser that refuses to store was given: it holds as long as the page lives. */
const unstored = new Map<string, string | null>();

const listeners = new Set<() => void>();
const known = new Map<string, { text: string | null; value: unknown }>();

function listen(onChange: () => void): () => void {
  listeners.add(onChange);
  window.addEventListener('storage', onChange);
  return () => {
    listeners.delete(onChange);
    window.removeEventListener('storage', onChange);
  };
}

function textOf(key: string): string | null {
  const held = unstored.get(key);
  if (held !== undefined) return held;
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}

function keep(key: string, text: string | null): void {
  unstored.delete(key);
  try {
    if (text === null) localStorage.removeItem(key);
    else localStorage.setItem(key, text);
  } catch {
    // Private windows and full disks refuse; the page goes on with it all the same.
    unstored.set(key, text);
  }
  for (const tell of listeners) tell();
}

/** What this device keeps: the same object as long as the same text is stored. */
export function readStored<T>({ key, parse }: Preference<T>): T {
  const text = textOf(key);
  const former = known.get(key);
  if (former?.text === text) return former.value as T;
  const value = parse(text);
  known.set(key, { text, value });
  return value;
}

/** Keeps a value, and tells all who show it, in other tabs as well. */
export function writeStored<T>({ key, format = JSON.stringify }: Preference<T>, value: T): void {
  keep(key, format(value));
}

export function forgetStored({ key }: Pick<Preference<unknown>, 'key'>): void {
  keep(key, null);
}

export function useStored<T>(preference: Preference<T>): T {
  return useSyncExternalStore(listen, () => readStored(preference));
}

/** How a preference that is a text of its own is kept: as it is. */
export const AS_TEXT = {
  parse: (text: string | null): string => text ?? '',
  format: (text: string): string => text,
};

/** The JSON of a text; null where it is none. */
export function jsonOf(text: string | null): unknown {
  try {
    return JSON.parse(text ?? 'null');
  } catch {
    return null;
  }
}
