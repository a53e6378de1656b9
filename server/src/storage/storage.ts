import type { SettingStore } from './settingStore.ts';

/** One store a room, all on the same connection. A room adds its own beside its port (`declare module`). */
export interface Stores {
  settings: SettingStore;
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
