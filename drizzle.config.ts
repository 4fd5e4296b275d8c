import { defineConfig } from 'drizzle-kit';

export default defineConfig({
	dialect: 'turso',
	dbCredentials: { url: 'file:data/development.db' },
	schema: './src/lib/server/db/schema.ts',
	out: './src/lib/server/migrations'
});
