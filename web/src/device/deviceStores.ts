import type { DBSchema, IDBPDatabase } from 'idb';

/** What this device keeps. Each room declares its own stores beside the code that reads them. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- rooms add their stores by declaration merging
export interface DeviceStores extends DBSchema {}

export type DeviceDatabase = IDBPDatabase<DeviceStores>;
