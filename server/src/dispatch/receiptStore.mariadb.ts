import { and, eq } from 'drizzle-orm';
import { receiptSchema } from '@lauta/contract';
import type { Connection } from '../storage/database.ts';
import { receipts } from '../storage/schema.ts';
import type { ReceiptStore } from './receiptStore.ts';

export function mariadbReceiptStore(db: Connection): ReceiptStore {
  return {
    async find(accountId, idempotencyKey) {
      const [row] = await db
        .select()
        .from(receipts)
        .where(and(eq(receipts.accountId, accountId), eq(receipts.idempotencyKey, idempotencyKey)));
      return row ? { bodySha256: row.bodySha256, receipt: receiptSchema.parse(row.receipt) } : null;
    },
    async keep(accountId, idempotencyKey, bodySha256, receipt, createdAt) {
      await db.insert(receipts).values({ accountId, idempotencyKey, bodySha256, receipt, createdAt });
    },
  };
}
