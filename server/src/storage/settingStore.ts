export type SettingName =
  'demo-clock-offset-ms' | 'founder' | 'installation-ledger' | 'secret' | 'ledger-keys' | 'rights-granted';

/** What the installation remembers of itself. */
export interface SettingStore {
  get(name: SettingName): Promise<string | null>;
  set(name: SettingName, value: string): Promise<void>;
  /** Sets what may be set once only; false when it was set before, or is being set at this moment. */
  setOnce(name: SettingName, value: string): Promise<boolean>;
}
