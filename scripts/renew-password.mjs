// npm run -s renew-password -- ADDRESS: for someone whom no director can renew, a founder or the only director: a path under
// which that account chooses another password, once, within a day.
import { runOnDatabase } from './machine/onDatabase.mjs';
import { endWith } from './machine/say.mjs';

async function main() {
  process.exitCode = await runOnDatabase('bin/renewPassword.ts');
}

main().catch(endWith);
