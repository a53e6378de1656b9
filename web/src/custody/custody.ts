import { MOST_CAPTURES_TOLD, type OwnKeyView } from '@lauta/contract';
import { deviceId } from '../door/door.ts';
import { sendJson } from '../door/ask.ts';
import { measureClockOffset } from './clockOffset.ts';
import { keepClockOffset } from '../device/preparedness.ts';
import { outbox } from '../outbox/outbox.ts';
import { openCustodyStore } from './custodyStore.ts';
import { canSign, openSigner, proofOf, type Capture } from './signer.ts';
import type { AccountId, CaptureId, EventId } from '@lauta/core/ids';

const LOCK = 'lauta-custody';
const COMPARING_MS = 10_000;

/** One act at a time, over all tabs; without locks over this one. */
function oneAtATime() {
  let last: Promise<unknown> = Promise.resolve();
  return <T>(act: () => Promise<T>): Promise<T> => {
    if ('locks' in navigator) return navigator.locks.request(LOCK, act) as Promise<T>;
    const next = last.then(act, act);
    last = next.catch(() => undefined);
    return next;
  };
}

/** What this device signs, and how the server comes to hear of it. */
class Custody {
  private readonly store = openCustodyStore();
  private readonly signer = openSigner(this.store, oneAtATime());
  private accountId: AccountId | null = null;
  private registered: string | null = null;
  private registering: Promise<void> = Promise.resolve();
  private signing: Promise<unknown> = Promise.resolve();
  private telling: Promise<void> = Promise.resolve();

  /** Who is signed in: makes this device's key where there is none, and registers it. Tried again at every start. */
  setAccount(accountId: AccountId | null): void {
    // What is signed after a session has ended is still theirs.
    this.accountId = accountId ?? this.accountId;
    if (!accountId || !canSign() || this.registered === accountId) return;
    this.registering = this.register(accountId).catch(() => undefined);
    void this.tell();
  }

  private async register(accountId: AccountId): Promise<void> {
    const key = await this.signer.keyOf(accountId);
    await sendJson<OwnKeyView>('POST', '/api/own-keys', {
      publicKey: key.publicKey,
      deviceId: deviceId(),
      proof: await proofOf(key, accountId),
    });
    this.registered = accountId;
    // What is signed later, perhaps without a network, tells how far the clock was off when it could be asked.
    const compared = await measureClockOffset(AbortSignal.timeout(COMPARING_MS));
    if (compared) keepClockOffset(compared.offsetMs);
  }

  /** This device's own key, once it was tried to register it; null where it can make none. */
  async ownKeyId(): Promise<string | null> {
    await this.registering;
    if (!this.accountId || !canSign()) return null;
    return this.signer.keyOf(this.accountId).then(
      ({ keyId }) => keyId,
      () => null,
    );
  }

  /** Signs a photograph. A browser that can't goes without: the judge finds it unsigned. */
  async sign(capture: Capture): Promise<void> {
    if (!this.accountId || !canSign()) return;
    const done = this.signer.sign(this.accountId, capture).catch(() => undefined);
    this.signing = Promise.all([this.signing, done]);
    await done;
  }

  /** Puts what was signed into the outbox: it goes ahead of everything that is larger. */
  tell(): Promise<void> {
    this.telling = this.telling.then(() => this.tellAll()).catch(() => undefined);
    return this.telling;
  }

  private async tellAll(): Promise<void> {
    // The last of a burst is still being signed.
    await this.signing;
    const untold = await this.store.untold();
    for (const { eventId, entrantId, signed } of untold) {
      const { keyId } = signed.statement;
      const together = untold
        .filter(
          (one) =>
            one.eventId === eventId && one.entrantId === entrantId && one.signed.statement.keyId === keyId,
        ) // prettier-ignore
        .slice(0, MOST_CAPTURES_TOLD);
      const commandId = await outbox.keep('captures.tell', eventId, { entrantId, captures: together.map((one) => one.signed) }); // prettier-ignore
      // Held by this page alone: it is told again by the next one, and the server takes it once.
      if (outbox.snapshot().unstored.includes(commandId)) return;
      await this.store.markTold(together.map(({ captureId }) => captureId));
      return this.tellAll();
    }
  }

  /** Frames of an event that are kept on this device for judges to ask for. */
  framesOf(eventId: EventId): Promise<string[]> {
    return this.store.framesOf(eventId);
  }

  /** The frame that a capture of this device speaks of: undefined where another device signed it. */
  async frameOf(captureId: CaptureId): Promise<string | null | undefined> {
    const kept = await this.store.capture(captureId).catch(() => null);
    return kept ? kept.frameId : undefined;
  }
}

export const custody = new Custody();
