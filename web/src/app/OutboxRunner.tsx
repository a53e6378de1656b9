import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { setAppClock } from '../clock/appClock.ts';
import { custody } from '../custody/custody.ts';
import { onReceipt } from '../door/door.ts';
import { rememberHead } from '../live/toldHeads.ts';
import { useWho } from '../session/who.ts';
import { outbox } from '../outbox/outbox.ts';

/** Sends what waits, for whoever is signed in, from every page. */
export function OutboxRunner() {
  const who = useWho();
  const client = useQueryClient();
  const accountId = who.data?.account?.accountId ?? null;
  const known = who.data;
  useEffect(() => {
    // Without a network it is what was known last.
    if (known) setAppClock(known.clockOffsetMs, known.frozenAt);
  }, [known]);
  useEffect(() => outbox.start(), []);
  useEffect(() => onReceipt((receipt) => rememberHead(receipt.eventId, receipt)), []);
  // Each answer counts, not only another one: after an ended session nothing is sent before it is known who asks.
  useEffect(() => {
    outbox.setAccount(accountId);
    custody.setAccount(accountId);
  }, [accountId, who.dataUpdatedAt]);
  useEffect(
    () => outbox.onSent((eventId) => void client.invalidateQueries({ queryKey: ['event', eventId] })),
    [client],
  );
  return null;
}
