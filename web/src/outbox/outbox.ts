import { useMemo, useSyncExternalStore } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { commandSchema, type Announcement, type CommandBody, type CommandKind, type Receipt } from '@lauta/contract'; // prettier-ignore
import { makeCommand, tellReceipt } from '../door/door.ts';
import { ApiProblem, sendJson, withRetry } from '../door/ask.ts';
import { askToSignIn } from '../door/askToSignIn.ts';
import { uploadPhotograph } from '../door/uploadPhotograph.ts';
import { openOutboxStore, type OutboxEntry, type OutboxFile, type Unreadable } from './outboxStore.ts';
import { openSentStore, type KeptCommand } from './sentStore.ts';
import { sendNext, sendingLoop, type Outcome } from './sender.ts';
import { readStored, writeStored, type Preference } from '../device/stored.ts';
import type { AccountId, CommandId, EventId } from '@lauta/core/ids';

export interface OutboxState {
  /** What waits, in the order in which it was written. */
  entries: readonly OutboxEntry[];
  unreadable: readonly Unreadable[];
  /** What the server took since this page was opened, and lists for a day: what it answers may be older for a moment. */
  sent: readonly KeptCommand[];
  /** Shares that have arrived, by command. */
  progress: Readonly<Record<string, number>>;
  trouble: 'away' | 'sign-in' | null;
  isPaused: boolean;
  /** Commands that the browser refused to store: they live as long as this page. */
  unstored: readonly string[];
}

/** So long a page waits for the server before it goes on with what is kept. */
const ANSWER_WAIT_MS = 8000;
const PAUSED: Preference<boolean> = {
  key: 'lauta-outbox-paused',
  parse: (text) => text === 'yes',
  format: (isPaused) => (isPaused ? 'yes' : 'no'),
};
const LOCK = 'lauta-outbox';

type Sent = KeptCommand & { kind: 'sent'; receipt: Receipt | null };
type Message = { kind: 'changed' } | Sent;

const asItIs = <T>(act: () => Promise<T>): Promise<T> => act();

/** Behind the one door: what was written on this device and goes to the server once, when it can. */
class Outbox {
  private readonly store = openOutboxStore();
  private readonly sentStore = openSentStore();
  private readonly listeners = new Set<() => void>();
  private readonly sentListeners = new Set<(eventId: EventId) => void>();
  private readonly receipts = new Map<string, Receipt | null>();
  private channel: BroadcastChannel | null = null;
  private readonly attempts = new Map<string, number>();
  private accountId: AccountId | null = null;
  /** Who wrote last: what is written after a session has ended is still theirs. */
  private writerId: string | null = null;
  private isKnownWho = false;
  /** Whether this tab sends. */
  private isSender = false;
  private readonly loop = sendingLoop(
    () => this.sendOne(),
    (outcome) => this.tried(outcome),
    () => this.state.isPaused,
  );
  private stopping = new AbortController();
  private state: OutboxState = {
    entries: [],
    unreadable: [],
    sent: [],
    progress: {},
    trouble: null,
    isPaused: false,
    unstored: [],
  };

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly snapshot = (): OutboxState => this.state;

  /** Told of each event that something arrived for. */
  onSent(listener: (eventId: EventId) => void): () => void {
    this.sentListeners.add(listener);
    return () => this.sentListeners.delete(listener);
  }

  /** What the server answered; undefined as long as it has not, null where it had the command already. */
  receiptOf(commandId: CommandId): Receipt | null | undefined {
    return this.receipts.get(commandId);
  }

  /** Who is signed in: only what that account wrote is sent. */
  setAccount(accountId: AccountId | null): void {
    this.accountId = accountId;
    this.writerId = accountId ?? this.writerId;
    this.isKnownWho = true;
    this.wake();
  }

  /**
   * Keeps a command on this device, files first; it is sent when it can be. Resolves when it is safe.
   * @param announcement the small thing that goes ahead of a claim's files
   */
  async keep<K extends CommandKind>(
    kind: K,
    eventId: EventId,
    body: CommandBody<K>,
    {
      commandId,
      files = [],
      announcement,
    }: { commandId?: CommandId; files?: readonly OutboxFile[]; announcement?: Announcement } = {},
  ): Promise<string> {
    if (!this.writerId) throw new Error('outbox: expected someone who has signed in');
    const command = commandSchema.parse(makeCommand(kind, eventId, body, commandId));
    const waiting = {
      accountId: this.writerId,
      order: Math.max(Date.now(), (this.state.entries.at(-1)?.order ?? 0) + 1),
      files: [],
      refused: null,
    };
    const ahead: OutboxEntry[] = announcement
      ? [{ ...waiting, command: commandSchema.parse(makeCommand('catch.announce', eventId, announcement)) }]
      : [];
    const entry: OutboxEntry = {
      ...waiting,
      command,
      order: waiting.order + ahead.length,
      files: files.map(({ fileId, sha256, mediaType, blob }) => ({ fileId, sha256, mediaType, byteLength: blob.size })), // prettier-ignore
    };
    // Asked once: what waits here must not be cleared away for want of room.
    void navigator.storage?.persist?.().catch(() => false);
    const { isStored } = await this.store.put(entry, files, ahead);
    if (!isStored) {
      const ids = [...ahead, entry].map((one) => one.command.commandId);
      this.change({ unstored: [...this.state.unstored, ...ids] });
      // No other tab knows of it.
      if (!this.isSender) void this.run();
    }
    await this.refresh();
    this.tell({ kind: 'changed' });
    this.wake();
    return command.commandId;
  }

  /**
   * Keeps a command and waits a little for the server's answer.
   * @returns the receipt; null where the server had it already; `waiting` where it goes when it can
   * @throws ApiProblem when the server refuses: then it is kept no longer
   */
  async submit<K extends CommandKind>(
    kind: K,
    eventId: EventId,
    body: CommandBody<K>,
    options: { commandId?: CommandId; files?: readonly OutboxFile[] } = {},
  ): Promise<Receipt | null | 'waiting'> {
    const commandId = await this.keep(kind, eventId, body, options);
    const refused = await new Promise<OutboxEntry['refused']>((resolve) => {
      const done = (why: OutboxEntry['refused']): void => {
        leave();
        clearTimeout(timer);
        resolve(why);
      };
      const look = (): void => {
        const entry = this.state.entries.find((one) => one.command.commandId === commandId);
        if (this.receipts.has(commandId)) done(null);
        else if (entry?.refused) done(entry.refused);
        else if (this.state.isPaused || this.state.trouble !== null) done(null);
      };
      const leave = this.subscribe(look);
      const timer = setTimeout(() => done(null), ANSWER_WAIT_MS);
      look();
    });
    if (refused) {
      await this.drop(commandId);
      throw new ApiProblem(refused);
    }
    const receipt = this.receipts.get(commandId);
    return receipt === undefined ? 'waiting' : receipt;
  }

  /** Lets a command that was refused be tried again. */
  async tryAgain(commandId: CommandId): Promise<void> {
    this.attempts.delete(commandId);
    await this.store.refuse(commandId, null);
    await this.refresh();
    this.tell({ kind: 'changed' });
    this.wake();
  }

  /** Claims a fish whose number the other phone has used, as a fish of its own. */
  async claimAnew(commandId: CommandId): Promise<void> {
    const entry = this.state.entries.find((one) => one.command.commandId === commandId);
    if (entry?.command.kind !== 'catch.claim') return;
    const command = {
      ...entry.command,
      commandId: uuidv7(),
      body: { ...entry.command.body, catchId: uuidv7() },
    };
    await this.store.replace(commandId, { ...entry, command, refused: null });
    await this.refresh();
    this.tell({ kind: 'changed' });
    this.wake();
  }

  /** Throws away what the server refused, because a person says so. */
  async drop(commandId: CommandId): Promise<void> {
    await this.store.remove(commandId);
    await this.refresh();
    this.tell({ kind: 'changed' });
  }

  setPaused(isPaused: boolean): void {
    writeStored(PAUSED, isPaused);
    this.takePause();
    this.tell({ kind: 'changed' });
  }

  /** Whether sending is paused is said in one tab and holds in all. */
  private takePause(): void {
    const isPaused = readStored(PAUSED);
    if (isPaused === this.state.isPaused) return;
    this.change({ isPaused });
    // What is under way stops between two chunks; what has arrived is not sent again.
    if (isPaused) this.stopping.abort();
    else this.wake();
  }

  private readonly wake = (): void => this.loop.wake();

  /** What waits and what was sent, before the first page is drawn. */
  async restore(): Promise<void> {
    const [kept, sent] = await Promise.all([this.store.all(), this.sentStore.all()]);
    this.change({ ...kept, sent });
  }

  /** Sends as long as the page lives; of several tabs one does, and the next when that is closed. */
  start(): void {
    if (this.channel) return;
    this.channel = new BroadcastChannel('lauta-outbox');
    this.channel.onmessage = ({ data }: MessageEvent<Message>) => {
      if (data.kind === 'sent') this.took(data);
      this.takePause();
      void this.refresh().then(this.wake);
    };
    this.takePause();
    window.addEventListener('online', this.wake);
    void this.refresh();
    const run = (): Promise<void> => this.run();
    // Without locks two tabs may send the same: the server takes it once.
    if ('locks' in navigator) void navigator.locks.request(LOCK, run);
    else void run();
  }

  /** Several may run: the server takes each command once. */
  private async run(): Promise<void> {
    this.isSender = true;
    await this.loop.run();
  }

  private async tried(outcome: Outcome): Promise<void> {
    // Whoever signs in now may be somebody else: nothing goes before it is known who.
    if (outcome === 'sign-in') {
      this.isKnownWho = false;
      void askToSignIn().catch(() => undefined);
    }
    this.change({ trouble: outcome === 'away' || outcome === 'sign-in' ? outcome : null });
    await this.refresh().catch(() => undefined);
  }

  private async sendOne(): Promise<Outcome> {
    if (this.state.isPaused) return 'nothing';
    this.stopping = new AbortController();
    const { signal } = this.stopping;
    return sendNext({
      store: this.store,
      attempts: this.attempts,
      accountId: () => (this.isKnownWho ? this.accountId : null),
      upload: ({ fileId, blob, sha256, mediaType }, eventId, onProgress) =>
        uploadPhotograph({ photographId: fileId, photo: blob, sha256, mediaType, eventId, onProgress, signal, through: asItIs }), // prettier-ignore
      post: (command) =>
        withRetry(() =>
          sendJson<Receipt>('POST', '/api/commands', command, { 'idempotency-key': command.commandId }),
        ),
      onProgress: (commandId, share) =>
        this.change({ progress: { ...this.state.progress, [commandId]: share } }),
      onSent: async ({ command, accountId }, receipt) => {
        const message = { kind: 'sent', command, accountId, receipt } as const;
        this.took(message);
        this.tell(message);
        await this.sentStore.add({ command, accountId });
      },
    });
  }

  private took({ command, accountId, receipt }: Sent): void {
    const { commandId, eventId } = command;
    this.receipts.set(commandId, receipt);
    if (receipt) tellReceipt(receipt);
    const progress = Object.fromEntries(
      Object.entries(this.state.progress).filter(([id]) => id !== commandId),
    );
    this.change({
      sent: [...this.state.sent, { command, accountId }],
      progress,
      unstored: this.state.unstored.filter((one) => one !== commandId),
    });
    for (const listener of this.sentListeners) listener(eventId);
  }

  private async refresh(): Promise<void> {
    this.change(await this.store.all());
  }

  private tell(message: Message): void {
    this.channel?.postMessage(message);
  }

  private change(part: Partial<OutboxState>): void {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }
}

export const outbox = new Outbox();

export function useOutbox(): OutboxState {
  return useSyncExternalStore(outbox.subscribe, outbox.snapshot);
}

/**
 * What was written on this device and waits, or was sent; the same array until that changes.
 * @param askedAtMs when the server was last asked for the list: what was sent before this page was opened is in its
 * answer, or was lost with the server's own
 */
export function useKeptCommands(askedAtMs = 0): readonly KeptCommand[] {
  const { entries, sent } = useOutbox();
  return useMemo(
    () => [...sent.filter(({ sentAtMs }) => sentAtMs === undefined || sentAtMs >= askedAtMs), ...entries],
    [sent, entries, askedAtMs],
  );
}
