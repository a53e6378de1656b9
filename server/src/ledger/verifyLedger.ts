import { openPool } from '../storage/database.ts';
import { mariadbStorage } from '../storage/storage.ts';
import { checkLedger } from './checkLedger.ts';

/** Checks every event's ledger on the database of LAUTA_DB; exit status 1 when one does not fit. */
async function main(): Promise<void> {
  const uri = process.env['LAUTA_DB'];
  if (!uri) throw new Error('LAUTA_DB: expected the address of the database');
  const storage = mariadbStorage(openPool(uri, 2));
  for (const { eventId, name } of await storage.read.events.all()) {
    const { ok, entries, head, firstFault } = await checkLedger(storage.read, eventId, { withBytes: true });
    const line = ok
      ? `fits: ${entries} entries, head ${head?.hash ?? ''}`
      : `DOES NOT FIT at entry ${firstFault?.seq ?? '?'}: ${firstFault?.fault ?? ''}`;
    process.stdout.write(`${name} (${eventId}): ${line}\n`);
    if (!ok) process.exitCode = 1;
  }
  await storage.close();
}

await main();
