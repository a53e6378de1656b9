import type { Receipt } from '@lauta/contract';
import { ApiProblem } from '../door/ask.ts';
import { isDoneAlready, nextEntry, waitMs } from './nextEntry.ts';
import type { OutboxEntry, OutboxFile, OutboxStore } from './outboxStore.ts';
import type { CommandId, EventId } from '@lauta/core/ids';

/** What a sender needs of the world. */
export interface SenderParts {
  store: OutboxStore;
  /** How often a file did not arrive as it was sent, by command. */
  attempts: Map<string, number>;
  accountId: () => string | null;
  upload: (file: OutboxFile, eventId: EventId, onProgress: (share: number) => void) => Promise<void>;
  post: (command: OutboxEntry['command']) => Promise<Receipt>;
  onProgress: (commandId: CommandId, share: number) => void;
  /** The server has it; null where it had it already. Told before it is forgotten here: it is never in neither place. */
  onSent: (entry: OutboxEntry, receipt: Receipt | null) => Promise<void>;
}

/** What came of one try: sent or refused, it is done with; `away` tries again later; `sign-in` waits for a person. */
export type Outcome = 'sent' | 'refused' | 'nothing' | 'away' | 'sign-in';

/** What arrived was not what was sent: it is sent again, but not for ever. */
const DAMAGED = ['checksum-mismatch', 'chunk-size', 'chunk-out-of-place', 'photograph-missing'];
const MOST_DAMAGED = 5;

/** Sends the next thing that waits: its files first, whole, then the command. Nothing is dropped before the server has it. */
export async function sendNext(parts: SenderParts): Promise<Outcome> {
  const { entries } = await parts.store.all();
  const entry = nextEntry(entries, parts.accountId());
  if (!entry) return 'nothing';
  const { commandId, eventId } = entry.command;
  try {
    const total = entry.files.reduce((sum, { byteLength }) => sum + byteLength, 0);
    let before = 0;
    for (const file of entry.files) {
      const blob = await parts.store.file(file.fileId);
      if (!blob) throw new ApiProblem({ type: 'file-gone', title: 'file gone', status: 422 });
      await parts.upload({ ...file, blob }, eventId, (share) =>
        parts.onProgress(commandId, (before + share * file.byteLength) / total),
      );
      before += file.byteLength;
    }
    const receipt = await parts.post(entry.command);
    await parts.onSent(entry, receipt);
    await parts.store.remove(commandId);
    return 'sent';
  } catch (error) {
    if (error instanceof ApiProblem && error.type === 'not-signed-in') return 'sign-in';
    if (!(error instanceof ApiProblem) || error.isPassing || error.problem.status >= 500) return 'away';
    if (error.type === 'too-many-tries') return 'away';
    if (DAMAGED.includes(error.type)) {
      const attempts = (parts.attempts.get(commandId) ?? 0) + 1;
      parts.attempts.set(commandId, attempts);
      if (attempts < MOST_DAMAGED) return 'away';
    }
    if (isDoneAlready(entry, error.problem)) {
      await parts.onSent(entry, null);
      await parts.store.remove(commandId);
      return 'sent';
    }
    await parts.store.refuse(commandId, error.problem);
    return 'refused';
  }
}

/**
 * Sends for as long as it is let: at once after what was sent or refused, after a while when nobody answered, and
 * otherwise when it is woken.
 * @param trySend sends the next thing that waits
 * @param tell told what came of each try, before the next
 */
export function sendingLoop(
  trySend: () => Promise<Outcome>,
  tell: (outcome: Outcome) => Promise<void>,
  isPaused: () => boolean,
) {
  const sleepers = new Set<() => void>();
  const wake = (): void => {
    for (const rise of sleepers) rise();
    sleepers.clear();
  };
  const run = async (isOver: () => boolean = () => false): Promise<void> => {
    let failures = 0;
    while (!isOver()) {
      // Made before the try: what is written while that runs is not slept over.
      const woken = new Promise<void>((resolve) => sleepers.add(resolve));
      const outcome = await trySend().catch((): Outcome => 'away');
      failures = outcome === 'away' ? failures + 1 : 0;
      await tell(outcome);
      if (outcome === 'sent' || outcome === 'refused') continue;
      const timer = outcome === 'away' && !isPaused() ? setTimeout(wake, waitMs(failures, Math.random())) : undefined; // prettier-ignore
      await woken;
      clearTimeout(timer);
    }
  };
  return { run, wake };
}
