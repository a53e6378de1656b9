import { realClock } from '../clock.ts';
import { openHeadSigner, passingSigner } from '../ledger/headSigner.ts';
import { openPool } from '../storage/database.ts';
import { mariadbStorage } from '../storage/storage.ts';
import { offerOperatorRenewal } from './signIn.ts';

/** Prints the path under which the account of an address chooses another password, once, within a day. */
async function main(): Promise<void> {
  const [email] = process.argv.slice(2);
  if (email === undefined) throw new Error('expected an address: npm run renew-password -- ADDRESS');
  const uri = process.env['LAUTA_DB'];
  if (!uri) throw new Error('LAUTA_DB: expected the address of the database');
  const keyFile = process.env['LAUTA_LEDGER_KEY'];
  const signer = keyFile ? openHeadSigner(keyFile) : passingSigner();
  const storage = mariadbStorage(openPool(uri, { connectionLimit: 2 }));
  const renewal = await offerOperatorRenewal({ storage, clock: realClock(), signer }, email);
  await storage.close();
  if (!renewal) throw new Error('No account has this address and a password.');
  const until = renewal.expiresAt.toISOString();
  process.stdout.write(
    `Once, until ${until}, after the address at which Lauta is served: /renewal/${renewal.token}\n`,
  );
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 1;
});
