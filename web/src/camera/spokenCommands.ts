import { useEffect, useRef } from 'react';
import type { WaterStep } from '@lauta/core/care';
import { keysOf } from '@lauta/core/keys';

/** What can be said instead of a tap. */
export type Command = Exclude<WaterStep, 'lost'> | 'photograph' | 'undo';

/**
 * Words for each, more than one where people say it differently. A command must be the whole of what was heard: a
 * talk that mentions a lift lifts nothing.
 */
const WORDS: Record<Command, readonly string[]> = {
  hooked: ['fish on', 'hooked'],
  netted: ['in the net', 'netted'],
  lifted: ['lift', 'lifting'],
  photograph: ['photograph', 'picture', 'shoot'],
  returned: ['back in the water', 'back', 'water'],
  released: ['released', 'let go', 'gone'],
  undo: ['undo', 'no'],
};

/** The command that was heard; null for anything else. */
export function commandOf(heard: string): Command | null {
  const said = heard.trim().toLowerCase().replace(/[.!,]/g, '').replace(/\s+/g, ' ');
  return keysOf(WORDS).find((command) => WORDS[command].includes(said)) ?? null;
}

/** Something that listens: a recogniser on the device, or its stand-in. Returns how to stop it. */
export interface CommandEar {
  listen: (onHeard: (words: string) => void) => () => void;
}

/** The stand-in for a recogniser: says a list of words, each after its time. */
export function recordedEar(recording: readonly { afterMs: number; words: string }[]): CommandEar {
  return {
    listen(onHeard) {
      const timers = recording.map(({ afterMs, words }) => setTimeout(() => onHeard(words), afterMs));
      return () => timers.forEach(clearTimeout);
    },
  };
}

const heardCommands = new EventTarget();

/** Lets an ear be heard by whatever on the page follows commands. */
export function followEar(ear: CommandEar): () => void {
  return ear.listen((words) => {
    const command = commandOf(words);
    if (command) heardCommands.dispatchEvent(new CustomEvent<Command>('command', { detail: command }));
  });
}

export function useCommands(obey: (command: Command) => void): void {
  const latest = useRef(obey);
  useEffect(() => {
    latest.current = obey;
  });
  useEffect(() => {
    const hear = (event: Event): void => latest.current((event as CustomEvent<Command>).detail);
    heardCommands.addEventListener('command', hear);
    return () => heardCommands.removeEventListener('command', hear);
  }, []);
}
