export type SettingName = 'demo-clock-offset-ms';

/** What the installation remembers of itself. */
export interface SettingStore {
  get(name: SettingName): Promise<string | null>;
  set(name: SettingName, value: string): Promise<void>;
}
