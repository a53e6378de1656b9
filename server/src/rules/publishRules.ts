import { canonicalBytes, hashHex } from '@lauta/core/ledger';
import { keptRules } from '@lauta/core/rules';
import { boardsOf } from '../board/eventBoards.ts';
import type { Handler } from '../command/commandContext.ts';
import { refuseIfOfficial } from '../event/declareResults.ts';
import { requireMay } from '../access/scope.ts';
import { refuse } from '../base/refusal.ts';
import { loadRuleBook } from './ruleBook.ts';

/** Publishes the next version of the event's sheet. What scores, and in which step, stays once a fish was claimed or a bag queued. */
export const publishRules: Handler<'rules.publish'> = async (
  { stores, asker, now },
  { sheet, replaces },
  command,
) => {
  const { eventId } = command;
  await requireMay(stores, asker, 'publish-rules', { eventId });
  await refuseIfOfficial({ stores }, eventId);
  const bytes = canonicalBytes(sheet);
  // A rule that is printed and that nothing keeps is worse than none.
  if (Buffer.compare(bytes, canonicalBytes(keptRules(sheet))) !== 0) refuse('rule-not-kept');
  const known = await boardsOf(stores, eventId);
  const unknown = sheet.boards.find((board) => !known.some(({ id }) => id === board));
  if (unknown) refuse('board-not-known', { board: unknown });
  const book = await loadRuleBook(stores, eventId);
  // Two directors do not publish over each other unseen; pages of versions before did not say what they replace.
  if (replaces !== undefined && replaces !== (book?.currentVersion ?? null))
    refuse('sheet-moved-on', { current: book?.currentVersion ?? null });
  const step = book?.current.measure.step;
  const isScored =
    (await stores.catches.countIn(eventId)) > 0 || (await stores.weighIns.ofEvent(eventId)).length > 0;
  if (step && step !== sheet.measure.step && isScored) {
    refuse('measure-fixed', { step });
  }
  const version = (book?.currentVersion ?? 0) + 1;
  const sha256 = hashHex(bytes);
  await stores.rules.add(eventId, { version, bytes, sha256, publishedAt: now });
  return { body: { version, sha256 }, result: { version, sha256 } };
};
