import { sql } from 'drizzle-orm';
import { json, type ApiRoute } from '$lib/server/api/apiRoute';
import { healthOf } from '$lib/server/db/open';

export const _api: ApiRoute = {
	GET: {
		says: 'Whether this server can do all of its work: reads, and writes.',
		gives: json('Its state; with 503 what is wrong.')
	}
};

/** Whether all of its work can be done: what balances and watches asks here. */
export async function GET({ locals }) {
	const { db } = locals.services;
	await db.run(sql`SELECT 1`);
	const trouble = healthOf(db).state();
	return trouble
		? Response.json({ status: trouble.kind, since: trouble.since }, { status: 503 })
		: Response.json({ status: 'ready' });
}
