// npm run verify-ledger: checks the record of every event, and names the first entry that does not fit.
import { runOnDatabase } from './machine/onDatabase.mjs';
import { endWith } from './machine/say.mjs';

async function main() {
  process.exitCode = await runOnDatabase('bin/verifyLedger.ts');
}

main().catch(endWith);
