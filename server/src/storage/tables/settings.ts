import { mysqlTable, text, varchar } from 'drizzle-orm/mysql-core';

/** What the installation itself has to remember: whether it is a demo, and how far its clock is set off. */
export const settings = mysqlTable('settings', {
  name: varchar('name', { length: 60 }).primaryKey(),
  value: text('value').notNull(),
});
