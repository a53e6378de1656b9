import { v7 as uuidv7 } from 'uuid';
import type { Command, CommandBody, CommandKind, Receipt } from '@lauta/contract';
import { appNow } from '../clock/appClock.ts';
import { AS_TEXT, readStored, writeStored, type Preference } from '../device/stored.ts';
import { ApiProblem, sendJson, withRetry } from './ask.ts';
import { askToSignIn } from './askToSignIn.ts';
import type { CommandId, EventId } from '@lauta/core/ids';

/** This browser, for the record of who sent what from where. */
export function deviceId(): string {
  const known = readStored(DEVICE);
  if (known) return known;
  const made = uuidv7();
  writeStored(DEVICE, made);
  return made;
}

const DEVICE: Preference<string> = { key: 'lauta-device', ...AS_TEXT };

/** A command as it is sent, and sent again: its id and its time are made once. */
export function makeCommand<K extends CommandKind>(
  kind: K,
  eventId: EventId,
  body: CommandBody<K>,
  commandId: CommandId = uuidv7(),
): Command {
  return {
    v: 1,
    commandId,
    eventId,
    madeAt: appNow().toISOString(),
    deviceId: deviceId(),
    kind,
    body,
  } as unknown as Command;
}

/**
 * The one door for writes. A command keeps its id through every retry and through signing in again,
 * so that it is done once, and answers with its receipt.
 * @param commandId handed in where a command must stay the same over reloads
 */
export async function sendCommand<K extends CommandKind>(
  kind: K,
  eventId: EventId,
  body: CommandBody<K>,
  commandId: CommandId = uuidv7(),
): Promise<Receipt> {
  const command = makeCommand(kind, eventId, body, commandId);
  const receipt = await signedIn(() =>
    withRetry(() => sendJson<Receipt>('POST', '/api/commands', command, { 'idempotency-key': commandId })),
  );
  tellReceipt(receipt);
  return receipt;
}

/** Tells all who keep what the server promised of a receipt that came. */
export function tellReceipt(receipt: Receipt): void {
  for (const hear of receiptListeners) hear(receipt);
}

const receiptListeners = new Set<(receipt: Receipt) => void>();

/** Told of each receipt that came. */
export function onReceipt(hear: (receipt: Receipt) => void): () => void {
  receiptListeners.add(hear);
  return () => void receiptListeners.delete(hear);
}

/** Runs a write, asks to sign in when the session has ended, and runs it again. */
export async function signedIn<T>(act: () => Promise<T>): Promise<T> {
  for (;;) {
    try {
      return await act();
    } catch (error) {
      if (!(error instanceof ApiProblem && error.type === 'not-signed-in')) throw error;
      await askToSignIn();
    }
  }
}
