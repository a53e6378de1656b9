import { asc, eq } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import { ruleSheets } from '../storage/schema.ts';
import type { RuleStore } from './ruleStore.ts';

export function mariadbRuleStore(db: Connection): RuleStore {
  return {
    async add(eventId, sheet) {
      await db.insert(ruleSheets).values({ eventId, ...sheet });
    },
    async versions(eventId) {
      return db
        .select({
          version: ruleSheets.version,
          bytes: ruleSheets.bytes,
          sha256: ruleSheets.sha256,
          publishedAt: ruleSheets.publishedAt,
        })
        .from(ruleSheets)
        .where(eq(ruleSheets.eventId, eventId))
        .orderBy(asc(ruleSheets.version));
    },
  };
}
