import { useSyncExternalStore } from 'react';

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

/** What this device keeps under a key: the same object as long as the same text is stored. */
export function readStored<T>(key: string, parse: (text: string | null) => T): T {
  const text = localStorage.getItem(key);
  const former = known.get(key);
  if (former?.text === text) return former.value as T;
  const value = parse(text);
  known.set(key, { text, value });
  return value;
}

/** Keeps a value, and tells all who show it, in other tabs as well. */
export function writeStored(key: string, value: unknown): void {
  localStorage.setItem(key, JSON.stringify(value));
  for (const tell of listeners) tell();
}

export function useStored<T>(key: string, parse: (text: string | null) => T): T {
  return useSyncExternalStore(listen, () => readStored(key, parse));
}
