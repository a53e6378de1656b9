import type { Problem } from '@lauta/contract';
import type { OutboxEntry } from './outboxStore.ts';
import type { AccountId } from '@lauta/core/ids';

/** What a director sets up goes in its order: a sheet after the board that it approves, a second sheet after the first. */
const SET_UP: ReadonlySet<OutboxEntry['command']['kind']> = new Set([
  'event.create',
  'rules.publish',
  'board.add',
  'waters.publish',
  'codes.reveal',
  'people.add',
  'people.remove',
  'results.declare',
]);

export const isSetUp = ({ command }: OutboxEntry): boolean => SET_UP.has(command.kind);

/** The catch that a command is about, the device's chain, an event's set-up; what is about none goes by itself. */
export function subjectOf({ command }: OutboxEntry): string {
  if (command.kind === 'captures.tell') return command.body.captures[0]?.statement.keyId ?? command.commandId;
  // A record may correct the one before it.
  if (command.kind === 'specimen.record') return `specimens of ${command.body.entrantId}`;
  if (SET_UP.has(command.kind)) return `set-up of ${command.eventId}`;
  return 'catchId' in command.body ? command.body.catchId : command.commandId;
}

export function bytesOf({ files }: OutboxEntry): number {
  return files.reduce((sum, { byteLength }) => sum + byteLength, 0);
}

/**
 * What is sent next: of each catch the oldest command that was not refused, and of these the one with the fewest
 * bytes: small things do not wait behind megabytes, and nothing overtakes within a catch. Null when nothing is left.
 * @param accountId who is signed in: what others wrote waits for them
 */
export function nextEntry(entries: readonly OutboxEntry[], accountId: AccountId | null): OutboxEntry | null {
  const first = new Map<string, OutboxEntry>();
  for (const entry of [...entries].sort((a, b) => a.order - b.order)) {
    if (entry.refused || entry.accountId !== accountId) continue;
    const subject = subjectOf(entry);
    if (!first.has(subject)) first.set(subject, entry);
  }
  return [...first.values()].sort((a, b) => bytesOf(a) - bytesOf(b) || a.order - b.order)[0] ?? null;
}

const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 120_000;

/** How long to wait after so many failures in a row, with some chance in it, so that a fleet does not come back at once. */
export function waitMs(failures: number, chance: number): number {
  const whole = Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** Math.max(0, failures - 1));
  return Math.round(whole * (0.5 + 0.5 * chance));
}

/**
 * Refusals that mean it was done before: an answer that was lost, or another tab. A claim's ids are made with its
 * draft, so whatever stands under them is this very fish.
 */
const DONE_ALREADY: Partial<Record<OutboxEntry['command']['kind'], readonly string[]>> = {
  'catch.announce': ['catch-announced', 'catch-exists'],
  'frame.send': ['frame-not-asked', 'photograph-taken'],
  'catch.claim': ['catch-exists', 'idempotency-key-reused', 'photograph-taken'],
  'specimen.record': ['entry-exists'],
  'catch.handle': ['handling-told'],
  'catch.time': ['handling-told'],
  'catch.clip': ['clip-sent'],
  'catch.withdraw': ['catch-withdrawn'],
  'catch.restore': ['catch-not-withdrawn'],
};

export function isDoneAlready({ command }: OutboxEntry, { type, fields }: Problem): boolean {
  if (!(DONE_ALREADY[command.kind]?.includes(type) ?? false)) return false;
  // Two phones may give two fish one number: then what stands under the id is the other phone's.
  const claimed = type === 'catch-exists' && command.kind === 'catch.claim' ? fields?.['measurementId'] : undefined; // prettier-ignore
  return (
    claimed === undefined ||
    (command.kind === 'catch.claim' && claimed === command.body.measurement.measurementId)
  );
}
