import { defineConfig } from 'drizzle-kit';

export default defineConfig({ dialect: 'mysql', schema: './src/storage/schema.ts', out: './drizzle' });
