import { sql } from 'drizzle-orm';
import type mysql from 'mysql2/promise';
import { mariadbBoardStore } from '../board/boardStore.mariadb.ts';
import { mariadbCatchStore } from '../catch/catchStore.mariadb.ts';
import { mariadbReceiptStore } from '../dispatch/receiptStore.mariadb.ts';
import { mariadbCustodyStore } from '../custody/custodyStore.mariadb.ts';
import { mariadbEventStore } from '../event/eventStore.mariadb.ts';
import { mariadbFlankStore } from '../same-fish/flankStore.mariadb.ts';
import { mariadbLedgerStore } from '../ledger/ledgerStore.mariadb.ts';
import { mariadbRecordStore } from '../ledger/recordStore.mariadb.ts';
import { mariadbPeopleStore } from '../access/peopleStore.mariadb.ts';
import { mariadbPhotographStore } from '../photo/photographStore.mariadb.ts';
import { mariadbRuleStore } from '../rules/ruleStore.mariadb.ts';
import { mariadbSpecimenStore } from '../specimen/specimenStore.mariadb.ts';
import { mariadbWeighInStore } from '../weigh-in/weighInStore.mariadb.ts';
import { mariadbWellStore } from '../well/wellStore.mariadb.ts';
import { mariadbWatersStore } from '../waters/watersStore.mariadb.ts';
import { inTransaction, migrateDatabase, openDatabase, type Connection } from '../storage/database.ts';
import { grantLeastRights } from '../storage/leastRights.ts';
import { mariadbSettingStore } from '../storage/settingStore.mariadb.ts';
import type { Storage, Stores } from '../storage/storage.ts';

export function mariadbStorage(pool: mysql.Pool): Storage {
  const database = openDatabase(pool);
  return {
    read: storesOn(database),
    change: (act) => inTransaction(database, (transaction) => act(storesOn(transaction))),
    ping: async () => {
      await database.execute(sql`select 1`);
    },
    migrate: () => migrateDatabase(database),
    grant: (account, password) => grantLeastRights(database, account, password),
    close: () => pool.end(),
  };
}

export function storesOn(connection: Connection): Stores {
  return {
    settings: mariadbSettingStore(connection),
    people: mariadbPeopleStore(connection),
    events: mariadbEventStore(connection),
    rules: mariadbRuleStore(connection),
    boards: mariadbBoardStore(connection),
    photographs: mariadbPhotographStore(connection),
    catches: mariadbCatchStore(connection),
    custody: mariadbCustodyStore(connection),
    waters: mariadbWatersStore(connection),
    specimens: mariadbSpecimenStore(connection),
    wells: mariadbWellStore(connection),
    weighIns: mariadbWeighInStore(connection),
    flanks: mariadbFlankStore(connection),
    ledger: mariadbLedgerStore(connection),
    receipts: mariadbReceiptStore(connection),
    record: mariadbRecordStore(connection),
  };
}
