import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import type { LedgerEntryView } from '@lauta/contract';
import { notPrefixAt, type StoredEntry } from '@lauta/core/ledger';
import { LEDGER_SETTING } from '../installation/installation.ts';
import { openAlone } from '../app/openAlone.ts';
import type { Stores } from '../storage/storage.ts';
import { checkInstallation, checkLedger, type LedgerCheck } from '../verify/checkLedger.ts';
import type { EventId } from '@lauta/core/ids';

const MOST_SHOWN = 100;
const write = (text: string): void => void process.stdout.write(`${text}\n`);
/** Names come from people: none moves the cursor or turns the line. */
const plain = (text: string): string => text.replaceAll(/[\p{Cc}\p{Cf}\p{Cs}]/gu, '?');

/**
 * Checks every ledger on the database of LAUTA_DB, photographs' bytes included, and names all that does not fit; exit
 * status 1 then. With `--against FILE` also whether an older `ledger.jsonl` is the beginning of one of them.
 */
async function main(): Promise<void> {
  const { values } = parseArgs({ options: { against: { type: 'string' } } });
  const { storage, signer: key } = openAlone();
  const signer = key ?? undefined;
  const stores = storage.read;
  const events = await stores.events.all();
  const names = new Map(events.map(({ eventId, name }) => [eventId, name]));
  const own = await stores.settings.get(LEDGER_SETTING);
  // A ledger whose event is gone is checked all the same.
  for (const id of new Set([...names.keys(), ...(await stores.ledger.all())])) {
    if (id === own) continue;
    tell(`${plain(names.get(id) ?? 'an event that is gone')} (${id})`, await checkLedger(stores, id, { withBytes: true, signer })); // prettier-ignore
  }
  if (own !== null) tell('this installation', await checkInstallation(stores, { signer }));
  if (values.against) await compare(stores, values.against);
  await storage.close();
}

function tell(name: string, { ok, entries, head, faults, erased, untold }: LedgerCheck): void {
  const more = untold > 0 ? `; ${untold} rows that an earlier version entered nothing about` : '';
  const end = `${entries} entries, head ${head?.hash ?? 'none'}${more}`;
  if (ok) {
    write(`${name}: fits: ${end}`);
    return;
  }
  process.exitCode = 1;
  if (faults.length === 0) {
    write(`${name}: erased: ${erased} entries cannot be checked; all others fit: ${end}`);
    return;
  }
  write(
    `${name}: DOES NOT FIT: ${faults.length} differences${erased ? `, ${erased} entries erased` : ''}; ${end}`,
  );
  for (const { seq, fault, about } of faults.slice(0, MOST_SHOWN))
    write(`  ${seq === null ? 'no entry' : `entry ${seq}`}: ${fault}  ${plain(about)}`);
  if (faults.length > MOST_SHOWN) write(`  and ${faults.length - MOST_SHOWN} more`);
}

/** Proves that what was exported once is still the beginning of what is here. */
async function compare(stores: Stores, file: string): Promise<void> {
  const older = readFileSync(file, 'utf8')
    .split('\n')
    .filter((line) => line !== '')
    .map((line): StoredEntry => {
      const { seq, hash, text } = JSON.parse(line) as LedgerEntryView;
      return { seq, hash, bytes: Buffer.from(text) };
    });
  const first =
    older[0] && (JSON.parse(Buffer.from(older[0].bytes).toString('utf8')) as { eventId: EventId });
  if (!first) throw new Error(`${file}: expected a ledger, got no entry`);
  const newer = await stores.ledger.entries(first.eventId, 0, older.length);
  const at = notPrefixAt(older, newer);
  if (at === null) write(`${file}: its ${older.length} entries are the beginning of the ledger that is here`);
  else {
    write(`${file}: IS NOT THE BEGINNING of the ledger that is here: they part at entry ${at}`);
    process.exitCode = 1;
  }
}

await main();
