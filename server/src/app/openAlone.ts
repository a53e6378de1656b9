import { openHeadSigner, type HeadSigner } from '../keys/headSigner.ts';
import { openPool } from '../storage/database.ts';
import { mariadbStorage } from './storage.mariadb.ts';
import type { Storage } from '../storage/storage.ts';

/** For commands beside the server: the database of LAUTA_DB and, where LAUTA_LEDGER_KEY names one, the key of its ledgers. */
export function openAlone(): { storage: Storage; signer: HeadSigner | null } {
  const uri = process.env['LAUTA_DB'];
  if (!uri) throw new Error('LAUTA_DB: expected the address of the database');
  const keyFile = process.env['LAUTA_LEDGER_KEY'];
  return {
    storage: mariadbStorage(openPool(uri, { connectionLimit: 2 })),
    signer: keyFile ? openHeadSigner(keyFile) : null,
  };
}
