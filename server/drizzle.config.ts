import { defineConfig } from 'drizzle-kit';

export default defineConfig({ dialect: 'mysql', schema: './source/schema.ts', out: './migrations' });
