export type SettingName = 'demo-clock-offset-ms' | 'demo-seed';

/** What the installation remembers of itself. */
export interface SettingStore {
  get(name: SettingName): Promise<string | null>;
  set(name: SettingName, value: string): Promise<void>;
}
