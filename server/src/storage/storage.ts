import { sql } from 'drizzle-orm';
import type mysql from 'mysql2/promise';
import { mariadbBoardStore } from '../board/boardStore.mariadb.ts';
import type { BoardStore } from '../board/boardStore.ts';
import { mariadbCatchStore } from '../catch/catchStore.mariadb.ts';
import type { CatchStore } from '../catch/catchStore.ts';
import { mariadbReceiptStore } from '../command/receiptStore.mariadb.ts';
import type { ReceiptStore } from '../command/receiptStore.ts';
import { mariadbCustodyStore } from '../custody/custodyStore.mariadb.ts';
import type { CustodyStore } from '../custody/custodyStore.ts';
import { mariadbEventStore } from '../event/eventStore.mariadb.ts';
import type { EventStore } from '../event/eventStore.ts';
import { mariadbFlankStore } from '../flank/flankStore.mariadb.ts';
import type { FlankStore } from '../flank/flankStore.ts';
import { mariadbLedgerStore } from '../ledger/ledgerStore.mariadb.ts';
import type { LedgerStore } from '../ledger/ledgerStore.ts';
import type { RecordStore } from '../ledger/recordRows.ts';
import { mariadbRecordStore } from '../ledger/recordStore.mariadb.ts';
import { mariadbPeopleStore } from '../people/peopleStore.mariadb.ts';
import type { PeopleStore } from '../people/peopleStore.ts';
import { mariadbPhotographStore } from '../photo/photographStore.mariadb.ts';
import type { PhotographStore } from '../photo/photographStore.ts';
import { mariadbRuleStore } from '../rules/ruleStore.mariadb.ts';
import type { RuleStore } from '../rules/ruleStore.ts';
import { mariadbSpecimenStore } from '../specimen/specimenStore.mariadb.ts';
import type { SpecimenStore } from '../specimen/specimenStore.ts';
import { mariadbWeighInStore } from '../weigh-in/weighInStore.mariadb.ts';
import type { WeighInStore } from '../weigh-in/weighInStore.ts';
import { mariadbWellStore } from '../well/wellStore.mariadb.ts';
import type { WellStore } from '../well/wellStore.ts';
import { mariadbWatersStore } from '../waters/watersStore.mariadb.ts';
import type { WatersStore } from '../waters/watersStore.ts';
import { inTransaction, migrateDatabase, openDatabase, type Connection } from './database.ts';
import { grantLeastRights } from './leastRights.ts';
import { mariadbSettingStore } from './settingStore.mariadb.ts';
import type { SettingStore } from './settingStore.ts';

/** One store a room, all on the same connection. */
export interface Stores {
  settings: SettingStore;
  people: PeopleStore;
  events: EventStore;
  rules: RuleStore;
  boards: BoardStore;
  photographs: PhotographStore;
  catches: CatchStore;
  custody: CustodyStore;
  waters: WatersStore;
  specimens: SpecimenStore;
  wells: WellStore;
  weighIns: WeighInStore;
  flanks: FlankStore;
  ledger: LedgerStore;
  receipts: ReceiptStore;
  record: RecordStore;
}

export interface Storage {
  /** Each call stands for itself. */
  readonly read: Stores;
  /** All or nothing: what `act` did is kept only when it returns. It may run again after a deadlock. */
  change<T>(act: (stores: Stores) => Promise<T>): Promise<T>;
  /** Rejects while the database can't be reached. */
  ping(): Promise<void>;
  migrate(): Promise<void>;
  /** Gives another account of the database what the server needs while it runs. */
  grant(account: string, password: string): Promise<void>;
  close(): Promise<void>;
}

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
