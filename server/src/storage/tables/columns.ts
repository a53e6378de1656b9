import { customType, datetime } from 'drizzle-orm/mysql-core';

/** MariaDB's own UUID type; text on both sides. */
export const uuid = customType<{ data: string }>({ dataType: () => 'uuid' });

/** SHA-256, as hex outside and 32 bytes inside. */
export const sha256 = customType<{ data: string; driverData: Buffer }>({
  dataType: () => 'binary(32)',
  toDriver: (hex) => Buffer.from(hex, 'hex'),
  fromDriver: (bytes) => bytes.toString('hex'),
});

/** Up to 16 MiB of bytes, as they are. */
export const bytes = customType<{ data: Uint8Array; driverData: Buffer }>({
  dataType: () => 'mediumblob',
  toDriver: (value) => Buffer.from(value.buffer, value.byteOffset, value.byteLength),
  fromDriver: (value) => new Uint8Array(value.buffer, value.byteOffset, value.byteLength),
});

/** An instant, UTC, to the millisecond. */
export const instant = (name: string) => datetime(name, { mode: 'date', fsp: 3 });
