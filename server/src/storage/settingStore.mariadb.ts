import { eq } from 'drizzle-orm';
import { isDuplicate, type Connection } from './database.ts';
import { settings } from './schema.ts';
import type { SettingStore } from './settingStore.ts';

export function mariadbSettingStore(db: Connection): SettingStore {
  return {
    async get(name) {
      const [row] = await db.select().from(settings).where(eq(settings.name, name));
      return row?.value ?? null;
    },
    async set(name, value) {
      await db.insert(settings).values({ name, value }).onDuplicateKeyUpdate({ set: { value } });
    },
    async setOnce(name, value) {
      try {
        await db.insert(settings).values({ name, value });
        return true;
      } catch (error) {
        if (!isDuplicate(error)) throw error;
        return false;
      }
    },
  };
}
