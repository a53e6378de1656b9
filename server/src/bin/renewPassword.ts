import { realClock } from '../base/clock.ts';
import { passingSigner } from '../keys/headSigner.ts';
import { openAlone } from '../app/openAlone.ts';
import { offerOperatorRenewal } from '../access/signIn.ts';

/** Prints the path under which the account of an address chooses another password, once, within a day. */
async function main(): Promise<void> {
  const [email] = process.argv.slice(2);
  if (email === undefined) throw new Error('expected an address: npm run renew-password -- ADDRESS');
  const { storage, signer } = openAlone();
  const renewal = await offerOperatorRenewal(
    { storage, clock: realClock(), signer: signer ?? passingSigner() },
    email,
  );
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
