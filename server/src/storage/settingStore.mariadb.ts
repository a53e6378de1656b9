import { eq } from 'drizzle-orm';
import type { Connection } from './database.ts';
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
  };
}
