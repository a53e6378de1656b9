import { openPool } from '../storage/database.ts';
import { mariadbStorage } from '../app/storage.mariadb.ts';

/** Brings the database of LAUTA_DB up to this version, and nothing else. */
const uri = process.env['LAUTA_DB'];
if (!uri) throw new Error('LAUTA_DB: expected the address of the database');
const storage = mariadbStorage(openPool(uri, { connectionLimit: 1 }));
await storage.migrate();
await storage.close();
