import { sql } from 'drizzle-orm';

/** Whether this server can do its work: answers and reaches its database. */
export async function GET({ locals }) {
	await locals.services.db.run(sql`SELECT 1`);
	return Response.json({ status: 'ok' });
}
