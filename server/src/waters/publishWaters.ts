import { areasOf } from '@lauta/contract';
import { canonicalBytes, hashHex } from '@lauta/core/ledger';
import { watersTrouble } from '@lauta/core/waters';
import type { Handler } from '../command/commandContext.ts';
import { requireMay } from '../access/scope.ts';
import { refuse } from '../base/refusal.ts';

/** Publishes the event's waters anew; former versions stay. */
export const publishWaters: Handler<'waters.publish'> = async (
  { stores, asker, now },
  { waters },
  { eventId },
) => {
  await requireMay(stores, asker, 'edit-event', { eventId });
  const trouble = watersTrouble(areasOf(waters));
  if (trouble) refuse('waters-broken', { why: trouble.trouble, area: trouble.name });
  const bytes = canonicalBytes(waters);
  const sha256 = hashHex(bytes);
  const version = ((await stores.waters.latest(eventId))?.version ?? 0) + 1;
  await stores.waters.add(eventId, { version, bytes, sha256, publishedAt: now });
  return { body: { version, sha256 }, result: { version, sha256 } };
};
