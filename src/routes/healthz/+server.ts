import { sql } from 'drizzle-orm';
import { services } from '$lib/server/running';

/** Whether this server can do its work: answers and reaches its database. */
export async function GET() {
	await services().db.run(sql`SELECT 1`);
	return Response.json({ status: 'ok' });
}
