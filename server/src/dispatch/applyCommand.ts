import { createHash } from 'node:crypto';
import { canonicalBytes, genesisHash } from '@lauta/core/ledger';
import type { Command, CommandKind, Receipt } from '@lauta/contract';
import { addBoard } from '../board/addBoard.ts';
import {
  answerRequest,
  claimCatch,
  clipCatch,
  handleCatch,
  judgeCatch,
  restoreCatch,
  timeCatch,
  withdrawCatch,
} from '../catch/catchCommands.ts';
import { announceCatch, askFrames, sendFrame, tellCaptures } from '../custody/custodyCommands.ts';
import { createEvent } from '../event/createEvent.ts';
import { append } from '../ledger/append.ts';
import { declareResults } from '../event/declareResults.ts';
import { revealCodes } from '../event/revealCodes.ts';
import type { Lauta } from '../context/lauta.ts';
import { askerOf } from '../access/scope.ts';
import type { Pairing } from '../access/peopleStore.ts';
import { acceptRoles, addPerson, removePerson } from '../people/addPerson.ts';
import { publishRules } from '../rules/publishRules.ts';
import { refuse } from '../base/refusal.ts';
import { isDuplicate } from '../storage/database.ts';
import { recordSpecimen } from '../specimen/recordSpecimen.ts';
import { enterWeighIn } from '../weigh-in/enterWeighIn.ts';
import { enterWell } from '../well/enterWell.ts';
import { publishWaters } from '../waters/publishWaters.ts';
import type { CommandContext, Done, Handler } from '../command/commandContext.ts';
import { openPurse } from '../ledger/purse.ts';
import type { AccountId } from '@lauta/core/ids';

const HANDLERS: { [K in CommandKind]: Handler<K> } = {
  'event.create': createEvent,
  'rules.publish': publishRules,
  'board.add': addBoard,
  'people.add': addPerson,
  'people.accept': acceptRoles,
  'people.remove': removePerson,
  'waters.publish': publishWaters,
  'captures.tell': tellCaptures,
  'catch.announce': announceCatch,
  'catch.claim': claimCatch,
  'catch.judge': judgeCatch,
  'catch.answer': answerRequest,
  'catch.handle': handleCatch,
  'catch.time': timeCatch,
  'catch.clip': clipCatch,
  'frames.ask': askFrames,
  'frame.send': sendFrame,
  'well.enter': enterWell,
  'weigh-in.enter': enterWeighIn,
  'specimen.record': recordSpecimen,
  'results.declare': declareResults,
  'codes.reveal': revealCodes,
  'catch.withdraw': withdrawCatch,
  'catch.restore': restoreCatch,
};

/**
 * Carries out one command: the change, its ledger entry and its receipt are one transaction.
 * Sent again with the same key and body it gives the same receipt and does nothing.
 * @param pairing set where a paired phone sends for the account
 */
export async function applyCommand(
  lauta: Lauta,
  accountId: AccountId,
  idempotencyKey: string,
  command: Command,
  pairing: Pairing | null = null,
): Promise<Receipt> {
  if (lauta.disk.isFull()) refuse('storage-full');
  const bodySha256 = createHash('sha256').update(canonicalBytes(command)).digest('hex');
  const { receipt, isNew } = await lauta.storage
    .change(async (stores) => {
      const { eventId } = command;
      const head =
        command.kind === 'event.create'
          ? { seq: 0, hash: genesisHash(eventId) }
          : await stores.ledger.lockHead(eventId);
      const known = await stores.receipts.find(accountId, idempotencyKey);
      if (known) {
        if (known.bodySha256 !== bodySha256) refuse('idempotency-key-reused');
        return { receipt: known.receipt, isNew: false };
      }
      if (!head) refuse('not-found', { what: 'event' });
      const now = lauta.clock.now();
      const purse = openPurse();
      const asker = await askerOf(stores, accountId, pairing);
      const done = await handle(
        { stores, accountId, asker, now, random: lauta.random, commit: purse.commit },
        command,
      );
      const { commandId, kind, deviceId, madeAt } = command;
      const result = done.result ?? {};
      const signed = await append(
        stores,
        lauta.signer,
        head,
        {
          eventId,
          actorId: accountId,
          kind,
          at: now.toISOString(),
          body: {
            ...done.body,
            commandId,
            deviceId,
            madeAt,
            receipt: purse.commit('receipt', { idempotencyKey, bodySha256, result }),
          },
        },
        purse,
      );
      const made: Receipt = { commandId, kind, eventId, receivedAt: now.toISOString(), result, ...signed };
      await stores.receipts.keep(accountId, idempotencyKey, bodySha256, made, now);
      return { receipt: made, isNew: true };
    })
    .catch(async (error: unknown) => {
      // Two sendings at the same moment: the one that lost the race finds the other's receipt.
      if (!isDuplicate(error)) throw error;
      const known = await lauta.storage.read.receipts.find(accountId, idempotencyKey);
      // Something that the sender made an id for stands under that id already.
      if (!known) refuse('id-taken');
      if (known.bodySha256 !== bodySha256) refuse('idempotency-key-reused');
      return { receipt: known.receipt, isNew: false };
    });
  if (isNew) {
    const { eventId, seq, kind, hash, signature, signedBy } = receipt;
    lauta.hub.publish({ eventId, seq, kind, hash, signature, signedBy });
    if (command.kind === 'people.remove') lauta.hub.dropAccount(command.body.accountId);
  }
  return receipt;
}

function handle<K extends CommandKind>(
  context: CommandContext,
  command: Extract<Command, { kind: K }>,
): Promise<Done> {
  const handler = HANDLERS[command.kind as K];
  return handler(context, command.body as Parameters<Handler<K>>[1], command);
}
