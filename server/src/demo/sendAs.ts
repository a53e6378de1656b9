import type { Command, CommandBody, CommandKind, Receipt } from '@lauta/contract';
import { rollDice, seedFor } from '@lauta/sim/camera';
import { DEMO_EVENT, DEMO_OFFICIALS, DEMO_SEED, demoId } from '@lauta/sim/demo';
import { frozenClock } from '../base/clock.ts';
import { applyCommand } from '../dispatch/applyCommand.ts';
import { note } from '../installation/installation.ts';
import type { Lauta } from '../context/lauta.ts';
import { enterAcceptance } from '../access/signIn.ts';
import type { AccountId, EventId } from '@lauta/core/ids';

const PREPARED_MS = Date.parse(DEMO_EVENT.preparedAt);
const DEVICE_ID = demoId('device', PREPARED_MS);
export const DEMO_EVENT_ID = demoId('event', PREPARED_MS);
export const BOAT_CUP_ID = demoId('boat cup', PREPARED_MS);

/**
 * Sends commands as their senders would have, at the demo's own time.
 * @returns a function of the sender, a label that no other command of the event has, the instant, kind and body
 */
export const sendAs =
  (eventId: EventId) =>
  <K extends CommandKind>(
    lauta: Lauta,
    accountId: AccountId,
    label: string,
    atMs: number,
    kind: K,
    body: CommandBody<K>,
  ): Promise<Receipt> => {
    const commandId = demoId(`command ${eventId === DEMO_EVENT_ID ? '' : eventId}${label}`, atMs);
    const command = {
      v: 1,
      commandId,
      eventId,
      madeAt: new Date(atMs).toISOString(),
      deviceId: DEVICE_ID,
      kind,
      body,
    } as unknown as Command;
    // The same codes every time, so that photographs of their cards can be kept from one demo to the next.
    const { next: random } = rollDice(seedFor(DEMO_SEED, label));
    return applyCommand(
      { ...lauta, random, clock: frozenClock(new Date(atMs)) },
      accountId,
      commandId,
      command,
    );
  };

export async function ensureDirector(lauta: Lauta, preparedMs: number): Promise<string> {
  const { name, email } = DEMO_OFFICIALS.director;
  const accountId = demoId('account director', preparedMs);
  await lauta.storage.change(async (stores) => {
    const { people } = stores;
    if (await people.findAccount(accountId)) return;
    await people.addAccount(
      { accountId, name, email, passwordHash: null, founder: true, invitedByEventId: null },
      new Date(preparedMs),
    );
    await note(lauta, stores, accountId, new Date(preparedMs), { kind: 'account.found', accountId });
  });
  return accountId;
}

/** Takes up what the director gave, as its person did by the link; once. */
export async function takeUp(
  lauta: Lauta,
  eventId: EventId,
  accountId: AccountId,
  atMs: number,
): Promise<void> {
  const then = { ...lauta, clock: frozenClock(new Date(atMs)) };
  await lauta.storage.change(async (stores) => {
    const held = await stores.people.heldIn(eventId, accountId);
    if (held.some(({ acceptedAt }) => acceptedAt === null))
      await enterAcceptance(then, stores, eventId, accountId);
  });
}
