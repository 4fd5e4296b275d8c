import { json, type ApiRoute } from '$lib/server/api/apiRoute';
import { sql } from 'drizzle-orm';

export const _api: ApiRoute = {
	GET: { says: 'Whether this server can do its work.', gives: json('Its state.') }
};

/** Whether this server can do its work: answers and reaches its database. */
export async function GET({ locals }) {
	await locals.services.db.run(sql`SELECT 1`);
	return Response.json({ status: 'ok' });
}
