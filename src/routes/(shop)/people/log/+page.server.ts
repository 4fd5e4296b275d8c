import { clock } from '$lib/server/cases/clock';
import { actWords } from '$lib/server/accounts/adminWords';

export const load = async ({ locals, url }) => {
	const before = Number(url.searchParams.get('before') ?? NaN);
	const { rows, more } = await locals.services.adminLog.page(Number.isInteger(before) ? before : undefined);
	return {
		acts: rows.map((row) => ({ seq: row.seq, at: clock(row.at), by: row.byName, words: actWords(row) })),
		older: more ? (rows.at(-1)?.seq ?? null) : null,
		first: !Number.isInteger(before)
	};
};
