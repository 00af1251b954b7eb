import { defineConfig } from 'drizzle-kit';

export default defineConfig({ dialect: 'mysql', schema: './source/storage/schema.ts', out: './migrations' });
