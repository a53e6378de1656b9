import { parseArgs } from 'node:util';
import { openHeadSigner, rotateKey } from '../keys/headSigner.ts';

/** Shows the keys of LAUTA_LEDGER_KEY; with --rotate puts a new one in place of the present one first. */
const file = process.env['LAUTA_LEDGER_KEY'];
if (!file) throw new Error('LAUTA_LEDGER_KEY: expected the key\u2019s file');
const { values } = parseArgs({ options: { rotate: { type: 'boolean', default: false } } });
if (values.rotate) rotateKey(file, new Date());
for (const { keyId, retiredAt } of openHeadSigner(file).keys()) {
  const fingerprint = (keyId.match(/.{4}/g) ?? []).join(' ');
  process.stdout.write(`${fingerprint}  ${retiredAt === null ? 'signs now' : `until ${retiredAt}`}\n`);
}
